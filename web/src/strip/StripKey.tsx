/** What the strip's marks mean, beside the strip: each as it is drawn there. */
import type { ReactNode } from 'react';
import { Popover } from 'radix-ui';

const ROWS: readonly (readonly [ReactNode, string])[] = [
  [
    <g key="loop" fill="none" stroke="var(--ink3)" strokeWidth="1.1">
      <circle cx="4" cy="15" r="3" />
      <circle cx="38" cy="15" r="3" fill="var(--ink3)" />
      <path d="M4 12V8q0-6 6-6h22q6 0 6 6v4" />
    </g>,
    'a question, from where it is raised to where it is settled',
  ],
  [
    <g key="open" fill="none" stroke="var(--copper)">
      <circle cx="4" cy="15" r="3" strokeWidth="1.4" />
      <path d="M4 12V8q0-6 6-6h14" strokeDasharray="3 2" />
    </g>,
    'a question that is never settled',
  ],
  [
    <g key="plan">
      <rect x="1" y="2" width="40" height="15" fill="var(--sheet)" stroke="var(--mark)" />
      <rect x="1" y="14" width="28" height="3" fill="var(--ink2)" />
      <rect x="29" y="11" width="12" height="6" fill="url(#over)" />
    </g>,
    'a section: the rule is its planned time, hatched what is over it',
  ],
  [<path key="cut" d="M4 5v8M14 5v8M30 5v8" stroke="var(--ink2)" />, 'the picture changes'],
  [
    <g key="shade" fill="var(--ink)">
      <rect x="1" y="6" width="13" height="7" opacity="0.34" />
      <rect x="14.5" y="6" width="13" height="7" opacity="0.12" />
      <path d="M28 12.5h13" stroke="var(--copper)" strokeWidth="1.5" strokeDasharray="3 2" />
    </g>,
    'how much is new in ten seconds; broken rule: hardly anything',
  ],
  [
    <g key="target" fill="none" stroke="var(--ink)" strokeWidth="1.5">
      <path d="M14 2h-4v15h4M28 2h4v15h-4M21 1v6" />
    </g>,
    'the length asked for, and how far beside it is still met',
  ],
];

export function StripKey() {
  return (
    <Popover.Root>
      <Popover.Trigger className="quietpress text-[12px]">what the marks mean</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="bg-sheet border border-edge p-4 z-40 w-[340px] max-w-[95vw] text-[13px] text-ink"
          align="end"
          sideOffset={4}
          collisionPadding={8}
          aria-label="What the marks of the strip mean"
        >
          <dl className="grid grid-cols-[52px_1fr] gap-y-2 items-center">
            {ROWS.map(([mark, says]) => (
              <div key={says} className="contents">
                <dt>
                  <svg width="42" height="19" viewBox="0 0 42 19" aria-hidden="true">
                    {mark}
                  </svg>
                </dt>
                <dd>{says}</dd>
              </div>
            ))}
          </dl>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
