/** The film of a script file: its sources are read again from what the file holds. */
import { filmOf, type Film } from '@ursprung/core/scenes';
import { sectionsOfFile, type Frame, type ScriptFile } from '@ursprung/core/script';
import { extractFacts } from '@ursprung/core/facts';
import { getClock, getKin, getSenses, getTagger } from '@ursprung/server/tools';
import { knownVoice, voiceFrom } from './input.ts';
import { documentOf } from './revise.ts';

export function filmOfFile(script: ScriptFile, frame: Frame): Film {
  const tagger = getTagger();
  const sources = script.sources.flatMap((s) => {
    const document = documentOf(s);
    return document ? [{ letter: s.id, facts: extractFacts(document, tagger) }] : [];
  });
  return filmOf(
    {
      title: script.title,
      sections: sectionsOfFile(script),
      sources,
      own: [],
      frame,
      mood: script.mood ?? 'calm',
      style: '',
      pace: {},
    },
    {
      tagger,
      senses: getSenses(),
      kin: getKin(),
      clock: getClock(voiceFrom(knownVoice(script)), script.pace),
    },
  );
}
