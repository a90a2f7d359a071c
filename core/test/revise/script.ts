/** A made-up script that notes are tried on. */
import { emptyLine, type PlainLine, type PlainSection, type SectionRole } from '../../src/script/index.ts';
import type { ReviseContext, Selection } from '../../src/revise/index.ts';

const section = (
  id: string,
  title: string,
  role: SectionRole,
  ...lines: (string | Partial<PlainLine>)[]
): PlainSection => ({
  id,
  title,
  role,
  plannedMs: 0,
  locked: false,
  takes: [],
  lines: lines.map((l, i) => ({
    ...emptyLine(`${id}L${i + 1}`),
    ...(typeof l === 'string' ? { text: l } : l),
  })),
});

export const SCRIPT: readonly PlainSection[] = [
  section(
    'S1',
    'The crack',
    'hook',
    'Welcome back to the channel.',
    'A footbridge in Marrowgate swayed like a boat on Thursday.',
    'Nobody had touched it.',
    'I was standing on it when it began.',
  ),
  section(
    'S2',
    'The bridge',
    'ground',
    'The Pell Street bridge opened in 1931 and is 88 metres long.',
    'It was utilised by 1,400 people every day.',
    'Basically, it was loved.',
    'The city had utilised steel from 3 yards (all of them closed now) and 62,480 rivets.',
    'It cost £1,482,317.',
  ),
  section(
    'S3',
    'Oona Barrick',
    'ground',
    'Oona Barrick is a nurse who was halfway across.',
    '“It felt like the deck of a ferry,” she said.',
    'Oona Barrick held on to the rail, and then everyone around her started to walk in step because the deck was moving under their feet.',
  ),
  section(
    'S4',
    'The turn',
    'turn',
    'But the crowd was not marching.',
    'Each step pushed the deck a little further.',
    'The more it moved, the more people fell into step with it.',
  ),
  section(
    'S5',
    'The stairs',
    'workings',
    'The builder believed the stairs could not deliver a large crowd.',
    'The stairs were widened in July.',
    'The footbridge in Marrowgate swayed like a boat on Thursday.',
  ),
  section(
    'S6',
    'What comes next',
    'close',
    'The bridge will stay shut until spring.',
    'Twelve dampers are going to be hung under the deck.',
    'Tam Rudkin writes the same word every day: straight.',
  ),
];

let n = 0;
export const context = (
  selection: Selection | null = { section: 'S2', lines: ['S2L2'] },
  sections: readonly PlainSection[] = SCRIPT,
): ReviseContext => ({
  sections,
  selection,
  sources: [],
  title: 'The bridge that swayed',
  fresh: () => `n${++n}`,
});
