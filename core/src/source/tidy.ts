/** One line of running text: spaces as one, none at the ends. */
export const tidy = (text: string): string => text.replace(/\s+/g, ' ').trim();

/** A date as outside data writes it → ISO 8601, as exact as it is ("2025", "2025-11", "2025-11-09"); undefined when it is none. */
export function isoDate(text: string | undefined): string | undefined {
  if (!text) return undefined;
  const iso = /^\s*(\d{4})(?:-(\d{2})(?:-(\d{2}))?)?(?:T|\s|$)/.exec(text);
  if (iso) return [iso[1], iso[2], iso[3]].filter(Boolean).join('-');
  const compact = /^\s*(\d{4})(\d{2})(\d{2})(?:T|$)/.exec(text);
  if (compact) return `${compact[1]}-${compact[2]}-${compact[3]}`;
  // A month is no day: "March 2020", "Mar '20".
  const month = /^\s*(\p{Lu}\p{Ll}{2,8})\.?,?\s(?:(\d{4})|['’](\d{2}))\s*$/u.exec(text);
  if (month) {
    const at = Date.parse(`1 ${month[1]} 2000`);
    const year = month[2] ?? `${Number(month[3]) < 70 ? 20 : 19}${month[3]}`;
    return Number.isNaN(at) ? undefined : `${year}-${String(new Date(at).getMonth() + 1).padStart(2, '0')}`;
  }
  // A day without its year is none: it would be given one.
  if (!/\d{4}|['’/.-]\d{2}\b/.test(text)) return undefined;
  const ms = Date.parse(text.replace(/(\d)(?:st|nd|rd|th)\b/, '$1'));
  if (Number.isNaN(ms)) return undefined;
  // Parsed in the machine's own zone when none is given; a day written in words is that day.
  const zoned = /(?:GMT|UTC|Z|[+-]\d{2}:?\d{2})\s*(?:(?:\(.*\))\s*)?$/.test(text);
  const date = new Date(ms);
  const [y, m, d] = zoned
    ? [date.getUTCFullYear(), date.getUTCMonth(), date.getUTCDate()]
    : [date.getFullYear(), date.getMonth(), date.getDate()];
  return `${y}-${String(m + 1).padStart(2, '0')}-${String(d).padStart(2, '0')}`;
}
