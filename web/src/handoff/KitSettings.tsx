/** What every kit of a script is made with: frames a second, the synthesizer's limits, what a computer made. */
import { FRAME_RATES, type FrameRate } from '@ursprung/core/handoff/desk';
import type { HandoffSettings } from '../api.ts';

export function KitSettings({
  own,
  onChange,
  voice,
  totalMs,
}: {
  own: HandoffSettings;
  onChange: (c: Partial<HandoffSettings>) => void;
  voice: number;
  totalMs: number;
}) {
  const left = own.voiceMinutes === null ? null : own.voiceMinutes - voice;
  return (
    <div className="border-t border-hair pr-3 text-[12.5px]">
      <p className="columnhead !px-0">pictures a second</p>
      <div role="radiogroup" aria-label="Frames a second" className="flex gap-3">
        {FRAME_RATES.map((r: FrameRate) => (
          <button
            key={r}
            role="radio"
            aria-checked={r === own.rate}
            className={`clock cursor-pointer text-[13px] ${r === own.rate ? 'font-bold border-b-2 border-ink text-ink' : 'text-ink2'}`}
            onClick={() => onChange({ rate: r })}
          >
            {r}
          </button>
        ))}
      </div>
      <p className="columnhead !px-0 mt-2">for the synthesizer</p>
      <label className="flex justify-between items-baseline">
        characters a file
        <input
          className="field w-[76px]"
          type="number"
          min="500"
          max="1000000"
          step="500"
          key={own.ssmlLimit}
          defaultValue={own.ssmlLimit}
          onBlur={(e) =>
            onChange({ ssmlLimit: Math.max(500, Math.min(1e6, Math.round(Number(e.target.value)) || 5000)) })
          }
        />
      </label>
      <label className="flex justify-between items-baseline">
        minutes a month
        <input
          className="field w-[76px]"
          type="number"
          min="0"
          step="1"
          key={own.voiceMinutes ?? ''}
          defaultValue={own.voiceMinutes ?? ''}
          onBlur={(e) =>
            onChange({ voiceMinutes: e.target.value === '' ? null : Math.max(0, Number(e.target.value)) })
          }
        />
      </label>
      <p className={left !== null && left < totalMs / 60_000 ? 'finding' : 'text-ink3'}>
        {(totalMs / 60_000).toFixed(1)} min here
        {left === null ? '' : `, ${Math.max(0, left).toFixed(1)} left this month`}
      </p>
      <p className="columnhead !px-0 mt-2">made by a computer</p>
      {(
        [
          ['voiceMade', 'the voice'],
          ['picturesMade', 'pictures'],
        ] as const
      ).map(([k, name]) => (
        <label key={k} className="flex gap-2 items-center">
          <input
            type="checkbox"
            className="w-6 h-6"
            checked={own[k]}
            onChange={(e) => onChange({ [k]: e.target.checked })}
          />{' '}
          {name}
        </label>
      ))}
    </div>
  );
}
