/** The rows of a brief that several screens share: length, frame, mood, voice, pace. */
import { useState } from 'react';
import {
  BRIEF_LIMITS,
  GENRES,
  MOOD_RULES,
  genreSays,
  hasSubject,
  moodRows,
  moodTells,
  pointsFrom,
  type Genre,
} from '@ursprung/core/desk';
import type { MoodLine } from '@ursprung/core/draft';
import type { ChannelSettings, ScriptRowSettings } from '../api.ts';
import { Choice } from '../shell/Choice.tsx';
import { lengthMs } from '../text/clockText.ts';

type Frame = ChannelSettings['frame'];
type TargetKind = ScriptRowSettings['target']['kind'];
type Of<T extends string> = { value: T; onChange: (value: T) => void };

/** Words a minute a frame starts from (common practice, no published source). */
export const USUAL_PACE: Readonly<Record<Frame, number>> = { '16:9': 150, '9:16': 190, '1:1': 175 };

export const FrameChoice = (of: Of<Frame>) => (
  <Choice
    label="Frame"
    {...of}
    options={[
      ['16:9', '16:9'],
      ['9:16', '9:16'],
      ['1:1', '1:1'],
    ]}
  />
);

const MOODS = Object.keys(MOOD_RULES) as ChannelSettings['mood'][];

/** The mood, and how it sounds; with `rules`, what it does to a draft, so that a writer can follow it too. */
export const MoodChoice = ({
  rules = false,
  line,
  ...of
}: Of<ChannelSettings['mood']> & { rules?: boolean; line?: MoodLine | undefined }) => (
  <div>
    <Choice label="Mood" {...of} options={MOODS.map((m) => [m, m])} />
    <p className="m-0 pt-1 text-[12px] leading-snug text-ink3">
      {`${capital(MOOD_RULES[of.value].says)}. ${rules ? moodRows(of.value).join(' ') : moodTells(of.value)}`}
    </p>
    {line && (
      <p className="m-0 pt-1 font-serif text-[13.5px] leading-snug">
        <span className="text-ink3">
          {of.value === 'calm' ? 'In the source' : 'Evenly'}: {line.before}
        </span>{' '}
        {capital(of.value)}: {line.after}
      </p>
    )}
  </div>
);
const capital = (text: string) => text[0].toUpperCase() + text.slice(1);

/** What kind of piece it is: which facts it tells rather than others. */
export const GenreChoice = ({
  value,
  whose,
  onChange,
}: {
  value: Genre | undefined;
  whose: string;
  onChange: (change: { genre: Genre | undefined; whose: string }) => void;
}) => (
  <div>
    <Choice
      label="Kind of piece"
      value={value ?? 'any'}
      onChange={(v) => onChange({ genre: v === 'any' ? undefined : v, whose })}
      options={[['any', 'any'] as const, ...GENRES.map((g) => [g, g] as const)]}
    />
    {value && hasSubject(value) && (
      <TypedField
        label={value === 'portrait' ? 'Whose portrait' : 'Whose opinion'}
        placeholder={value === 'portrait' ? 'whose; else who is named most' : 'whose; else anybody’s'}
        most={BRIEF_LIMITS.whose}
        value={whose}
        onChange={(typed) => onChange({ genre: value, whose: typed })}
      />
    )}
    {value && <p className="m-0 pt-1 text-[12px] leading-snug text-ink3">{capital(genreSays(value))}.</p>}
  </div>
);

/** A line of words that is taken when it is left. */
export function TypedField({
  label,
  value,
  placeholder,
  most,
  onChange,
}: {
  label: string;
  value: string;
  placeholder: string;
  most: number;
  onChange: (value: string) => void;
}) {
  const [text, setText] = useState<string | null>(null);
  return (
    <input
      className="field w-full"
      aria-label={label}
      placeholder={placeholder}
      value={text ?? value}
      maxLength={most}
      onChange={(e) => setText(e.target.value)}
      onBlur={() => {
        if (text !== null && text.trim() !== value) onChange(text.trim());
        setText(null);
      }}
    />
  );
}

/** Points and keywords, a line each, taken when the field is left. */
function PointsField({
  label,
  value,
  placeholder,
  onChange,
}: {
  label: string;
  value: readonly string[];
  placeholder: string;
  onChange: (points: string[]) => void;
}) {
  const [text, setText] = useState<string | null>(null);
  const shown = text ?? value.join('\n');
  return (
    <textarea
      className="field w-full resize-y leading-snug"
      aria-label={label}
      placeholder={placeholder}
      rows={Math.min(6, Math.max(2, shown.split('\n').length))}
      value={shown}
      maxLength={4000}
      onChange={(e) => setText(e.target.value)}
      onBlur={() => {
        if (text !== null)
          onChange(
            pointsFrom(text)
              .map((p) => p.slice(0, BRIEF_LIMITS.point))
              .slice(0, BRIEF_LIMITS.points),
          );
        setText(null);
      }}
    />
  );
}

/** Who listens in the writer's words, and what they know already. */
export const ListenerFields = ({
  listener,
  known,
  onChange,
}: {
  listener: string;
  known: readonly string[];
  onChange: (change: { listener: string } | { known: string[] }) => void;
}) => (
  <>
    <TypedField
      label="Who listens, in your words"
      placeholder="in your words; stands in orders"
      most={BRIEF_LIMITS.listener}
      value={listener}
      onChange={(typed) => onChange({ listener: typed })}
    />
    <PointsField
      label="What they know already"
      placeholder="what they know already, a line each"
      value={known}
      onChange={(points) => onChange({ known: points })}
    />
  </>
);

/** What must come up. */
export const CoverField = (of: { value: readonly string[]; onChange: (points: string[]) => void }) => (
  <PointsField label="Points and keywords to cover" placeholder="points and keywords, a line each" {...of} />
);

export const VoiceChoice = (of: Of<ChannelSettings['voice']>) => (
  <Choice
    label="Voice"
    {...of}
    options={[
      ['even', 'even'],
      ['quick', 'quick'],
      ['plain', 'plain'],
    ]}
  />
);

export const TargetKindChoice = (of: Of<TargetKind>) => (
  <Choice
    label="Length is"
    {...of}
    options={[
      ['point', 'about'],
      ['floor', 'at least'],
      ['ceiling', 'at most'],
    ]}
  />
);

export function PaceSlider({ value, onChange }: { value: number; onChange: (pace: number) => void }) {
  return (
    <>
      <input
        type="range"
        min={105}
        max={215}
        step={5}
        value={value}
        aria-label="Pace in words a minute"
        className="w-40 mr-2 align-middle accent-(--spruce)"
        onChange={(e) => onChange(Number(e.target.value))}
      />
      <span className="clock text-ink">{value} wpm</span>
    </>
  );
}

/** Seconds of a length as a person writes it, or what is wrong with it, in their words. */
export function readLength(text: string): { seconds: number; problem: string | null } {
  const seconds = (lengthMs(text) ?? NaN) / 1000;
  return { seconds, problem: lengthProblem(seconds) };
}

export function lengthProblem(seconds: number): string | null {
  if (Number.isNaN(seconds)) return 'A length is written like 3:00, 180 or three minutes.';
  if (seconds < 15) return 'The shortest length is 15 seconds.';
  return seconds > 1500 ? 'The longest length is 25 minutes.' : null;
}
