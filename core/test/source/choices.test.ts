/** What a writer decides about a source's pieces, over what was read. */
import { expect } from 'chai';
import fc from 'fast-check';
import {
  NO_CHOICES,
  applyChoices,
  pieceKey,
  readSource,
  withChoice,
  type Choose,
} from '../../src/source/index.ts';
import type { RawDocument } from '../../src/source/document.ts';

const WEIR = `<html><head><title>The weir at Holm holds</title></head><body><div class="n"><a href="/">Home</a> <a href="/w">Weather</a></div>
<h1>The weir at Holm holds</h1><p>The weir at Holm held through the night, although the river stood a metre above its crest for six hours and took the footbridge with it.</p>
<p>Engineers walked its length at dawn and found two stones missing and nothing else to write down. They will look again when the water has gone.</p>
<div class="b"><p>Sign up for our river letter and never miss a flood.</p></div>
<p>The footbridge lay on the lower bank, upside down and in one piece. The parish means to put it back before the school term begins.</p>
<div class="f"><a href="/a">About us</a></div></body></html>`;

const THREAD = `<html><head><title>The bell under the lake</title></head><body><h1>The bell under the lake</h1>
${[
  [
    'Ottar',
    '4 May 2022 10:11',
    'My grandmother said that a bell lies under our lake, and that it rings before a death in the parish. I never believed her until last winter.',
  ],
  [
    'Brit',
    '4 May 2022 11:40',
    'It is true that there is a bell. My uncle dived there in 1971 and touched it. He says it has no clapper, so it cannot have rung for anybody, and he laughed about it for the rest of his life.',
  ],
  [
    'Sten',
    '5 May 2022 08:02',
    'Nonsense, the lake is four metres deep and there is nothing in it but bicycles.',
  ],
]
  .map(
    ([by, at, text]) =>
      `<div class="post"><span class="by">${by}</span> <span class="at">${at}</span><p>${text}</p></div>`,
  )
  .join('')}</body></html>`;

const texts = (d: { blocks: readonly { type: string; text: string }[] }) =>
  d.blocks.filter((b) => b.type !== 'reply').map((b) => b.text);

describe('a piece of a source', () => {
  it('that was left out can be taken in, and stands at its place', async () => {
    const read = await readSource(WEIR);
    const box = read.leftOut!.find((l) => /river letter/.test(l.text))!.text;
    expect(texts(read)).to.have.length(3);
    const again = await readSource(WEIR, { choices: withChoice(NO_CHOICES, box, 'in') });
    expect(texts(again)).to.deep.equal([...texts(read).slice(0, 2), box, texts(read)[2]]);
    expect(again.blocks[2].chosen).to.equal(true);
    expect(again.leftOut!.map((l) => l.text)).not.to.include(box);
  });

  it('that was read can be left out, is shown as the writer’s doing, and comes back as it was', async () => {
    const read = await readSource(WEIR);
    const out = withChoice(NO_CHOICES, texts(read)[1], 'out');
    const without = await readSource(WEIR, { choices: out });
    expect(texts(without)).to.deep.equal([texts(read)[0], texts(read)[2]]);
    expect(without.leftOut!.find((l) => l.chosen)).to.include({
      text: texts(read)[1],
      why: 'you left it out',
    });
    const back = await readSource(WEIR, { choices: withChoice(out, texts(read)[1], 'as read') });
    expect(back).to.deep.equal(read);
  });

  it('that somebody answered can be the story; what was the story is a reply', async () => {
    const read = await readSource(THREAD);
    expect(texts(read)[0]).to.match(/^My grandmother/);
    const [answer] = read.blocks.filter((b) => b.type === 'reply');
    expect(answer.speaker).to.equal('Brit');
    const told = await readSource(THREAD, { choices: withChoice(NO_CHOICES, answer.text, 'story') });
    expect(texts(told)).to.deep.equal([answer.text]);
    expect(told.authors).to.deep.equal(['Brit']);
    const replies = told.blocks.filter((b) => b.type === 'reply').map((b) => b.text.slice(0, 14));
    expect(replies).to.deep.equal(['My grandmother', 'Nonsense, the ']);
  });

  it('of a letter with several can alone be the source, under its own title, the others shown as left out', async () => {
    const LETTER = `# The pond letter\n\nGood morning, the ice is off the ponds at last and two things came up with it.\n\n## A newt with no name\n\nDivers found a newt at the gravel pit that fits no key we own. It is black and blind.\n\n## The bill for the weir\n\nRepairs to the lower weir will cost 84,000 crowns, about twice what the parish has.\n\nThe vote is on Thursday in the school hall, and everybody may speak for two minutes.\n`;
    const read = await readSource(LETTER);
    const told = await readSource(LETTER, {
      choices: withChoice(NO_CHOICES, 'The bill for the weir', 'story'),
    });
    expect(told.title).to.equal('The bill for the weir');
    expect(texts(told).filter((t) => t !== told.title)).to.deep.equal(texts(read).slice(-2));
    const left = told.leftOut!.map((l) => l.text);
    for (const b of read.blocks.filter((x) => !texts(told).includes(x.text))) expect(left).to.include(b.text);
  });

  it('is known by its words, whatever is set around them', () => {
    expect(pieceKey('“Sign up” – for our letter!')).to.equal(pieceKey('sign up for our LETTER'));
    expect(pieceKey('It ran for 212 years.[3] Then it stopped.[citation needed]')).to.equal(
      pieceKey('It ran for 212 years. Then it stopped.'),
    );
  });

  it('is never lost and never doubled, whatever is decided in whatever order', () => {
    const piece = fc.record({ text: fc.stringMatching(/^[a-f]{1,3} [a-f]{1,3}$/), reply: fc.boolean() });
    const decision = fc.tuple(fc.nat(), fc.constantFrom<Choose>('in', 'out', 'as read'));
    fc.assert(
      fc.property(
        fc.array(piece, { maxLength: 8 }),
        fc.array(fc.tuple(piece, fc.nat(8)), { maxLength: 8 }),
        fc.array(decision),
        (ins, outs, decisions) => {
          const raw: RawDocument = {
            blocks: ins.map((p) => ({ type: p.reply ? 'reply' : 'paragraph', text: p.text })),
            leftOut: outs.map(([p, at]) => ({
              text: p.text,
              why: 'w',
              doubt: false,
              at: Math.min(at, ins.length),
            })),
          };
          const all = [...raw.blocks, ...raw.leftOut!].map((x) => x.text);
          const choices = decisions.reduce(
            (c, [n, as]) => (all.length ? withChoice(c, all[n % all.length], as) : c),
            NO_CHOICES,
          );
          const now = applyChoices(raw, choices);
          expect([...now.blocks, ...now.leftOut!].map((x) => x.text).sort()).to.deep.equal(all.sort());
          for (const b of now.blocks) expect(choices.out).not.to.include(pieceKey(b.text));
          for (const l of now.leftOut!) expect(choices.in).not.to.include(pieceKey(l.text));
        },
      ),
    );
  });
});
