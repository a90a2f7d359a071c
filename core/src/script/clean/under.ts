/** What a draft says for under the video: it goes to the upload sheet. */
import type { CleanedDraft } from './index.ts';

export type UnderPart = 'summary' | 'hashtags' | 'searchWords' | 'pinned';
export type UnderVideo = Partial<Record<UnderPart, string>>;

/** What belongs under the video, by what a draft calls it; trade words are common practice, no published source. */
const UNDER: readonly (readonly [UnderPart, RegExp])[] = [
  ['summary', /^(?:(?:video|upload|channel) )?(?:description|blurb|summary for upload)$|^caption$/i],
  ['hashtags', /^hash ?tags?$/i],
  ['searchWords', /^(?:(?:video|search|seo) )?(?:tags|keywords|search words|search terms)$/i],
  ['pinned', /^pinned(?: comment)?$/i],
];
const HASHTAGS = /^(?:#[\p{L}\p{N}_]+[\s,]*)+$/u;
const LONGEST_PART = 4000;

/** What a draft's notes say for under the video: description, hashtags, search words, the comment to pin. */
export function underVideo(draft: CleanedDraft): UnderVideo {
  const found = new Map<UnderPart, string[]>();
  const say = (part: UnderPart, words: string) =>
    void (words && (found.get(part) ?? found.set(part, []).get(part)!).push(words));
  /** What the label above goes on over: rows without a label of their own. */
  let open: UnderPart | null = null;
  for (const { kind, text } of draft.sections.flatMap((s) => [
    ...s.lines.flatMap((l) => l.taken),
    ...s.takenAfter,
  ])) {
    if (kind === 'timing' || kind === 'speaker' || kind === 'mark') continue;
    const bare = text.replace(/[*_`]|^[#>\s]+(?=\s)|^\s*\[|\]\s*$/g, '').trim();
    const labelled = /^(\p{L}[\p{L} ]{2,30}?) ?(?::|\s[–—-]\s|$)(.*)$/su.exec(bare);
    const part = labelled ? UNDER.find(([, label]) => label.test(labelled[1].trim()))?.[0] : undefined;
    if (part) {
      open = part;
      say(part, labelled![2].trim());
    } else if (HASHTAGS.test(bare)) {
      open = null;
      say('hashtags', bare.replace(/[\s,]+/g, ' ').trim());
    } else if (open && kind !== 'heading' && !labelled) say(open, bare);
    else open = null;
  }
  return Object.fromEntries([...found].map(([part, rows]) => [part, rows.join('\n').slice(0, LONGEST_PART)]));
}

const CALLED: Readonly<Record<UnderPart, string>> = {
  summary: 'the description',
  hashtags: 'the hashtags',
  searchWords: 'the search words',
  pinned: 'the comment to pin',
};

/** "the description and the hashtags". */
export const underInWords = (under: UnderVideo): string =>
  new Intl.ListFormat('en-GB').format((Object.keys(under) as UnderPart[]).map((p) => CALLED[p]));
