/**
 * Open loops: a question raised in one line and settled in a later one. Raised truthfully: by a line that asks, by one
 * that says something is not known, was believed or was tried, and settled where the script tells it. Drawn as arcs.
 */
import { stems } from '../facts/centrality.ts';
import type { PlainSection } from '../script/data.ts';

export interface Loop {
  /** The line that raises it. */
  from: string;
  /** The line that settles it; null while nothing does. */
  to: string | null;
  /** In a few words. */
  asks: string;
  kind: 'question' | 'belief' | 'unknown' | 'attempt' | 'hook';
}

const ASKS = /\?["”]?$/;
const BELIEVES =
  /\b(?:believed|thought|expected|was sure|did not believe|didn[’']t believe|called it|assumed|hoped)\b/i;
const UNKNOWN =
  /\b(?:not (?:yet )?known|unknown|unclear|nobody (?:knows|knew|could say|had asked|asked)|no one (?:knows|knew)|never found out)\b/i;
const TRIES =
  /\b(?:set out to|tried to|asked for|wanted to (?:know|find)|looked for|offered a prize|tested whether|measured)\b/i;
const SETTLES =
  /\b(?:because|turned out|found|proved|wrong|right|answer|reason|that is why|that[’']s why|that[’']s because|that was because|it was|refused|so\b|fell|rose|did not|didn[’']t)\b/i;
/** A line that says itself that it answers. */
const ANSWERS = /^(?:because|yes|no\b|nobody|he did|she did|they did|it did|not\b)/i;
const LONGEST_ASK = 44;

/** A line that answers shares words with what it answers, or says that it does; never the very next words of a plain lead. */
export function loopsOf(sections: readonly PlainSection[]): Loop[] {
  const lines = sections
    .flatMap((s, section) =>
      s.lines.map((l) => ({
        ...l,
        section,
        stems: new Set(stems(`${l.text} ${l.from.map((f) => f.quote).join(' ')}`)),
      })),
    )
    .filter((l) => l.text.trim());
  const out: Loop[] = [];
  lines.forEach((line, i) => {
    const kind: Loop['kind'] | null = ASKS.test(line.text)
      ? line.section === 0
        ? 'hook'
        : 'question'
      : /["“]/.test(line.text)
        ? null
        : UNKNOWN.test(line.text)
          ? 'unknown'
          : BELIEVES.test(line.text)
            ? 'belief'
            : TRIES.test(line.text)
              ? 'attempt'
              : null;
    if (!kind) return;
    // A hook's question rests on the fact that pays for it: it is settled where that is told.
    const pays = line.from[0];
    const paid =
      kind === 'hook' && pays
        ? lines.findIndex(
            (l, k) => k > i && l.from.some((f) => f.source === pays.source && f.fact === pays.fact),
          )
        : -1;
    if (paid >= 0) return void out.push({ from: line.id, to: lines[paid].id, asks: short(line.text), kind });
    const own = stems(line.text).filter((s) => s.length > 2);
    let best = { at: -1, score: 0 };
    for (let k = i + 1; k < lines.length; k++) {
      const shared = own.filter((s) => lines[k].stems.has(s)).length;
      const score =
        (shared / Math.max(2, own.length)) * 2 + (SETTLES.test(lines[k].text) ? 0.5 : 0) - (k - i) * 0.01;
      if (score > best.score) best = { at: k, score };
    }
    // A question that leads on is answered by what follows it; one that opens, where it is paid. One about things that
    // were told of before and never are again is answered by nothing.
    const about = own.filter((s) => lines.slice(0, i).some((l) => l.stems.has(s)));
    const dropped =
      lines.length - i > 2 &&
      about.length > 0 &&
      !lines.slice(i + 1).some((l) => own.some((s) => l.stems.has(s)) || ANSWERS.test(l.text));
    const next = dropped ? undefined : lines[i + 1];
    const settled =
      kind === 'question'
        ? next
        : kind === 'hook' && best.score < 0.8
          ? next
          : best.score >= (kind === 'unknown' ? 1 : 0.8)
            ? lines[best.at]
            : undefined;
    // Said to be unknown to the end, it is no promise that a script must keep; a belief that stands is none either.
    if (!settled && kind !== 'question' && kind !== 'hook') return;
    if (kind !== 'question' && kind !== 'hook' && settled && lines.indexOf(settled) === i + 1) return;
    out.push({ from: line.id, to: settled?.id ?? null, asks: short(line.text), kind });
  });
  return out;
}

const short = (text: string) => {
  const plain = text.replace(/[.!]$/, '');
  return plain.length <= LONGEST_ASK ? plain : `${plain.slice(0, LONGEST_ASK).replace(/\s+\S*$/, '')} …`;
};
