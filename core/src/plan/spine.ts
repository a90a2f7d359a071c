/**
 * The spine: what a telling of a source hangs on, link by link, in telling order. A source is cut into episodes where its
 * time, place or heading changes; each gives the sentence that carries most, named by what it does in the chain (the parts
 * of a narrative after Labov and Waletzky 1967, of a study after the moves of Swales 1990; cues from memory).
 */
import type { Fact } from '../facts/facts.ts';
import { outlineOf } from '../facts/outline.ts';
import type { FactRef } from './kept.ts';
import { CAUSE, TROUBLE, UNKNOWN, ref, type Material } from './material.ts';
import { joinedNeighbours } from './neighbours.ts';

export const LINK_KINDS = [
  'before', 'want', 'cause', 'obstacle', 'decision', 'act', 'turn', 'cost', 'result', 'open',
  'question', 'method', 'limit',
  'goal', 'step', 'warning',
] as const; // prettier-ignore
export type LinkKind = (typeof LINK_KINDS)[number];

export interface SpineLink extends FactRef {
  kind: LinkKind;
  text: string;
}

/** What a link's sentence says, the surest first. */
const CUES: readonly [LinkKind, RegExp, number][] = [
  ['cause', CAUSE, 0.3],
  ['turn', /\b(?:but then|turned out|until (?:then|one|last)|instead|suddenly|discovered|noticed|realised|found (?:that|a|an|the|out|it|her|him|them)|was found|were found|admitted|proved|changed its mind)\b/i, 0.3],
  ['decision', /\b(?:decided?|agreed|voted|ordered|ruled|chose|chosen|refused|allowed|banned|withdrew|approved|settled|resolved|declared|adopted|is to be|are to be|will be)\b/i, 0.22],
  ['cost', /\b(?:cost|paid|pounds|lost|died|killed|fined|debts?|drowned|hurt|injured|broke (?:a|his|her))\b|[£$€]/i, 0.15],
  ['open', UNKNOWN, 0.15],
  ['want', /\b(?:wanted|hoped|tried to|meant to|set out to|asked for|needed|wished|planned to)\b/i, 0.15],
  ['obstacle', TROUBLE, 0.18],
  ['result', /\b(?:now|since then|today|as a result|in the end|at last|finally|has been|have been|won|fell|rose|reopened|closed|ended)\b/i, 0.12],
]; // prettier-ignore

/** So many links at most: more can't be kept in mind (the model plans by another hand have eight). */
const MOST_LINKS = 8;
const LEAST_LINKS = 4;
/** About so many sentences make an episode. */
const EPISODE = 4;
/** Longer sentences carry a link badly, and so do scraps, in words. */
const [SCRAP, LONG] = [4, 30];

const dayOf = (f: Fact) => f.dates[0]?.iso.slice(0, 7) ?? '';

/** Neighbouring sentences as episodes: passages, joined where neither time nor heading changes until few enough are left. */
function episodes({ source, facts }: Material): Fact[][] {
  const under = new Map(source.blocks.map((b) => [b.id, b.under ?? '']));
  const out: Fact[][] = [];
  for (const f of facts)
    if (out.at(-1)?.[0].block === f.block) out.at(-1)!.push(f);
    else out.push([f]);
  const wanted = Math.max(LEAST_LINKS, Math.min(MOST_LINKS, Math.round(facts.length / EPISODE)));
  const apart = (a: readonly Fact[], b: readonly Fact[]) =>
    (a.length + b.length) *
    (under.get(a[0].block) === under.get(b[0].block) ? 1 : 2) *
    (b.some((f) => dayOf(f) && a.every((x) => dayOf(x) !== dayOf(f))) ? 1.3 : 1);
  return joinedNeighbours(out, wanted, apart);
}

const words = (f: Fact) => f.text.split(/\s+/).length;

/** How well a sentence carries an episode, and as what. */
function carries(f: Fact, at: number): { kind: LinkKind; worth: number } {
  const cue = CUES.find(([, pattern]) => pattern.test(f.text));
  const kind = cue?.[0] ?? (at < 0.15 ? 'before' : at > 0.9 ? 'result' : 'act');
  return {
    kind,
    worth:
      f.strength +
      (cue?.[2] ?? 0) +
      0.15 * f.parts.surprising -
      (words(f) > LONG || words(f) < SCRAP ? 0.2 : 0) -
      (f.modality === 'plain' ? 0 : 0.1) -
      (f.quotes.length ? 0.1 : 0) -
      (/\?["”]?$/.test(f.text) ? 0.3 : 0),
  };
}

function byEpisodes(m: Material): SpineLink[] {
  const last = Math.max(1, m.facts.length - 1);
  let at = 0;
  return episodes(m).map((episode) => {
    const [best] = episode.map((f) => ({ f, ...carries(f, at++ / last) })).sort((a, b) => b.worth - a.worth);
    return { ...ref(m, best.f), kind: best.kind, text: best.f.text };
  });
}

/** What each part of a study is in the chain, and how many of its sentences at most. */
const STUDY_LINKS: readonly (readonly [part: string, kind: LinkKind, most: number])[] = [
  ['aim', 'question', 1],
  ['method', 'method', 2],
  ['results', 'result', 3],
  ['limits', 'limit', 1],
  ['conclusion', 'open', 1],
];

/** The strongest sentences of a study's parts. */
function byParts(m: Material): SpineLink[] {
  const parts = new Map(outlineOf(m.source, m.facts).map((p) => [p.id, p.facts]));
  const order = new Map(m.facts.map((f, i) => [f.id, i]));
  const taken = new Set<string>();
  return STUDY_LINKS.flatMap(([part, kind, most]) =>
    m.facts
      .filter((f) => parts.get(part)?.includes(f.id) && !taken.has(f.id))
      .sort((a, b) => b.strength - a.strength)
      .slice(0, most)
      .sort((a, b) => order.get(a.id)! - order.get(b.id)!)
      .map((f): SpineLink => {
        taken.add(f.id);
        return { ...ref(m, f), kind, text: f.text };
      }),
  );
}

/** A guide: what it is for, its steps each by its first sentence, its warnings, what comes of it. */
function bySteps(m: Material): SpineLink[] {
  const link = (f: Fact, kind: LinkKind): SpineLink => ({ ...ref(m, f), kind, text: f.text });
  const seen = new Set<number>();
  const out = m.facts.flatMap((f, i): SpineLink[] => {
    if (f.type === 'warning') return [link(f, 'warning')];
    if (f.step && !seen.has(f.step)) {
      seen.add(f.step);
      return [link(f, 'step')];
    }
    return i === 0 ? [link(f, 'goal')] : [];
  });
  const end = m.facts.findLast((f) => !f.step && f.type !== 'warning' && !/\?["”]?$/.test(f.text));
  return end && !out.some((l) => l.fact === end.id) ? [...out, link(end, 'result')] : out;
}

/** What any sentence of a source says of the links a chain can have. */
export function kindsIn(m: Material): Set<LinkKind> {
  const facts = m.facts.filter((f) => !f.silent);
  const parts = m.source.kind === 'abstract' ? outlineOf(m.source, facts) : [];
  return new Set<LinkKind>([
    ...CUES.filter(([, pattern]) => facts.some((f) => pattern.test(f.text))).map(([kind]) => kind),
    ...STUDY_LINKS.filter(([part]) => parts.some((p) => p.id === part && p.facts.length)).map(([, kind]) => kind),
    ...(facts.some((f) => f.step) ? ['step' as const] : []),
    ...(facts.some((f) => f.type === 'warning') ? ['warning' as const] : []),
  ]);
} // prettier-ignore

/** The chain of a source, in telling order; empty when it has nothing to tell. */
export function spineOf(given: Material): SpineLink[] {
  // Items of a list that are no steps sum up or enumerate, and what announces one says nothing itself.
  const listed = new Set(given.source.blocks.flatMap((b) => (b.type === 'item' && !b.step ? [b.id] : [])));
  const m = {
    ...given,
    facts: given.facts.filter((f) => !f.silent && !f.own && !listed.has(f.block) && !/:$/.test(f.text)),
  };
  if (!m.facts.length) return [];
  const parts = m.source.kind === 'abstract' ? byParts(m) : [];
  if (parts.length >= LEAST_LINKS - 1) return parts;
  const steps = m.source.kind === 'howto' && m.facts.some((f) => f.step) ? bySteps(m) : [];
  return steps.length >= LEAST_LINKS - 1 ? steps : byEpisodes(m);
}
