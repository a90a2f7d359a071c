import { at, type Rule } from '../rule.ts';

/** A breath longer than this is hard to speak, in milliseconds (common practice, no published source). */
export const LONG_BREATH_MS = 9000;
/** Where a stop can be set: before a conjunction that joins two clauses. */
const STOP_AT =
  /(?:,|;|:|\s[–—])\s+(?:and|but|so|then|yet)\s+(?=(?:it|he|she|they|we|you|i|this|that|these|those|there|the|a|an|his|her|their|its|our|no|nobody|\p{Lu}[\p{L}’-]+)\b[^,.;]*?\s)/giu;

export const longBreath: Rule = {
  id: 'long-breath',
  area: 'speech',
  name: 'Too long for one breath',
  cost: { each: 1.5, most: 12 },
  line: (line, { clock, tagger }, _sources, style) => {
    const limit = style?.breathMs ?? LONG_BREATH_MS;
    let ms = 0;
    let from = 0;
    let worst = { ms: 0, start: 0, end: 0 };
    line.tokens.forEach((t, i) => {
      if (ms === 0) from = t.start;
      ms += t.ms;
      if (ms > worst.ms) worst = { ms, start: from, end: t.end };
      if (t.pauseMs || i === line.tokens.length - 1) ms = 0;
    });
    if (worst.ms <= limit) return [];
    const stop = tagger ? stopIn(line.text, tagger) : null;
    return [
      at(
        line,
        worst.start,
        worst.end,
        `${(worst.ms / 1000).toFixed(1)} s without a rest; a listener breathes with the speaker.`,
        stop
          ? {
              says: `Stop after “${stop.word}”`,
              safe: !line.locked && clock.tokens(stop.text).length > 0,
              edits: [{ line: line.id, text: stop.text }],
            }
          : undefined,
      ),
    ];
  },
};

/** The line cut in two where both sides stand by themselves. */
function stopIn(
  text: string,
  tagger: (t: string) => readonly { pos: string; text: string }[],
): { word: string; text: string } | null {
  const middle = text.length / 2;
  const finds = [...text.matchAll(STOP_AT)]
    .filter(
      (m) =>
        ['“', '”', '"'].every((q) => (text.slice(0, m.index).split(q).length - 1) % 2 === 0 || q !== '"') &&
        text.slice(0, m.index).split('“').length === text.slice(0, m.index).split('”').length,
    )
    .sort((a, b) => Math.abs(a.index - middle) - Math.abs(b.index - middle));
  for (const m of finds) {
    const left = text.slice(0, m.index);
    const right = text.slice(m.index).replace(/^[,;:\s–—]+/, '');
    const finite = (t: string) => tagger(t).some((x) => x.pos === 'VERB' || x.pos === 'AUX');
    if (left.split(' ').length < 4 || right.split(' ').length < 4 || !finite(left) || !finite(right))
      continue;
    if (/\b(?:if|when|although|because|while|since|unless|both|either|between|that)\b[^,]*$/i.test(left))
      continue;
    const joined = right.replace(/^and\s+/i, '');
    return {
      word: left
        .split(/\s+/)
        .pop()!
        .replace(/[,;:]$/, ''),
      text: `${left}. ${joined.charAt(0).toUpperCase()}${joined.slice(1)}`,
    };
  }
  return null;
}
