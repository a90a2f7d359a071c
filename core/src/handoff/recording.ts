/**
 * A recording laid against the script. From its sound alone: silences against the ends of lines, by dynamic programming
 * over how long each line should take (Bellman 1957); nothing is claimed about words. From its captions: word against word
 * by the longest common course, which also tells what was said otherwise.
 */
import { compareWords } from '../script/compare.ts';
import type { PlainSection } from '../script/data.ts';
import { clockLines, emptyLine } from '../script/schema.ts';
import type { Clock } from '../timing/clock.ts';
import type { Silence } from '../timing/silences.ts';
import { isSaid } from './said.ts';

export interface LaidLine {
  line: string;
  startMs: number;
  endMs: number;
  /** 0 to 1: how far its ends may be elsewhere. */
  doubt: number;
}
export interface Laid {
  lines: LaidLine[];
  ms: number;
  /** The recording's seconds over the clock's: what the pace is corrected by. */
  scale: number;
  /** Words that were said otherwise; only where captions tell. */
  differs: readonly { line: string; written: string; said: string }[];
  /** Lines with a doubt above a third. */
  doubtful: number;
}
export const DOUBTFUL = 0.34;

const said = (sections: readonly PlainSection[]) => sections.flatMap((s) => s.lines).filter(isSaid);

/** What each spoken line should take, its own rest at the end apart. */
function expected(sections: readonly PlainSection[], clock: Clock) {
  const all = sections.flatMap((s) => s.lines);
  return clock
    .lines(clockLines(sections))
    .flatMap((t, i) =>
      isSaid(all[i])
        ? [{ line: all[i].id, ms: Math.max(1, t.ms - all[i].restMs), restMs: all[i].restMs }]
        : [],
    );
}

/** How much dearer a boundary is without a silence of its own, and with one that is short; in shares of a line squared. */
const NO_SILENCE = 0.6;
const SHORT_SILENCE = 0.15;
const LONG_ENOUGH_MS = 350;
const MOST_AWAY = 0.75;

/**
 * Line times from silences. Each end of a line is looked for among the silences round where it should be at the
 * recording's own pace; a line whose end no silence marks is placed by time alone, and doubted. Null for a script without
 * words or a recording shorter than a quarter of it.
 */
export function laidBySilence(
  sections: readonly PlainSection[],
  clock: Clock,
  silences: readonly Silence[],
  ms: number,
): Laid | null {
  const lines = expected(sections, clock);
  const sum = lines.reduce((n, l) => n + l.ms + l.restMs, 0);
  const inner = silences.filter((s) => s.startMs > 0 && s.endMs < ms);
  const first = silences.find((s) => s.startMs === 0)?.endMs ?? 0;
  const last = silences.find((s) => s.endMs >= ms && s.startMs > first)?.startMs ?? ms;
  if (!lines.length || last - first < sum * 0.25) return null;
  const scale = (last - first) / sum;
  // Candidates for each end: silences near it, and the bare time.
  interface Place {
    endMs: number;
    nextMs: number;
    cost: number;
  }
  let at = first;
  const wanted = lines.map((l, i) => {
    at += (l.ms + (i < lines.length - 1 ? l.restMs : 0)) * scale;
    return at;
  });
  const places = lines.map((l, i): Place[] => {
    if (i === lines.length - 1) return [{ endMs: last, nextMs: last, cost: 0 }];
    const reach = Math.max(1200, l.ms * scale * MOST_AWAY);
    const near = inner.filter((s) => Math.abs((s.startMs + s.endMs) / 2 - wanted[i]) < reach);
    return [
      ...near.map((s) => ({
        endMs: s.startMs,
        nextMs: s.endMs,
        cost:
          s.endMs - s.startMs >= LONG_ENOUGH_MS
            ? 0
            : SHORT_SILENCE * (1 - (s.endMs - s.startMs) / LONG_ENOUGH_MS),
      })),
      { endMs: wanted[i], nextMs: wanted[i], cost: NO_SILENCE },
    ];
  });
  const best: { cost: number; from: number }[][] = [];
  lines.forEach((l, i) => {
    const length = Math.max(200, l.ms * scale);
    best.push(
      places[i].map((p) => {
        let found = { cost: Infinity, from: -1 };
        const before = i ? places[i - 1] : [{ endMs: first, nextMs: first, cost: 0 }];
        before.forEach((q, k) => {
          const took = p.endMs - q.nextMs;
          if (took <= 0) return;
          const off = Math.log(took / length);
          const cost = (i ? best[i - 1][k].cost : 0) + p.cost + off * off * 4;
          if (cost < found.cost) found = { cost, from: k };
        });
        return found;
      }),
    );
  });
  const chosen: number[] = new Array<number>(lines.length).fill(0);
  for (let i = lines.length - 1; i >= 0; i--)
    chosen[i] = i === lines.length - 1 ? 0 : best[i + 1][chosen[i + 1]].from;
  if (chosen.some((c) => c < 0) || !Number.isFinite(best[lines.length - 1][0].cost)) return null;
  const out = lines.map((l, i): LaidLine => {
    const [p, q] = [
      places[i][chosen[i]],
      i ? places[i - 1][chosen[i - 1]] : { endMs: first, nextMs: first, cost: 0 },
    ];
    const off = Math.abs(Math.log(Math.max(1, p.endMs - q.nextMs) / Math.max(200, l.ms * scale)));
    const unmarked = (p.cost >= NO_SILENCE ? 0.4 : 0) + (q.cost >= NO_SILENCE ? 0.4 : 0);
    return {
      line: l.line,
      startMs: Math.round(q.nextMs),
      endMs: Math.round(p.endMs),
      doubt: Math.min(1, unmarked + off * 0.6),
    };
  });
  return { lines: out, ms, scale, differs: [], doubtful: out.filter((l) => l.doubt > DOUBTFUL).length };
}

export interface HeardCue {
  startMs: number;
  endMs: number;
  text: string;
}
const plain = (word: string) =>
  word
    .toLowerCase()
    .normalize('NFKD')
    .replace(/[^\p{L}\p{N}]+/gu, '');

/** Line times and differences from captions of the recording. Null where fewer than a third of the words are the script's. */
export function laidByCaptions(
  sections: readonly PlainSection[],
  clock: Clock,
  cues: readonly HeardCue[],
  ms: number,
): Laid | null {
  const lines = said(sections);
  const heard = cues.flatMap((c) => {
    const words = c.text.split(/\s+/).filter((w) => plain(w));
    return words.map((w, i) => ({
      word: w,
      at: c.startMs + ((c.endMs - c.startMs) * i) / words.length,
      to: c.startMs + ((c.endMs - c.startMs) * (i + 1)) / words.length,
    }));
  });
  const written = lines.flatMap((l) =>
    l.text
      .split(/\s+/)
      .filter((w) => plain(w))
      .map((word) => ({ word, line: l.id })),
  );
  const course = compareWords(
    written.map((w) => plain(w.word)).join(' '),
    heard.map((w) => plain(w.word)).join(' '),
  );
  const times = new Map<string, { from: number; to: number; n: number }>();
  const differs: { line: string; written: string; said: string }[] = [];
  let [a, b, same] = [0, 0, 0];
  let open: { line: string; written: string[]; said: string[] } | null = null;
  const close = () => {
    if (open) differs.push({ line: open.line, written: open.written.join(' '), said: open.said.join(' ') });
    open = null;
  };
  for (const piece of course) {
    const count = piece.text.split(/\s+/).filter(Boolean).length;
    for (let k = 0; k < count; k++) {
      if (piece.change === 'same') {
        close();
        const t = times.get(written[a].line);
        if (t) Object.assign(t, { to: heard[b].to, n: t.n + 1 });
        else times.set(written[a].line, { from: heard[b].at, to: heard[b].to, n: 1 });
        a++;
        b++;
        same++;
        continue;
      }
      const line: string = written[Math.min(a, written.length - 1)].line;
      if (!open || open.line !== line) {
        close();
        open = { line, written: [], said: [] };
      }
      if (piece.change === 'gone') open.written.push(written[a++].word);
      else open.said.push(heard[b++].word);
    }
  }
  close();
  if (!written.length || same < written.length / 3) return null;
  const sum = expected(sections, clock).reduce((n, l) => n + l.ms + l.restMs, 0);
  const counts = new Map<string, number>();
  for (const w of written) counts.set(w.line, (counts.get(w.line) ?? 0) + 1);
  let before = cues[0]?.startMs ?? 0;
  const out = lines.map((l): LaidLine => {
    const t = times.get(l.id);
    if (!t) return { line: l.id, startMs: Math.round(before), endMs: Math.round(before), doubt: 1 };
    before = t.to;
    return {
      line: l.id,
      startMs: Math.round(t.from),
      endMs: Math.round(t.to),
      doubt: Math.round((1 - t.n / counts.get(l.id)!) * 100) / 100,
    };
  });
  const spoken = (cues.at(-1)?.endMs ?? 0) - (cues[0]?.startMs ?? 0);
  return {
    lines: out,
    ms,
    scale: spoken / Math.max(1, sum),
    differs,
    doubtful: out.filter((l) => l.doubt > DOUBTFUL).length,
  };
}

/** The pace a recording was read at, as people set it: the clock's pace over the scale, between 40 and 400. */
export const paceOfRecording = (pace: number, laid: Pick<Laid, 'scale'>): number =>
  Math.round(Math.min(400, Math.max(40, pace / laid.scale)));

/** The clock without the moment it adds before the first word: a recording has its own beginning. */
export function withoutLead(clock: Clock): Clock {
  const { leadMs } = clock.voice;
  return {
    ...clock,
    voice: { ...clock.voice, leadMs: 0 },
    lines: (lines) =>
      clock
        .lines(lines)
        .map((t, i) => (i === 0 ? { ...t, ms: t.ms - leadMs } : { ...t, startMs: t.startMs - leadMs })),
  };
}

/**
 * The script on a recording's own time: every line has the seconds it was spoken in, and the silence behind it as its rest.
 * Captions and scenes made from it stand where they are heard.
 */
export function onRecording(
  sections: readonly PlainSection[],
  laid: { lines: readonly Omit<LaidLine, 'doubt'>[] },
): PlainSection[] {
  const at = new Map(
    laid.lines.map((l, i) => [l.line, { ...l, next: laid.lines[i + 1]?.startMs ?? l.endMs }]),
  );
  const first = laid.lines[0]?.startMs ?? 0;
  return sections.map((s, k) => {
    const lines = s.lines.map((l) => {
      const t = at.get(l.id);
      // What is not heard takes no time of the recording's.
      if (!t) return { ...l, fixedMs: 0, restMs: 0 };
      return { ...l, fixedMs: Math.max(1, t.endMs - t.startMs), restMs: Math.max(0, t.next - t.endMs) };
    });
    return {
      ...s,
      lines:
        k === 0 && first > 0 ? [{ ...emptyLine('before the first word'), fixedMs: first }, ...lines] : lines,
    };
  });
}
