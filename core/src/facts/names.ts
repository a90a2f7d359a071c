/** What a name names: a person, a place or a body, by the words around it anywhere in the source. */
import { PATTERNS } from '../language/lexicon.ts';
import type { NameValue } from './extract.ts';
import type { Fact } from './facts.ts';

export const NAME_TYPES = ['person', 'place', 'body', 'other'] as const;
export type NameType = (typeof NAME_TYPES)[number];

const TITLE = new RegExp(`^${PATTERNS.title}\\.?(?:\\s|$)`);
const PLACE =
  /\b(?:River|Street|Road|Lane|Row|Wharf|Rock|Bridge|Island|Isle|Bay|City|Valley|Harbour|Square|Park|Hill|Hills|Mountain|Lake|Sea|Ocean|Canal|Cut|Station|Airport|Castle|County|Forest|Upper|Lower|North|South|East|West|Old|New|Port)\b/;
const BODY =
  /\b(?:Company|Council|Trust|Society|Polytechnic|University|College|Committee|Board|Ministry|Department|Agency|Court|Office|Police|Service|Union|Party|School|Museum|Institute|Bank|Ltd|Limited|Inc|Association|Authority|Club|Corporation|Group|Commission|Foundation|Federation|Hospital|Spans|Press|Survey)\b/;
/** Endings of place names in English (Cameron, English Place Names, 1996: -ton, -ham, -by, -ford, -gate, -mouth, -wick, -stead, -bury). */
const PLACE_ENDING = /(?:ton|ham|by|ford|gate|mouth|wick|stead|bury|shire|land|ville|borough|dale)$/;
const IN_PLACE = /\b(?:in|at|from|near|to|off|above|below|through|around|outside|towards|of)\s+(?:the\s+)?$/i;
const ACTS =
  /^(?:,[^,]{3,80},)?\s+(?:said|says|told|wrote|was born|died|asked|thought|knew|saw|took|gave|had|who|whose)\b/;

/** Votes for each name as written, all sentences together. */
export function nameTypes(
  sentences: readonly {
    fact: Pick<Fact, 'text'> & { names: readonly NameValue[]; statement?: Fact['statement'] };
  }[],
): Map<string, NameType> {
  const votes = new Map<string, Record<NameType, number>>();
  for (const { fact } of sentences)
    for (const name of fact.names) {
      const v = votes.get(name.text) ?? { person: 0, place: 0, body: 0, other: 0.5 };
      votes.set(name.text, v);
      const before = fact.text.slice(Math.max(0, name.start - 24), name.start);
      const after = fact.text.slice(name.end, name.end + 100);
      const last = name.text.split(' ').at(-1)!;
      if (TITLE.test(name.text)) v.person += 4;
      // "the Halden Star": a ship, an inn, a newspaper; people have no article.
      else if (/(?:^|\s)[Tt]he\s+$/.test(before)) v.person -= 2;
      // "called Heron 2" is a satellite, not somebody.
      if (/^ \d/.test(after)) v.person -= 3;
      if (/^St\.? /.test(name.text)) v.place += 2.5;
      if (BODY.test(name.text)) v.body += 3;
      else if (PLACE.test(name.text)) v.place += 2;
      if (PLACE_ENDING.test(last) && last.length > 5) v.place += 0.7;
      if (IN_PLACE.test(before)) v.place += /(?:of|from|to)\s+(?:the\s+)?$/i.test(before) ? 0.5 : 1;
      // Who does something is somebody; places are, lie and stand.
      const { statement } = fact;
      if (
        statement?.subject.text === name.text &&
        !/^(?:is|was|are|were|has been|lies|lay|stands|stood|has|had)\b/.test(statement.verb.text)
      )
        v.person += 1.2;
      if (
        /[”"],?\s+(?:said|says|added|wrote)\s+$/.test(before) ||
        /\b(?:by|said|named|called|told|asked|met)\s+$/.test(before)
      )
        v.person += 1.5;
      if (ACTS.test(after)) v.person += 1.5;
      if (/^(?:’s|'s)\s/.test(after)) v.person += 0.3;
      if (/^[A-Z]\.\s/.test(name.text)) v.person += 2;
      if (/^\p{Lu}\p{Ll}+ \p{Lu}\p{Ll}+$/u.test(name.text) && !PLACE.test(name.text) && !BODY.test(name.text))
        v.person += 0.8;
      if (/^\p{Lu}{2,6}$/u.test(name.text)) v.body += 1;
    }
  const out = new Map<string, NameType>();
  for (const [name, v] of votes)
    out.set(name, (Object.entries(v) as [NameType, number][]).sort((a, b) => b[1] - a[1])[0][0]);
  // "Okafor" is who "Dr Ines Okafor" is.
  for (const [name, type] of out)
    if (type === 'person')
      for (const other of out.keys())
        if (other !== name && name.endsWith(` ${other}`)) out.set(other, 'person');
  for (const [name, type] of out)
    if (type === 'person' && !name.includes(' ') && !TITLE.test(name)) {
      const full = [...out.keys()].find(
        (other) => other.split(' ').includes(name) && other !== name && out.get(other) !== 'person',
      );
      if (full) out.set(name, out.get(full)!);
    }
  return out;
}
