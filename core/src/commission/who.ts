/** Who everybody is, for a writer who has to say so at their first mention. */
import { introductionsOf } from '../draft/introduce.ts';
import { castOf, type CastMember } from '../facts/cast.ts';
import type { Fact } from '../facts/facts.ts';
import { isPerson } from '../plan/proposals.ts';
import type { CommissionSource, OrderedSection } from './types.ts';

export interface Person {
  /** As the source names them in full. */
  name: string;
  /** The source's own words of who they are, with the name; the name alone where it says nothing. */
  says: string;
  /** The fact that names them first. */
  source: string;
  fact: string;
}

/** A first name alone may be a place or a feast: it is somebody where it does something. */
const actsAlone = ({ name }: CastMember, facts: readonly Fact[]): boolean =>
  !/\s/.test(name) && facts.some((f) => f.statement?.subject.text === name);

/** People whom the ordered facts name, in telling order. */
export function peopleIn(
  sources: readonly CommissionSource[],
  sections: readonly OrderedSection[],
): Person[] {
  const ordered = sections.flatMap((s) => s.facts.filter((f) => f.told));
  return sources.flatMap(({ letter, kind, facts }) => {
    const named = ordered.filter((f) => f.source === letter);
    const intros = introductionsOf({ kind, blocks: facts.map((f) => ({ type: 'paragraph', text: f.text })) });
    return castOf(facts)
      .filter((c) => c.type === 'person')
      .flatMap((c): Person[] => {
        const first = named.findIndex((f) => c.facts.includes(f.fact));
        if (first < 0) return [];
        const intro = intros.get(c.name.split(' ').at(-1)!);
        if (!intro?.comma && !isPerson(c, facts) && !actsAlone(c, facts)) return [];
        return [{ name: c.name, says: intro?.phrase ?? c.name, source: letter, fact: named[first].fact }];
      })
      .sort((a, b) => named.findIndex((f) => f.fact === a.fact) - named.findIndex((f) => f.fact === b.fact));
  });
}
