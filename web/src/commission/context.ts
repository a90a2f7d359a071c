/** What an order for the open script is written from. */
import {
  commissionSource,
  contextOfSettings,
  plannedSections,
  type CommissionSource,
} from '@ursprung/core/commission/desk';
import { spineOf, type SpineLink } from '@ursprung/core/desk';
import type { ScriptSession } from '../script/session.ts';
import type { SentContext } from '../text/messages.ts';

/** The spine of a source, found once for each state of its facts. */
const spines = new WeakMap<object, SpineLink[]>();
function linksOf({ letter, document, facts }: ScriptSession['sources'][number]): SpineLink[] {
  const links = spines.get(facts) ?? spineOf({ letter, source: document, facts });
  spines.set(facts, links);
  return links;
}

export function contextOf(session: ScriptSession): SentContext {
  const { settings, sections } = session.snapshot;
  const channel = { name: session.script.channelName, style: session.channel?.style ?? null };
  return {
    ...contextOfSettings(settings, channel, session.sources),
    sections: plannedSections(sections, (l) => session.msOf(l.id)),
    spine: session.sources.flatMap(linksOf),
  };
}

/** The sources as lines taken from a reply are traced to them. */
export const sourcesOf = (session: ScriptSession): CommissionSource[] =>
  session.sources.map((s) => commissionSource(s.letter, s.document, s.facts));
