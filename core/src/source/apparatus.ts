import names from '../../data/back-matter.json' with { type: 'json' };

const anyOf = (...lists: readonly string[][]) => `(?:${lists.flat().join('|')})`;

/** Headings of what stands behind an article and is no part of it (names and their sources in the data). */
export const APPARATUS = new RegExp(
  `^${anyOf(names.encyclopedia, names.journal, names.site, names.behind)}\\s*:?$|^(?:more (?:on|from|in) |share this)`,
  'i',
);
/** Those of papers alone. */
export const OF_PAPER = new RegExp(`^${anyOf(names.journal)}\\s*:?$`, 'i');
/** Such a name before the words it stands over, in one paragraph: "Funding: …", "Data availability. …". */
export const RUN_IN = new RegExp(
  `^(?:${names.journal.join('|')}|acknowledge?ments?|references?)\\s?(?:[:—–]|\\.(?=\\s\\p{Lu}))\\s?`,
  'iu',
);
/** Those that stand over nothing else, whatever they are set in. */
export const BARE_APPARATUS = new RegExp(
  `^${anyOf(names.encyclopedia, names.journal, names.behind)}\\s*:?$`,
  'i',
);
/** Parts of a report of research, as its headings and labels name them (ICMJE recommendations, IV.A.3; from memory). */
export const PARTS =
  'Background|Objectives?|Aims?|Methods?|Results?|Findings|Limits|Limitations?|Conclusions?|Discussion|Introduction';
/** A row that is such a name, or that of the whole in brief. */
export const PART = new RegExp(`^(?:Abstract|Summary|Plain language summary|${PARTS})$`, 'i');
