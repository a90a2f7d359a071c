/** Role glyphs, 14 px, 1.5 px strokes; always beside their word. */
import type { SectionRole } from '@ursprung/core/script';

const PATHS: Record<SectionRole, string> = {
  hook: 'M9 2v6a3.5 3.5 0 0 1-7 0M9 2l3 3',
  ground: 'M7 2v9M2 11.5h10',
  turn: 'M2 4h8v8',
  workings: 'M1.5 12h4V8h4V4h3.5',
  strain: 'M2 11l5-8 5 8',
  settle: 'M1.5 10h11M7 3.5a3 3 0 1 1 0 6 3 3 0 0 1 0-6',
  close: 'M4 2.5v9M9.5 2.5v9M10.5 2.5v9',
};

export const glyphPath = (role: string): string => PATHS[role as SectionRole] ?? PATHS.ground;

export const Glyph = ({ role }: { role: string }) => (
  <svg width="14" height="14" aria-hidden="true" className="shrink-0">
    <path d={glyphPath(role)} fill="none" stroke="var(--ink)" strokeWidth="1.5" />
  </svg>
);
