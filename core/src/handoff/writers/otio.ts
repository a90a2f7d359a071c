/**
 * OpenTimelineIO (Academy Software Foundation; Timeline.1, Track.1, Clip.2, Marker.2 of its serialized schema): pictures
 * with their descriptions as metadata, narration, captions, music and effects as markers. Times are whole frames at the
 * rate, rounded at the edges, so that clips add up without gaps.
 */
import type { Kit } from '../kit.ts';
import { RATES, frameAt } from '../timecode.ts';
import { isSaid, type Writer } from '../writer.ts';

type Json = Record<string, unknown>;

export function timeline(kit: Kit): Json {
  const { rate: name } = kit.input;
  const { num, den } = RATES[name];
  const rate = num / den;
  const time = (value: number): Json => ({ OTIO_SCHEMA: 'RationalTime.1', rate, value });
  const range = (from: number, to: number): Json => ({
    OTIO_SCHEMA: 'TimeRange.1',
    start_time: time(from),
    duration: time(to - from),
  });
  const frame = (ms: number) => frameAt(ms, name);
  const clip = (label: string, startMs: number, endMs: number, metadata: Json): Json => ({
    OTIO_SCHEMA: 'Clip.2',
    name: label,
    enabled: true,
    source_range: range(0, frame(endMs) - frame(startMs)),
    effects: [],
    markers: [],
    active_media_reference_key: 'DEFAULT_MEDIA',
    media_references: {
      DEFAULT_MEDIA: {
        OTIO_SCHEMA: 'MissingReference.1',
        name: label,
        available_range: null,
        available_image_bounds: null,
        metadata: {},
      },
    },
    metadata: { ursprung: metadata },
  });
  const gap = (frames: number): Json => ({
    OTIO_SCHEMA: 'Gap.1',
    name: '',
    enabled: true,
    source_range: range(0, frames),
    effects: [],
    markers: [],
    metadata: {},
  });
  const track = (label: string, kind: 'Video' | 'Audio', children: Json[]): Json => ({
    OTIO_SCHEMA: 'Track.1',
    name: label,
    kind,
    enabled: true,
    source_range: null,
    effects: [],
    markers: [],
    metadata: {},
    children,
  });

  const entry = (id: string | null) => kit.film.cast.find((c) => c.id === id)?.name ?? '';
  const pictures = kit.film.scenes.map((s, i) => {
    const p = kit.film.pictures[i];
    return clip(`Scene ${i + 1}`, s.startMs, s.endMs, {
      scene: s.id,
      heard: s.text,
      search: p.search.map((w) => w.text),
      description: p.description,
      size: p.size,
      angle: p.angle,
      light: p.light,
      movement: p.movement,
      cast: p.cast.map(entry),
      setting: entry(p.setting),
      on_screen: [...p.onScreen],
      silent: s.silent,
    });
  });
  const lines = kit.sections.flatMap((s) => s.lines.map((l) => ({ l, s })));
  const narration = lines.flatMap(({ l, s }) => {
    const t = kit.times.get(l.id)!;
    const length = frame(t.startMs + t.ms) - frame(t.startMs);
    if (length <= 0) return [];
    return isSaid(l)
      ? [
          clip(l.id, t.startMs, t.startMs + t.ms, {
            line: l.id,
            section: s.title,
            text: l.text,
            speaker: l.speaker,
            rest_seconds: l.restMs / 1000,
            rests_on: l.from.map((f) => `${f.source}${f.fact ? `-${f.fact}` : ''}`),
          }),
        ]
      : [gap(length)];
  });
  const captions: Json[] = [];
  let at = 0;
  kit.captions.forEach((c, i) => {
    const [from, to] = [frame(c.startMs), frame(c.endMs)];
    if (from > at) captions.push(gap(from - at));
    if (to > Math.max(from, at))
      captions.push(
        clip(`Caption ${i + 1}`, c.startMs, c.endMs, { text: c.rows.join('\n'), speaker: c.speaker }),
      );
    at = Math.max(at, to);
  });
  const markers = kit.film.scenes.flatMap((s, i) =>
    kit.film.pictures[i].sound.map((cue): Json => {
      const from = frame(Math.min(s.startMs + cue.at * 1000, s.endMs));
      const to = cue.kind === 'effect' ? from + 1 : frame(s.endMs);
      return {
        OTIO_SCHEMA: 'Marker.2',
        name: `${cue.kind}: ${cue.what}`,
        color: cue.kind === 'music' ? 'GREEN' : cue.kind === 'effect' ? 'RED' : 'CYAN',
        comment: '',
        marked_range: range(from, Math.max(to, from + 1)),
        metadata: { ursprung: { kind: cue.kind, level_db: cue.level, dip_db: cue.dip } },
      };
    }),
  );
  return {
    OTIO_SCHEMA: 'Timeline.1',
    name: kit.file.title,
    global_start_time: time(0),
    metadata: {
      ursprung: {
        frame: kit.file.frame,
        seconds: kit.totalMs / 1000,
        ...(kit.input.recording ? { timed_by: kit.input.recording.name } : {}),
        language: kit.language,
        drop_frame: RATES[name].drop,
      },
    },
    tracks: {
      OTIO_SCHEMA: 'Stack.1',
      name: 'tracks',
      enabled: true,
      source_range: null,
      effects: [],
      markers,
      metadata: {},
      children: [
        track('Pictures', 'Video', pictures),
        track('Captions', 'Video', captions),
        track('Narration', 'Audio', narration),
      ],
    },
  };
}

export const otio: Writer = {
  id: 'otio',
  name: 'Timeline, OTIO',
  says: 'pictures with descriptions, narration, captions, music and effects as markers',
  loses: 'takes and history; times are rounded to frames',
  extension: 'otio',
  mime: 'application/vnd.pixar.opentimelineio+json',
  for: ['editor'],
  write: (kit) => `${JSON.stringify(timeline(kit), null, 2)}\n`,
};
