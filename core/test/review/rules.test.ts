/** Every rule of the Read-through: a line it must find, and one near it that it must leave alone. Cases are ours; common practice, no published source. */
import { openLine } from '../../src/plan/index.ts';
import { expect } from 'chai';
import { kin } from '../commission/context.ts';
import { RULES, makeReviewer, scoreOf, type Finding, type ReviewSource } from '../../src/review/index.ts';
import { emptyLine, type PlainSection } from '../../src/script/index.ts';
import { houseStyle } from '../../src/measure/index.ts';
import { clock, pronouncer, tagger } from '../tools.ts';
import { extractFacts } from '../../src/facts/index.ts';
import { byPlace } from '../places.ts';
import { readSource } from '../../src/source/index.ts';

const tools = { clock, pronouncer, tagger, kin };

/** "text" or "fact:text" or "role/text" lines; a section a list. */
export const script = (...sections: readonly (readonly string[])[]): PlainSection[] => {
  let n = 0;
  return sections.map((lines, i) => ({
    id: `S${i + 1}`,
    title: `Part ${i + 1}`,
    role: i === 0 ? 'hook' : 'ground',
    plannedMs: 0,
    locked: false,
    takes: [],
    lines: lines.map((raw) => {
      const [, fact, role, text] = /^(?:(f\d+):)?(?:(lead|frame|pull)\/)?(.*)$/s.exec(raw)!;
      return {
        ...emptyLine(`L${++n}`),
        text,
        ...(role ? { role: role as 'lead' } : {}),
        from: fact ? [{ source: 'A', fact, quote: '' }] : [],
      };
    }),
  }));
};

export const source = async (text: string, more: Partial<ReviewSource> = {}): Promise<ReviewSource> => {
  const document = await readSource(text);
  return { letter: 'A', text: document.text, facts: byPlace(extractFacts(document, tagger)), ...more };
};

export const review = (
  sections: readonly PlainSection[],
  sources: readonly ReviewSource[] = [],
  more: { title?: string; target?: { kind: 'point'; seconds: number } } = {},
): Finding[] => makeReviewer(tools)({ title: more.title ?? '', sections, sources, ...more }).findings;

const ids = (findings: readonly Finding[]) => [...new Set(findings.map((f) => f.rule))];

const LONG =
  'The troughs of the old lift in the lower town were painted every seventh summer by a crew of eleven men from the yard below the weir with brushes as wide as a hand';
const PLAIN = [
  'A lock keeper counted boats for forty years.',
  'Nobody had asked him to.',
  'Every evening he wrote the number on the wall of the hut with a nail.',
  'The wall is still there.',
  'When the hut was sold, the new owner found eleven thousand lines behind a cupboard.',
];

/** Rule → what it finds, what it leaves alone. */
const CASES: Readonly<Record<string, readonly [PlainSection[], PlainSection[]]>> = {
  'long-breath': [script([`${LONG}.`]), script(['He stopped, looked up, and waited.'])],
  'hard-cluster': [
    script(['She sells such short sashes since six sisters said so.']),
    script(['The water rose slowly.']),
  ],
  'two-readings': [
    script(['They say bass is what he liked.']),
    script(['He had read the letter and the wind blew.']),
  ],
  symbol: [script(['Salt & water were mixed.']), script(['Salt and water were mixed.'])],
  acronym: [
    script(['The ZQRT met on Monday.']),
    script(['The BBC met on Monday. The Zeal Quiet River Trust, or ZQRT, came too.']),
  ],
  'hard-number': [
    script(['It cost 1,482,317 pounds.']),
    script(['It cost 1.5 million pounds and took 1907 men.']),
  ],
  'number-crowd': [
    script(['In 1889 it had 48 cables, 8 wheels, 2 troughs, 310 tonnes of water and 6 men.']),
    script(['In 1889 it had 48 cables.']),
  ],
  parenthesis: [
    script(['The keeper (a man called Vane) slept.']),
    script(['The keeper, a man called Vane, slept.']),
  ],
  'unheard-quote': [
    script(['The lamps “went out one by one” that night.', 'It rained.']),
    script(['The lamps went out one by one, she said: “I saw it all.”']),
  ],
  filler: [script(['It was actually a boat.']), script(['It was a boat.'])],
  greeting: [script(['Welcome back to the channel.', ...PLAIN]), script([...PLAIN])],
  'stock-phrase': [
    script(['Little did he know what the river had in store.']),
    script(['He did not know the river.']),
  ],
  'passive-chain': [
    script(['The wall was built.', 'The gate was closed.', 'The water was drained.', 'Nobody knew why.']),
    script(['The wall was built.', 'Ada closed the gate.', 'The water was drained.']),
  ],
  'same-opener': [
    script(['The wall fell.', 'The gate fell.', 'The tower stood.']),
    script(['The wall fell.', 'A gate fell.', 'The tower stood.']),
  ],
  'same-length': [
    script(
      Array.from(
        { length: 9 },
        (_, i) =>
          `${['A', 'One', 'This', 'That', 'Our', 'His', 'Her', 'No', 'Each'][i]} man walked up to the old grey house.`,
      ),
    ),
    script([...PLAIN]),
  ],
  'doubled-word': [script(['It was the the wall.']), script(['He had had enough, and that that was so.'])],
  'hard-to-follow': [
    script([
      'Municipal infrastructural considerations necessitated comprehensive administrative reorganisation notwithstanding considerable institutional opposition.',
    ]),
    script([...PLAIN]),
  ],
  'open-loop': [
    script([...PLAIN, 'But who had paid for the nails?'], ['The river is slow there.', 'It smells of tar.']),
    script([...PLAIN]),
  ],
  'open-line': [
    script([...PLAIN]).map((section) => ({
      ...section,
      lines: [
        ...section.lines,
        openLine('L9', { asks: [{ source: 'A', fact: 'f1', quote: 'The nails were lost.' }], ms: 3000 }),
      ],
    })),
    script([...PLAIN]),
  ],
  'said-twice': [
    script([
      'Eleven thousand lines were found behind the cupboard.',
      'It rained.',
      'Behind the cupboard eleven thousand lines were found.',
    ]),
    script([...PLAIN]),
  ],
  'same-section': [
    script(
      ['The keeper counted boats with a nail on the wall.', 'Eleven thousand lines stood on the wall.'],
      ['On the wall the keeper counted boats with a nail.', 'The wall had eleven thousand lines.'],
    ),
    script([...PLAIN], ['The bridge swayed in March.', 'Divers went down to the chain.']),
  ],
  'weak-lead': [
    script([...PLAIN, 'lead/But wait, there’s more.'], ['The bridge swayed.']),
    script([...PLAIN, 'lead/Then the bridge swayed.'], ['The bridge swayed by seven centimetres.']),
  ],
  'fading-end': [script([...PLAIN, 'And that’s it, thanks for watching.']), script([...PLAIN])],
  'late-promise': [
    script([...PLAIN, ...PLAIN.map((l) => `Later ${l}`), ...PLAIN.map((l) => `Much later ${l}`)]),
    script([...PLAIN]),
  ],
  'late-turn': [
    script(
      Array.from(
        { length: 26 },
        (_, i) => `House number ${i + 2} in the lane has a green door and a brass bell.`,
      ),
    ),
    script([...PLAIN]),
  ],
  'ad-words': [script(['He was murdered with a machine gun.']), script(['He died in the war.'])],
  'bold-claim': [
    script(['This tea cures everything.', 'It guarantees easy money.']),
    script(['In one study the tea may have helped.']),
  ],
  accusation: [
    script(['Halloran stole the money.']),
    script(['The court found that Halloran stole the money.']),
  ],
};

describe('the rules of the Read-through', () => {
  for (const [rule, [bad, good]] of Object.entries(CASES)) {
    const title = rule === 'late-promise' ? { title: 'The zinc roof of Estrand' } : {};
    it(`${rule} finds its fault`, () => expect(ids(review(bad, [], title))).to.include(rule));
    it(`${rule} leaves good lines alone`, () => expect(ids(review(good))).to.not.include(rule));
  }

  const SOURCE =
    'The lift was opened in 1889.\n\nThe whole lift may have cost the city about 200,000 pounds.\n\nThe engineer Ada Vey said the cables “were never once greased in nineteen years”.\n\nThe western trough did not fall in 1907.\n\nEvery trough holds 310 tonnes of water.\n\nAccording to the council, the old footbridge was safe for a crowd of two hundred people.';
  const against: readonly (readonly [string, string, string])[] = [
    ['unsourced-number', 'f1:The lift had 62 cables.', 'f1:The lift was opened in 1889.'],
    ['unsourced-date', 'f1:The lift was opened on 3 May 1891.', 'f1:In 1889 the lift was opened.'],
    ['unsourced-name', 'f3:The engineer was called Ida Brannock.', 'f3:The engineer was called Ada Vey.'],
    [
      'altered-quote',
      'f3:Ada Vey said the cables “were never once oiled in nineteen years”.',
      'f3:Ada Vey said the cables “were never once greased in nineteen years”.',
    ],
    [
      'stronger-than-source',
      'f2:It cost about 200,000 pounds.',
      'f2:The whole lift may have cost the city about 200,000 pounds.',
    ],
    ['contradicted', 'f4:The western trough fell in 1907.', 'f4:The western trough didn’t fall in 1907.'],
    ['wrong-thing', 'f5:Every trough holds 310 boats.', 'f5:Every trough holds 310 tonnes of water.'],
    [
      'attribution-lost',
      'f6:The old footbridge was safe for a crowd of two hundred people.',
      'f6:The council says the old footbridge was safe for a crowd of two hundred people.',
    ],
    [
      'detail-added',
      'f1:The lift was opened with cinnamon buns in 1889.',
      'f1:In 1889 they opened the lift.',
    ],
    ['no-source', 'Penguins march across frozen southern plateaus.', 'f1:The lift was opened in 1889.'],
    [
      'close-line',
      'f3:The engineer Ada Vey said the cables rusted in the rain of the long western winters.',
      'f1:It opened in 1889.',
    ],
  ];
  for (const [rule, bad, good] of against) {
    const text =
      rule === 'close-line'
        ? `${SOURCE}\n\nThe cables rusted in the rain of the long western winters.`
        : SOURCE;
    it(`${rule} finds its fault against the source`, async () =>
      expect(ids(review(script([bad]), [await source(text)]))).to.include(rule));
    it(`${rule} leaves true lines alone`, async () =>
      expect(ids(review(script([good]), [await source(text)]))).to.not.include(rule));
  }

  it('cause-added finds a cause that the source does not give', async () => {
    const text = 'The lift was closed in 1974. The yard was sold in the same year.';
    expect(
      ids(
        review(script(['f1:The lift was closed in 1974 because the yard was sold.']), [await source(text)]),
      ),
    ).to.include('cause-added');
  });

  it('old-figure names the newer report', async () => {
    const old = await source('The crowd on the bridge on Thursday was 160 people, the council said.', {
      letter: 'A',
      published: '2026-03-01',
    });
    const newer = await source('The crowd on the bridge on Thursday was 230 people, the council said.', {
      letter: 'B',
      published: '2026-03-09',
    });
    const found = review(script(['f1:On Thursday the crowd was 160 people, the council said.']), [
      old,
      newer,
    ]);
    expect(found.find((f) => f.rule === 'old-figure')?.reason).to.match(/newer and says 230/);
  });

  it('private-name minds only people of a board', async () => {
    const lines = script(['f1:A man called Tobias Fenwick came in.']);
    const text = 'A man called Tobias Fenwick came in. He never paid.';
    expect(ids(review(lines, [await source(text, { kind: 'forum' })]))).to.include('private-name');
    expect(ids(review(lines, [await source(text, { kind: 'news' })]))).to.not.include('private-name');
  });

  it('over-length and slack judge the whole', () => {
    expect(ids(review(script([...PLAIN]), [], { target: { kind: 'point', seconds: 300 } }))).to.include(
      'over-length',
    );
    const fresh = [
      'Copper',
      'Slate',
      'Amber',
      'Velvet',
      'Walnut',
      'Marble',
      'Linen',
      'Barley',
      'Cobalt',
      'Willow',
    ].map(
      (w, i) =>
        `${w} merchants from valley number ${i + 2} quarrelled about ${w.toLowerCase()} taxes, ferries and ${['bells', 'goats', 'roofs', 'wells', 'looms', 'mills', 'doors', 'lamps', 'nails', 'ropes'][i]}.`,
    );
    const again = Array.from(
      { length: 6 },
      () => 'The old keeper counted the boats, and he counted the boats.',
    );
    expect(ids(review(script([...PLAIN, ...fresh.slice(0, 5), ...again, ...fresh.slice(5)])))).to.include(
      'slack',
    );
  });

  it('holds a script to its channel’s own figures', () => {
    const style = houseStyle(
      [
        script(['It fell.', 'Nobody ran.', 'It didn’t stop.', 'They won’t say why.']),
        script(['He came.', 'It isn’t here.']),
      ],
      tools,
    );
    const findings = makeReviewer(tools)({
      title: '',
      sections: script([
        'It is not known who first counted the boats that came down the river in the long winters.',
      ]),
      sources: [],
      style,
    }).findings;
    expect(ids(findings)).to.include.members(['longer-than-house', 'contractions']);
  });

  it('every rule is tried here or is the grammar checker’s', () => {
    const tried = new Set([
      ...Object.keys(CASES),
      ...against.map(([r]) => r),
      'cause-added',
      'old-figure',
      'private-name',
      'over-length',
      'slack',
      'longer-than-house',
      'contractions',
      'spelling',
      'grammar',
    ]);
    expect(RULES.map((r) => r.id).filter((id) => !tried.has(id))).to.deep.equal([]);
  });

  it('a rule the channel has switched off finds nothing', () => {
    const sections = script(['It was actually a boat.']);
    const input = { title: '', sections, sources: [] };
    expect(ids(makeReviewer(tools)(input).findings)).to.include('filler');
    expect(ids(makeReviewer(tools)({ ...input, off: ['filler'] }).findings)).to.not.include('filler');
  });

  it('never judges a fixed part', () => {
    const sections = script(['It was actually a boat.']).map((s) => ({
      ...s,
      lines: s.lines.map((l) => ({ ...l, fixed: 'Sponsor', fixedMs: 3000 })),
    }));
    expect(review(sections)).to.deep.equal([]);
  });
});

describe('the score', () => {
  const found = (rule: string, n: number): Finding[] =>
    Array.from({ length: n }, () => ({ rule, area: 'truth' as const, line: '', reason: '' }));
  it('is a hundred less what its rows cost, each up to its most, and says where the next point comes from', () => {
    const { score, rows, next } = scoreOf([...found('unsourced-number', 50), ...found('filler', 2)]);
    expect(rows.map((r) => [r.rule, r.count, r.cost])).to.deep.equal([
      ['unsourced-number', 50, 25],
      ['filler', 2, 1],
    ]);
    expect(score).to.equal(74);
    // One of fifty wrong figures gives nothing back; a filler does.
    expect(next?.rule).to.equal('filler');
  });
  it('never falls below 0, and full marks have no next', () => {
    expect(scoreOf([])).to.deep.equal({ score: 100, rows: [], next: null });
    expect(scoreOf(RULES.flatMap((r) => found(r.id, 60))).score).to.equal(0);
  });
});
