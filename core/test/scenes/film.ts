/** Films of a few lines, for tests of what is shown. */
import { extractFacts } from '../../src/facts/index.ts';
import { filmOf, type FilmInput } from '../../src/scenes/index.ts';
import { emptyLine, type PlainSection } from '../../src/script/index.ts';
import { readSource } from '../../src/source/index.ts';
import { getKin, getSenses } from '../../../server/src/tools.ts';
import { clock, tagger } from '../tools.ts';

export const tools = { tagger, senses: getSenses(), kin: getKin(), clock };
export const source = async (text: string) => ({
  letter: 'A',
  facts: extractFacts(await readSource(new TextEncoder().encode(text)), tagger),
});
export const section = (role: PlainSection['role'], ...texts: string[]): PlainSection => ({
  id: `S${texts[0]}`,
  title: 'The lift',
  role,
  plannedMs: 0,
  locked: false,
  takes: [],
  lines: texts.map((text, i) => ({ ...emptyLine(`${texts[0]}${i}`), text, from: [] })),
});
export const film = (sections: PlainSection[], more: Partial<FilmInput> = {}) =>
  filmOf(
    { title: 'The boat lift', sections, sources: [], own: [], frame: '16:9', mood: 'calm', style: '', pace: {}, ...more },
    tools,
  ); // prettier-ignore

/** A source told line by line, each line resting on its fact: what is shown of each. */
export async function retold(text: string, more: Partial<FilmInput> = {}) {
  const told = await source(text);
  const title = text.split('\n')[0];
  const own = section('ground', ...told.facts.map((f) => f.text));
  const lines = own.lines.map((l, i) => ({
    ...l,
    from: [{ source: 'A', fact: told.facts[i].id, quote: '' }],
  }));
  const { scenes, pictures, cast } = film([{ ...own, title, lines }], { title, sources: [told], ...more });
  const of = (words: string) => {
    const i = scenes.findIndex((s) => s.text.includes(words));
    if (i < 0) throw new Error(`No scene says “${words}”.`);
    return pictures[i];
  };
  return { scenes, pictures, cast, of, named: (name: string) => cast.find((c) => c.name === name) };
}
