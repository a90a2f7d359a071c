/**
 * Time code at the frame rates of film and television: SMPTE ST 12-1 with its drop-frame count, in which the numbers of
 * two frames are left out at every minute that is not a tenth.
 */
export const FRAME_RATES = ['24', '25', '29.97', '30'] as const;
export type FrameRate = (typeof FRAME_RATES)[number];
interface Rate {
  /** Frames a second as a fraction. */
  num: number;
  den: number;
  /** Frames the count has in a second. */
  base: number;
  drop: boolean;
}
export const RATES: Readonly<Record<FrameRate, Rate>> = {
  '24': { num: 24, den: 1, base: 24, drop: false },
  '25': { num: 25, den: 1, base: 25, drop: false },
  '29.97': { num: 30_000, den: 1001, base: 30, drop: true },
  '30': { num: 30, den: 1, base: 30, drop: false },
};
const DROPPED = 2;

/** The frame that a time falls on, rounded to the nearest. */
export const frameAt = (ms: number, rate: FrameRate): number =>
  Math.round((ms * RATES[rate].num) / (RATES[rate].den * 1000));
export const frameMs = (frame: number, rate: FrameRate): number =>
  (frame * RATES[rate].den * 1000) / RATES[rate].num;

/** "HH:MM:SS:FF", with ";" before the frames of a drop-frame count. Throws RangeError below nought or from 24 hours on. */
export function timecode(frame: number, rate: FrameRate): string {
  const { base, drop } = RATES[rate];
  if (!Number.isInteger(frame) || frame < 0)
    throw new RangeError('A frame is a whole number from nought on.');
  let count = frame;
  if (drop) {
    const perMinute = base * 60 - DROPPED;
    const perTen = perMinute * 10 + DROPPED;
    const tens = Math.floor(frame / perTen);
    const rest = frame % perTen;
    count += DROPPED * 9 * tens + (rest > DROPPED ? DROPPED * Math.floor((rest - DROPPED) / perMinute) : 0);
  }
  const seconds = Math.floor(count / base);
  if (seconds >= 86_400) throw new RangeError('Time code counts 24 hours.');
  const pad = (n: number) => String(n).padStart(2, '0');
  return `${pad(Math.floor(seconds / 3600))}:${pad(Math.floor(seconds / 60) % 60)}:${pad(seconds % 60)}${drop ? ';' : ':'}${pad(count % base)}`;
}

/** The frame of a time code. Throws RangeError where it is none, or one whose number is left out. */
export function frameOf(code: string, rate: FrameRate): number {
  const { base, drop } = RATES[rate];
  const m = /^(\d\d):([0-5]\d):([0-5]\d)[:;](\d\d)$/.exec(code);
  if (!m) throw new RangeError(`“${code}” is no time code.`);
  const [h, min, s, f] = m.slice(1).map(Number);
  if (f >= base || (drop && f < DROPPED && s === 0 && min % 10 !== 0))
    throw new RangeError(`At this rate there is no frame ${code}.`);
  const minutes = h * 60 + min;
  return (minutes * 60 + s) * base + f - (drop ? DROPPED * (minutes - Math.floor(minutes / 10)) : 0);
}
