/**
 * A kit on a recording's own time: scenes, captions, chapters and cues stand where they are heard. Between the ends of its
 * lines time runs evenly, so that the writer's cuts stay on their words.
 */
import { z } from 'zod';
import { fnv1a } from '../language/hash.ts';
import type { PlainSection } from '../script/data.ts';
import { QUICK_LIMITS, captions } from './captions.ts';
import { chaptersOf } from './chapters.ts';
import type { Kit } from './kit.ts';
import { isSaid } from './said.ts';
import { onRecording, withoutLead, type Laid } from './recording.ts';

const ms = z.number().int().min(0).max(86_400_000);
/** When each line is heard in a recording, as kept with a script; of the sound itself nothing is kept. */
export const recordingSchema = z.object({
  name: z.string().trim().min(1).max(120),
  ms: ms.min(1),
  by: z.enum(['silence', 'captions']),
  lines: z
    .array(z.object({ line: z.string().max(60), startMs: ms, endMs: ms, mark: z.number().int() }))
    .min(1)
    .max(5000)
    .refine(
      (lines) =>
        lines.every((l, i) => l.endMs >= l.startMs && (i === 0 || l.startMs >= lines[i - 1].startMs)),
      'The lines of a recording come one after another.',
    ),
});
export type KeptRecording = z.infer<typeof recordingSchema>;

/** A number that changes with a text: whether a line is still what was read. */
const markOf = (text: string): number => fnv1a(text);

/** What is kept of a recording that was laid against a script. */
export function keptOf(
  laid: Pick<Laid, 'lines' | 'ms'>,
  sections: readonly PlainSection[],
  name: string,
  by: KeptRecording['by'],
): KeptRecording {
  const texts = new Map(sections.flatMap((s) => s.lines.map((l) => [l.id, l.text] as const)));
  return {
    name: name.trim().slice(0, 120) || 'the recording',
    ms: Math.max(1, Math.round(laid.ms)),
    by,
    lines: laid.lines.map(({ line, startMs, endMs }) => ({
      line,
      startMs: Math.round(startMs),
      endMs: Math.round(Math.max(startMs, endMs)),
      mark: markOf(texts.get(line) ?? ''),
    })),
  };
}

/** Lines that are not in the recording as they stand now: new, reworded, or gone. */
export function changedSinceRead(recording: KeptRecording, sections: readonly PlainSection[]): number {
  const read = new Map(recording.lines.map((l) => [l.line, l.mark]));
  const said = sections.flatMap((s) => s.lines).filter(isSaid);
  const now = new Set(said.map((l) => l.id));
  return (
    said.filter((l) => read.get(l.id) !== markOf(l.text)).length +
    recording.lines.filter((l) => !now.has(l.line)).length
  );
}

/** Script time → recording time: straight between the ends of the lines that are heard. Never runs backwards. */
function courseOf(kit: Omit<Kit, 'upload'>, recording: KeptRecording): (at: number) => number {
  const rests = new Map(kit.sections.flatMap((s) => s.lines.map((l) => [l.id, l.restMs] as const)));
  const points: [script: number, heard: number][] = [[0, 0]];
  const add = (script: number, heard: number) => {
    const [s, h] = points[points.length - 1];
    if (script > s) points.push([script, Math.min(recording.ms, Math.max(heard, h))]);
    else points[points.length - 1] = [s, Math.max(h, Math.min(recording.ms, heard))];
  };
  for (const [i, l] of recording.lines.entries()) {
    const t = kit.times.get(l.line);
    if (!t) continue;
    const lead = i === 0 && t.startMs === 0 ? kit.tools.clock.voice.leadMs : 0;
    add(t.startMs + lead, l.startMs);
    add(t.startMs + t.ms - (rests.get(l.line) ?? 0), l.endMs);
  }
  add(kit.totalMs, recording.ms);
  points[points.length - 1][1] = recording.ms;
  return (at) => {
    const k = points.findIndex(([s]) => s >= at);
    if (k < 0) return recording.ms;
    if (k === 0) return points[0][1];
    const [[s0, h0], [s1, h1]] = [points[k - 1], points[k]];
    return Math.round(h0 + ((at - s0) * (h1 - h0)) / (s1 - s0));
  };
}

/** The same kit with every time as it is heard. A scene whose words are not in the recording is left out. */
export function kitOnRecording<K extends Omit<Kit, 'upload'>>(kit: K, recording: KeptRecording): K {
  const heard = courseOf(kit, recording);
  const pairs = kit.film.scenes.flatMap((s, i) => {
    // The first picture is there before the first word.
    const [startMs, endMs] = [i === 0 ? 0 : heard(s.startMs), heard(s.endMs)];
    if (endMs <= startMs) return [];
    const p = kit.film.pictures[i];
    const sound = p.sound.map((c) => ({
      ...c,
      at: Math.round((heard(s.startMs + c.at * 1000) - startMs) / 100) / 10,
    }));
    return [{ scene: { ...s, startMs, endMs }, picture: { ...p, sound } }];
  });
  const times = new Map(
    [...kit.times].map(([id, t]) => {
      const startMs = heard(t.startMs);
      return [id, { ...t, startMs, ms: heard(t.startMs + t.ms) - startMs }] as const;
    }),
  );
  const clock = withoutLead(kit.tools.clock);
  const read = onRecording(kit.sections, recording);
  return {
    ...kit,
    times,
    totalMs: recording.ms,
    film: {
      ...kit.film,
      scenes: pairs.map((p) => p.scene),
      pictures: pairs.map((p) => p.picture),
      totalMs: recording.ms,
    },
    captions: captions(read, clock, kit.limits),
    quick: captions(read, clock, QUICK_LIMITS),
    chapters: chaptersOf(read, clock),
    blocks: kit.blocks.map((b) => {
      const own = b.lines.map((l) => ({ ...l, startMs: times.get(l.id)!.startMs, ms: times.get(l.id)!.ms }));
      const startMs = own[0]?.startMs ?? heard(b.startMs);
      return { ...b, lines: own, startMs, ms: own.reduce((n, l) => n + l.ms, 0) };
    }),
  };
}
