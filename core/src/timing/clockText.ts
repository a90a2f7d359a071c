/** Clock text: 134200 → "2:14.2", without tenths "2:14". */
export function clockText(ms: number, tenths = true): string {
  const unit = tenths ? 100 : 1000;
  const units = Math.round(ms / unit);
  const perMinute = tenths ? 600 : 60;
  const minutes = Math.floor(units / perMinute);
  const rest = units - minutes * perMinute;
  const text = tenths ? (rest / 10).toFixed(1) : String(rest);
  return `${minutes}:${text.padStart(tenths ? 4 : 2, '0')}`;
}

/** Milliseconds of a written length: "3:00", "3.5 min", "180", "90 s"; null when it is none. */
export function lengthMs(text: string): number | null {
  const t = text.trim().toLowerCase().replace(',', '.');
  const clock = /^(\d{1,3}):([0-5]\d(?:\.\d+)?)$/.exec(t);
  if (clock) return Math.round((Number(clock[1]) * 60 + Number(clock[2])) * 1000);
  const plain = /^(\d+(?:\.\d+)?)\s*(s|sec|seconds?|min|mins?|minutes?|m)?$/.exec(t);
  if (!plain) return null;
  return Math.round(Number(plain[1]) * (plain[2]?.startsWith('m') ? 60_000 : 1000));
}
