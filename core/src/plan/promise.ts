/** The promise, before any script: angles, titles, the title picture, and the one sentence the script must make good. All of it rests on facts. */
import { castOf } from '../facts/cast.ts';
import type { Tagger } from '../language/tagged.ts';
import type { Clock } from '../timing/clock.ts';
import { anglesOf, type Angle } from './angles.ts';
import { plainClause } from './clause.ts';
import type { FactRef } from './kept.ts';
import { TENSION, capital, topicOf, type Material } from './material.ts';
import { promiseSentence, titlesOf, type Title } from './titles.ts';

const WORDS_ON_PICTURE = 4;

export interface PictureIdea {
  /** What is in it, in the source's words. */
  shows: string;
  /** At most four words on it. */
  words: string;
  pays: FactRef;
}

export interface PromiseIdeas {
  angles: readonly Angle[];
  titles: readonly Title[];
  pictures: readonly PictureIdea[];
  /** The sentence a script under the recommended title must make good. */
  sentence: string;
}

/** Pictures for the title image: one thing or person, and at most four words that are in the fact. */
export function picturesOf(material: readonly Material[], titles: readonly Title[]): PictureIdea[] {
  const out: PictureIdea[] = [];
  for (const title of titles) {
    const m = material.find((x) => x.letter === title.pays.source)!;
    const f = m.facts.find((x) => x.id === title.pays.fact)!;
    const cast = castOf(m.facts).find((c) => c.facts.includes(f.id));
    const thing = plainClause(f)?.subject;
    const shows = cast
      ? `${cast.name}${cast.looks[0] ? `, ${cast.looks[0].text}` : ''}${thing && !thing.includes(cast.name) && thing.length < 50 ? `, with ${thing}` : ''}`
      : thing && thing.length < 60 && !/^(?:it|they|he|she|i|we|this|that)$/i.test(thing)
        ? thing
        : topicOf(m.source);
    const n = f.numbers[0];
    const words = n
      ? `${n.text}${n.unit && !n.text.includes(n.unit) && !/^[£$€%]$/.test(n.unit) ? ` ${n.unit}` : ''}`
      : TENSION.exec(f.text)
        ? phraseAround(f.text)
        : topicOf(m.source);
    const short = words
      .split(/\s+/)
      .slice(0, WORDS_ON_PICTURE)
      .join(' ')
      .replace(/(?:\s+(?:the|a|an|of|in|on|at|to|as|is|was|were|are|and|that|for|by|with))+$/i, '');
    if (!out.some((p) => p.words === short || p.shows === shows))
      out.push({ shows: capital(shows), words: capital(short.replace(/[.,;:]$/, '')), pays: title.pays });
    if (out.length === 3) break;
  }
  return out;
}

/** Up to four words from a word of tension on: "no engine", "never told". */
function phraseAround(text: string): string {
  const m = /\b(?:no|never|not|only|without|last|first|nobody)\b(?:\s+[\p{L}-]+){1,2}/iu.exec(text);
  return m ? m[0] : text.split(' ').slice(0, 3).join(' ');
}

export function promiseIdeas(
  given: readonly Material[],
  tools: { tagger: Tagger; clock: Clock },
  options: { page?: number; seed?: number } = {},
): PromiseIdeas {
  const material = given.map((m) => ({ ...m, facts: m.facts.filter((f) => !f.silent) }));
  const titles = titlesOf(material, tools.tagger, options.seed);
  return {
    angles: anglesOf(material, tools.clock, options.page, tools.tagger),
    titles,
    pictures: picturesOf(material, titles),
    sentence: titles[0] ? promiseSentence(material, titles[0].pays) : '',
  };
}
