/** What a channel's scripts start from: the same fields where a channel is added and where it is changed. */
import type { ChannelSettings } from '../api.ts';
import { FrameChoice, MoodChoice, USUAL_PACE, VoiceChoice } from '../brief/fields.tsx';
import { Choice } from '../shell/Choice.tsx';
import { lengthMs } from '../text/clockText.ts';

/** As they are typed. */
export interface ChannelDraft {
  frame: ChannelSettings['frame'];
  mood: ChannelSettings['mood'];
  voice: ChannelSettings['voice'] | '';
  pace: string;
  from: string;
  to: string;
  longest: string;
  contractions: 'yes' | 'no';
  opening: string;
  signOff: string;
  pictures: string;
}

const OPENING = 'opening';
const SIGN_OFF = 'sign-off';
/** What a frame's scripts usually last, in seconds (common practice, no published source). */
const USUAL: Readonly<Record<ChannelSettings['frame'], ChannelSettings['usual']>> = {
  '16:9': { from: 300, to: 600 },
  '1:1': { from: 300, to: 600 },
  '9:16': { from: 30, to: 90 },
};
/** Whole seconds as a length is typed: "5:00". */
const lengthText = (s: number) => `${Math.floor(s / 60)}:${String(Math.round(s) % 60).padStart(2, '0')}`;
const usualVoice = (frame: ChannelSettings['frame']) => (frame === '9:16' ? 'quick' : 'even');

/** What a channel is set to, as it would be typed; a new one is empty where its frame says what is usual. */
export function draftOf(settings?: ChannelSettings): ChannelDraft {
  const words = (id: string) => settings?.fixed?.find((f) => f.id === id)?.text ?? '';
  return {
    frame: settings?.frame ?? '16:9',
    mood: settings?.mood ?? 'calm',
    voice: settings?.voice ?? '',
    pace: settings ? String(settings.pace) : '',
    from: settings ? lengthText(settings.usual.from) : '',
    to: settings ? lengthText(settings.usual.to) : '',
    longest: settings?.house?.longest ? String(settings.house.longest) : '',
    contractions: settings?.house?.contractions === false ? 'no' : 'yes',
    opening: words(OPENING),
    signOff: words(SIGN_OFF),
    pictures: settings?.pictures?.style ?? '',
  };
}

const lengthOf = (typed: string, usual: number): number => {
  if (!typed.trim()) return usual;
  const ms = lengthMs(typed);
  return ms !== null && Number.isFinite(ms) ? Math.round(ms / 1000) : NaN;
};

/** Why what is typed can't be taken, in the person's words; null where it can. */
export function wrongWith(draft: ChannelDraft): string | null {
  const usual = USUAL[draft.frame];
  const [from, to] = [lengthOf(draft.from, usual.from), lengthOf(draft.to, usual.to)];
  if (Number.isNaN(from) || Number.isNaN(to)) return 'A length is minutes and seconds, like 5:00.';
  if (from > to) return 'The shorter length comes first.';
  if (draft.pace && !/^\d+$/.test(draft.pace.trim())) return 'A pace is words a minute, like 150.';
  if (draft.longest && !/^\d+$/.test(draft.longest.trim())) return 'The longest sentence is a number of words, like 26.';
  return null;
} // prettier-ignore

/** What is typed as settings; `had` are those of a channel that is there, of which nothing else is lost. */
export function settingsOf(draft: ChannelDraft, had?: ChannelSettings) {
  const usual = USUAL[draft.frame];
  const { longest: _longest, contractions: _contractions, ...house } = had?.house ?? {};
  const others = (had?.fixed ?? []).filter((f) => f.id !== OPENING && f.id !== SIGN_OFF);
  const fixed = [
    ...(draft.opening.trim() ? [{ id: OPENING, name: 'opening line', text: draft.opening.trim(), where: 'start' as const }] : []),
    ...others,
    ...(draft.signOff.trim() ? [{ id: SIGN_OFF, name: 'sign-off', text: draft.signOff.trim(), where: 'end' as const }] : []),
  ];
  const newHouse = {
    ...house,
    ...(draft.longest ? { longest: Number(draft.longest) } : {}),
    ...(draft.contractions === 'no' ? { contractions: false } : {}),
  };
  const pictures = { ...had?.pictures, style: draft.pictures.trim() };
  return {
    frame: draft.frame,
    mood: draft.mood,
    pace: draft.pace ? Number(draft.pace) : USUAL_PACE[draft.frame],
    voice: draft.voice || usualVoice(draft.frame),
    usual: { from: lengthOf(draft.from, usual.from), to: lengthOf(draft.to, usual.to) },
    ...(had?.house || Object.keys(newHouse).length ? { house: newHouse } : {}),
    ...(had?.fixed || fixed.length ? { fixed } : {}),
    ...(had?.pictures || pictures.style ? { pictures } : {}),
  };
} // prettier-ignore

/** A labelled line of words. */
export function Typed({
  label,
  value,
  onChange,
  className = 'w-28 font-mono',
  ...rest
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
  className?: string;
  placeholder?: string;
  maxLength?: number;
  inputMode?: 'numeric';
  autoFocus?: boolean;
}) {
  return (
    <label className="flex flex-col gap-0.5 text-ink3">
      {label}
      <input
        {...rest}
        className={`field text-ink ${className}`}
        value={value}
        onChange={(e) => onChange(e.target.value)}
      />
    </label>
  );
}

export function ChannelFields({
  draft,
  onChange,
}: {
  draft: ChannelDraft;
  onChange: (change: Partial<ChannelDraft>) => void;
}) {
  const usual = USUAL[draft.frame];
  return (
    <>
      <div>
        <div className="text-ink3">frame</div>
        <FrameChoice value={draft.frame} onChange={(frame) => onChange({ frame })} />
      </div>
      <div>
        <div className="text-ink3">mood</div>
        <MoodChoice value={draft.mood} onChange={(mood) => onChange({ mood })} />
      </div>
      <div>
        <div className="text-ink3">voice on the clock</div>
        <VoiceChoice
          value={draft.voice || usualVoice(draft.frame)}
          onChange={(voice) => onChange({ voice })}
        />
      </div>
      <Typed
        label="pace, words a minute"
        inputMode="numeric"
        placeholder={String(USUAL_PACE[draft.frame])}
        value={draft.pace}
        onChange={(pace) => onChange({ pace })}
      />
      <Typed
        label="usual length, from"
        className="w-20 clock"
        placeholder={lengthText(usual.from)}
        value={draft.from}
        onChange={(from) => onChange({ from })}
      />
      <Typed
        label="to"
        className="w-20 clock"
        placeholder={lengthText(usual.to)}
        value={draft.to}
        onChange={(to) => onChange({ to })}
      />
      <Typed
        label="longest sentence, words"
        inputMode="numeric"
        placeholder="26"
        value={draft.longest}
        onChange={(longest) => onChange({ longest })}
      />
      <div>
        <div className="text-ink3">“isn’t” and “it’s”</div>
        <Choice
          label="Contractions"
          value={draft.contractions}
          onChange={(contractions) => onChange({ contractions })}
          options={[
            ['yes', 'said'],
            ['no', 'in full'],
          ]}
        />
      </div>
      <Typed
        label="opening line"
        className="w-64"
        placeholder="words that begin every script"
        maxLength={400}
        value={draft.opening}
        onChange={(opening) => onChange({ opening })}
      />
      <Typed
        label="sign-off"
        className="w-64"
        placeholder="words that end every script"
        maxLength={400}
        value={draft.signOff}
        onChange={(signOff) => onChange({ signOff })}
      />
      <Typed
        label="how its pictures look"
        className="w-64"
        placeholder="said in every picture’s description"
        maxLength={400}
        value={draft.pictures}
        onChange={(pictures) => onChange({ pictures })}
      />
    </>
  );
}
