/** What an order for the open script is written from. */
import type { CommissionSource } from '@ursprung/core/commission/desk';
import { briefSchema, spineOf, type SpineLink } from '@ursprung/core/desk';
import type { PlainSection } from '@ursprung/core/script';
import type { ScriptSession } from '../script/session.ts';
import type { SentContext } from '../text/messages.ts';

/** Marks by which a fact is kept out of a script. */
const OUT = new Set(['out', 'wrong', 'wait']);

/** Sections without a plan are ordered as long as they are. */
function planned(session: ScriptSession): PlainSection[] {
  return session.snapshot.sections.map((s) =>
    s.plannedMs > 0 ? s : { ...s, plannedMs: s.lines.reduce((n, l) => n + session.msOf(l.id), 0) },
  );
}

/** The spine of a source, found once for each state of its facts. */
const spines = new WeakMap<object, SpineLink[]>();
function linksOf({ letter, document, facts }: ScriptSession['sources'][number]): SpineLink[] {
  const links = spines.get(facts) ?? spineOf({ letter, source: document, facts });
  spines.set(facts, links);
  return links;
}

export function contextOf(session: ScriptSession): SentContext {
  const { settings } = session.snapshot;
  const marked = (test: (mark: string) => boolean) =>
    session.sources.flatMap((s) =>
      Object.entries(s.marks).flatMap(([fact, { mark }]) => (test(mark) ? [`${s.letter}:${fact}`] : [])),
    );
  const pays = settings.promise?.pays;
  return {
    title: settings.title,
    promise: settings.promise?.sentence ?? '',
    angle: settings.promise?.angle?.says ?? '',
    spine: session.sources.flatMap(linksOf),
    channel: session.script.channelName,
    frame: settings.frame,
    mood: settings.mood,
    pace: settings.pace,
    target: settings.target,
    brief: settings.brief ?? briefSchema.parse({ mood: settings.mood }),
    style: session.channel?.style ?? null,
    sections: planned(session),
    must: [...marked((m) => m === 'must'), ...(pays ? [`${pays.source}:${pays.fact}`] : [])],
    out: marked((m) => OUT.has(m)),
  };
}

/** The sources as lines taken from a reply are traced to them. */
export const sourcesOf = (session: ScriptSession): CommissionSource[] =>
  session.sources.map((s) => ({
    letter: s.letter,
    title: s.document.title,
    kind: s.document.kind,
    text: s.document.text,
    facts: s.facts,
  }));
