/** One source read twice: which of the later facts is which of the earlier ones. */
import type { Fact, TaggedSentence } from './facts.ts';

export interface Carried {
  /** The later facts; one that has the words of an earlier one has its id. */
  facts: TaggedSentence[];
  /** Where an earlier id leads now, for those that do not stand as they were: the facts that have their words. */
  moved: ReadonlyMap<string, readonly string[]>;
  /** Earlier facts whose words are nowhere any more. */
  lost: readonly Fact[];
}

const plain = (text: string) => text.normalize('NFC').replace(/\s+/g, ' ').trim();

/** Exactly the same words first, in reading order; then whatever holds, or is held by, what is left over. */
export function carried(
  before: readonly Pick<Fact, 'id' | 'text'>[],
  after: readonly TaggedSentence[],
): Carried {
  const waiting = new Map<string, string[]>();
  for (const f of before)
    (waiting.get(plain(f.text)) ?? waiting.set(plain(f.text), []).get(plain(f.text))!).push(f.id);
  const now = new Map<string, string>();
  for (const { fact } of after) {
    const old = waiting.get(plain(fact.text))?.shift();
    if (old !== undefined) now.set(fact.id, old);
  }
  const named = (id: string) => now.get(id) ?? id;
  const facts = after.map(({ fact, tokens }) => ({
    fact: { ...fact, id: named(fact.id), leans: fact.leans.map((l) => ({ ...l, on: named(l.on) })) },
    tokens,
  }));
  const stands = new Set(facts.map((f) => f.fact.id));
  const moved = new Map<string, string[]>();
  const lost: Fact[] = [];
  for (const f of before as readonly Fact[]) {
    if (stands.has(f.id)) continue;
    const text = plain(f.text);
    const holders = facts.filter(({ fact }) => {
      const other = plain(fact.text);
      return other.includes(text) || (other.length > 12 && text.includes(other));
    });
    if (holders.length)
      moved.set(
        f.id,
        holders.map((h) => h.fact.id),
      );
    else lost.push(f);
  }
  return { facts, moved, lost };
}
