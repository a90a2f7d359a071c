/** The rows of a brief that several screens share: length, frame, mood, voice, pace. */
import { MOOD_RULES, moodRows, moodTells } from '@ursprung/core/desk';
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
export const MoodChoice = ({ rules = false, ...of }: Of<ChannelSettings['mood']> & { rules?: boolean }) => (
  <div>
    <Choice label="Mood" {...of} options={MOODS.map((m) => [m, m])} />
    <p className="m-0 pt-1 text-[12px] leading-snug text-ink3">
      {`${capital(MOOD_RULES[of.value].says)}. ${rules ? moodRows(of.value).join(' ') : moodTells(of.value)}`}
    </p>
  </div>
);
const capital = (text: string) => text[0].toUpperCase() + text.slice(1);

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
