/** What a whole draft shows about how its writer marks narration; drafts by many hands, some of them not ours. */
import { readFileSync, readdirSync } from 'node:fs';
import { expect } from 'chai';
import { writtenWords } from '../../src/language/index.ts';
import { cleanDraft, readDraft, sectionsOfDraft } from '../../src/script/index.ts';
import { draftText } from '../../src/script/draftFile.ts';
import { HEADINGS, SAID_BY_CHANCE, draftByChance } from './drafts/byChance.ts';
import { FORMS, STORIES } from './drafts/forms.ts';
import { A, B, C, HANDS, SAID } from './drafts/hands.ts';

const oneRow = (text: string) => text.replace(/\s+/g, ' ').trim();
const folder = new URL('./strangers/', import.meta.url);
/** Words as they are heard; a note's number glued to one is no part of it. */
const heard = (text: string) => writtenWords(text.toLowerCase().replace(/[*_"“”]/g, '')).map((w) => w.text);

describe('the notations of many hands', () => {
  for (const [what, draft, narration] of HANDS)
    it(`gives what is spoken: ${what}`, () => expect(oneRow(cleanDraft(draft))).to.equal(oneRow(narration)));
  for (const said of SAID)
    it(`leaves what only looks like a note: ${said.slice(0, 40)}…`, () =>
      expect(oneRow(cleanDraft(said))).to.equal(oneRow(said)));
});

describe('a narration set as', () => {
  for (const [what, write] of Object.entries(FORMS))
    it(`${what} is told from what stands beside it`, () => {
      for (const story of STORIES)
        expect(heard(cleanDraft(write(story))).join(' '), write(story)).to.equal(heard(story.lines.join(' ')).join(' ')); // prettier-ignore
    });
});

describe('what only looks like notes', () => {
  const [, street] = STORIES;
  it('is spoken: a list that is read out, short rows among long ones, an indented quotation', () => {
    for (const said of [
      `${street.lines[0]}

Three things were in the pipe:
- wax
- honey
- a queen

${street.lines.slice(1).join('\n\n')}`,
      `${street.lines.slice(0, 3).join('\n\n')}

Then silence.

${street.lines[3]}

And then, bees.

${street.lines[4]}`,
      `${street.lines.slice(0, 4).join('\n\n')}

    Nobody sleeps in a street that sings.

${street.lines[5]}`,
    ])
      expect(heard(cleanDraft(said)).join(' ')).to.equal(heard(said).join(' '));
  });
});

describe('headings of any form', () => {
  const NAMES = ['The lift', 'A crowd at the gate', 'What the night did'];
  /** Silent, but taken for cues: in small letters they look like one. */
  const AS_CUES = ['squareSmall', 'curly', 'stars'];
  for (const [form, write] of Object.entries(HEADINGS))
    it(`are silent, and names of parts: ${oneRow(write(NAMES[0], 0))}`, () => {
      for (const gap of ['\n', '\n\n', '\n[wide of it, slow]\n']) {
        const draft = [A, B, C].map((words, i) => write(NAMES[i], i) + gap + words).join('\n\n');
        expect(oneRow(cleanDraft(draft)), draft).to.equal(`${A} ${B} ${C}`);
        const titles = readDraft(draft).sections.map((s) => s.title.toLowerCase());
        if (!AS_CUES.includes(form)) expect(titles, draft).to.include.members([NAMES[1].toLowerCase()]);
      }
    });
});

describe('drafts put together by chance', () => {
  it('give their narration and nothing else, nineteen of twenty', () => {
    let seed = 11;
    const random = () => (seed = (seed * 1664525 + 1013904223) >>> 0) / 4294967296;
    const wrong: string[] = [];
    for (let i = 0; i < 300; i++) {
      const draft = draftByChance(random);
      if (heard(cleanDraft(draft)).join() !== heard(SAID_BY_CHANCE.join(' ')).join()) wrong.push(draft);
    }
    expect(wrong.length, wrong.slice(0, 3).join('\n\n=====\n\n')).to.be.at.most(15);
  });
});

/** By another hand; they were looked at while the rules were made, so they are tests and no estimate. */
describe('finished drafts by another hand', () => {
  const drafts = readdirSync(folder).filter((f) => !f.endsWith('.gold.json'));
  for (const file of drafts)
    it(`gives the narration of ${file}, its titles and its rests`, async () => {
      const text = await draftText(new Uint8Array(readFileSync(new URL(file, folder))));
      const gold = JSON.parse(readFileSync(new URL(`${file.slice(0, 2)}.gold.json`, folder), 'utf8')) as {
        spoken: string[];
        headings: string[];
        rests: { after: string; seconds: number | null }[];
      };
      expect(heard(cleanDraft(text))).to.deep.equal(heard(gold.spoken.join('\n')));
      const { sections } = readDraft(text);
      expect(sections.map((s) => s.title).filter(Boolean)).to.have.members(gold.headings);
      for (const { after, seconds } of gold.rests) {
        const line = sections
          .flatMap((s) => s.lines)
          .find((l) => heard(l.text).join(' ').endsWith(heard(after).join(' ')));
        expect(line?.restMs, after).to.be.greaterThan(0);
        if (seconds !== null) expect(line?.restMs).to.equal(seconds * 1000);
      }
    });
});

describe('rests', () => {
  it('without a length have a usual one; short and long ones are told apart', () => {
    const rests = (text: string) => readDraft(text).sections[0].lines.map((l) => l.restMs);
    expect(rests('It held. [pause] It broke. (short pause) It fell. *long pause* Gone. <break time="300ms"/> So.')).to.deep.equal([800, 400, 1500, 300, 0]); // prettier-ignore
  });
});

describe('what is set aside', () => {
  const scenes = (draft: string) => {
    let n = 0;
    return sectionsOfDraft(readDraft(draft), () => String(++n))
      .flatMap((s) => s.lines)
      .map((l) => l.marks?.flatMap((m) => (m.type === 'cut' ? [m.own] : []))[0] ?? null);
  };
  it('is understood: pictures with size, angle and movement, sounds, words on the screen', () => {
    expect(
      scenes(
        '**[Visual: wide shot of the lift, slow push in]**\nNarrator: It rose.\n\n*[Sound: chains]*\n[On-screen text: "1904"]\nNarrator: Nobody fell.\n\n(softly)\nNarrator: Not one.\n\nB-ROLL: kettle from above, close-up\nMUSIC: low strings\nNarrator: He slept.',
      ),
    ).to.deep.equal([
      { description: 'wide shot of the lift, slow push in', size: 'wide', picture: 'slow push in' },
      { onScreen: ['1904'], sound: [{ kind: 'effect', what: 'chains', at: 0, level: -12, dip: 0 }] },
      null,
      {
        description: 'kettle from above, close-up',
        size: 'close-up',
        angle: 'overhead',
        sound: [{ kind: 'music', what: 'low strings', at: 0, level: -15, dip: 0 }],
      },
    ]);
  });
  it('stays a note where it says nothing sure of the scene', () => {
    expect(scenes('[Slower from here please]\nIt rose.\n\n(note: check the year)\nNobody fell.')).to.deep.equal([null, null]); // prettier-ignore
  });
});
