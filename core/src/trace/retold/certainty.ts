/** Surer than the source: "exactly" where it says "about", a round figure told as a sharp one, a proposal told as settled. */
import { alike } from './text.ts';
import { accuse, matched, type Check } from './fault.ts';

/** Boosters after Hyland ("Boosting, hedging and the negotiation of academic knowledge", 1998). */
const SURE =
  /\b(?:exactly|precisely|undoubtedly|undeniably|unquestionably|doubtless|proved|proven|proves|conclusively|guaranteed?)\b/i;
/** Approximators, before a figure and behind it. */
const ABOUT =
  /(?:\b(?:about|around|some|roughly|approximately|nearly|almost|perhaps|maybe|circa|estimated|(?:just |a little |well )?(?:over|under)|(?:more|less|fewer) than|close to|up to|at (?:least|most)|as (?:much|many) as|getting on for|probably|give or take|or so|or thereabouts|odd|towards|by|within)|~|≈|[-–])(?:\s+(?:an?|the))?\s*[£€$]?$/i;
const ABOUT_BEHIND =
  /^[^\s]{0,20}\s(?:[^\s]{1,20}\s)?(?:or so|or thereabouts|odd\b|give or take|or more|at (?:least|most))/i;
const LOOSE =
  /\b(?:about|around|some|roughly|approximately|nearly|almost|perhaps|maybe|probably|possibly|apparently|presumably|allegedly|reportedly|supposedly|likely|might|may|could|seems?|estimated?|over|under|more than|less than|fewer than|close to|up to|at least|at most|as much as|as many as|or so|thereabouts|odd|give or take|half|towards?|by|within|barely|hardly|just|not quite|a little|guess\w*|reckon\w*|thought|believe\w*|between|to)\b/i;

/** What only makes a figure loose. */
const FIGURES_ONLY = /\b(?:by|within|to|half|between|under|over|just|towards?|a little)\b/gi;

export const certainty: Check = ({ told, evidence, tools }) => {
  if (!evidence || told.question) return [];
  const sure = SURE.exec(told.plain);
  if (sure && !SURE.test(evidence.near.plain))
    return accuse('hedge', 'unsupported', matched(sure), `The source does not say “${sure[0]}”.`);
  if (!LOOSE.test(told.plain))
    for (const v of told.values)
      for (const s of evidence.best.slice(0, 1)) {
        const mine = s.values.filter((x) => Math.abs(x.value - v.value) < 1e-6 && x.unit === v.unit);
        if (mine.length !== 1 || v.unit === 'year' || v.unit === 'part') continue;
        const [x] = mine;
        const before = s.plain.slice(Math.max(0, x.start - 24), x.start);
        const hedge = ABOUT.exec(before)?.[0].trim() ?? ABOUT_BEHIND.exec(s.plain.slice(x.end))?.[0].trim();
        if (hedge && !/^(?:by|within|[-–])$/i.test(hedge))
          return accuse(
            'hedge',
            'unsupported',
            v,
            `The source says “${s.plain.slice(x.start - (before.length - before.lastIndexOf(hedge)), x.end).trim() || x.text}”, so it isn’t exact.`,
          );
      }
  // "at about Michaelmas" told as "at Michaelmas".
  if (!LOOSE.test(told.plain.replace(FIGURES_ONLY, '')))
    for (const s of evidence.best.slice(0, 1))
      for (const [k, w] of s.words.entries()) {
        if (
          !/^(?:about|around|roughly|approximately|nearly|almost|apparently|perhaps|possibly|probably|presumably|allegedly|reportedly|supposedly)$/i.test(
            w.text,
          )
        )
          continue;
        const next = s.words[k + 1]?.root ? s.words[k + 1] : undefined;
        const same = next && told.words.find((x) => x.root === next.root);
        if (same && (w.pos !== 'ADP' || next.pos !== 'NOUN'))
          return accuse(
            'hedge',
            'unsupported',
            same,
            `The source says “${w.text} ${next.text}”; this is surer.`,
          );
      }
  // "would" is no "will".
  const will = told.words.find(
    (w, i) =>
      /^(?:will|'ll)$/i.test(w.text) &&
      told.words[i + 1]?.pos !== 'PUNCT' &&
      !/^(?:i|you|we)$/i.test(told.words[i - 1]?.text ?? ''),
  );
  if (will && !/\b(?:if|when|once|until|would|could|may|might|should)\b/i.test(told.plain)) {
    const verb = told.words.find((w) => w.start > will.end && w.root && w.pos === 'VERB');
    for (const s of verb ? evidence.best : []) {
      const k = s.words.findIndex((w) => w.root && alike(w.root, verb!.root!, tools.kin));
      const modal = k < 0 ? undefined : s.words.slice(Math.max(0, k - 4), k).find((w) => /^(?:would|could|may|might|should)$/i.test(w.text)); // prettier-ignore
      if (modal && !/\b(?:will|'ll)\b/i.test(s.plain))
        return accuse('hedge', 'unsupported', will, `The source says “${modal.text}”, not “will”.`);
    }
  }
  return [];
};
