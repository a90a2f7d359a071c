/** Hooks of seven kinds, each resting on facts; only kinds whose facts are there. What a hook raises must be told: it names the facts that pay. */
import type { Fact } from '../facts/facts.ts';
import type { Tagger } from '../language/tagged.ts';
import type { Clock } from '../timing/clock.ts';
import { stems } from '../facts/centrality.ts';
import { isWhole } from '../facts/speech.ts';
import { plainClause, undated, whyClause, whyQuestion } from './clause.ts';
import type { FactRef } from './kept.ts';
import { explained } from './material.ts';
import type { SourceDocument } from '../source/document.ts';

export const HOOK_KINDS = [
  'question',
  'scene',
  'figure',
  'contradiction',
  'confession',
  'stakes',
  'promise',
] as const;
export type HookKind = (typeof HOOK_KINDS)[number];

export interface Hook {
  kind: HookKind;
  /** What is said; for a hook that is a fact's own telling, that fact's words. */
  text: string;
  rests: FactRef;
  /** Facts that must be told for the hook to be paid. */
  pays: readonly FactRef[];
  /** Whether the hook is the telling of its fact, or a line of its own before it. */
  own: boolean;
  ms: number;
  /** Why it may open, in computed terms. */
  why: string;
  score: number;
}

const LONGEST = 24;
/** A fact that opens in its own words may take a breath more. */
const LONGEST_OWN = 28;
const CONTRADICTS =
  /\b(?:but|yet|although|though|instead|no longer|never|not .{2,30} but|without|only .{2,20} not|even though)\b/i;
const CONFESSES =
  /\b(?:ashamed|accus\w+|never told|refused|lied|i stole|my fault|i(?:’m| am) not proud|stupid|i did not tell|didn[’']t tell|i promised|forgave|regret|i should have|i voted)\b/i;
const LOSS =
  /\b(?:lost|died|killed|hurt|closed|shut|stopped|missing|broke|burned|flooded|collapsed|drowned|stolen|cost|no longer|cannot|wrecked|fell)\b/i;
const ACT =
  /\b(?:heard|saw|ran|stood|dropped|pulled|walked|found|opened|shouted|called|climbed|jumped|looked|turned|swayed|broke|fell|lifted|knocked|rang|woke|noticed|pointed|signed|pressed|went|struck|burst|carried|gave|took|asked|started|left|came|put|made|told|drove|crossed|fetched)\b/i;
const POINTS_BACK =
  /^(?:It|They|He|She|This|That|These|Those|But|And|So|Then|There|Here|Both|Its|His|Her|Their|Another|Such)\b/;
const words = (text: string) => text.split(/\s+/).length;

const alone = (f: Fact) =>
  !f.leans.length &&
  !/\b(?:that|this|it|them)[.!]$/.test(f.text) &&
  !POINTS_BACK.test(f.text) &&
  !/[:?]$/.test(f.text) &&
  !f.quotes.length;

/** All hooks, the best first, with kinds mixed: the first of each kind before any second. `seed` turns equals. */
export function hooksOf(
  given: readonly {
    letter: string;
    source: Pick<SourceDocument, 'kind' | 'title'>;
    facts: readonly Fact[];
  }[],
  tools: { tagger: Tagger; clock: Clock },
  seed = 1,
): Hook[] {
  const material = given.map((m) => ({ ...m, facts: m.facts.filter((f) => !f.silent) }));
  const out: Hook[] = [];
  const title = new Set(material.flatMap((m) => stems(m.source.title)));
  for (const m of material) {
    const story = m.source.kind === 'forum';
    // A story's title, when it is a sentence of the teller's, is a promise that the story keeps.
    const reveal = m.facts[Math.floor(m.facts.length * 0.75)];
    const sentence = m.source.title.replace(/[.!]$/, '');
    if (
      story &&
      reveal &&
      /\b(?:I|my)\b/i.test(sentence) &&
      words(sentence) <= LONGEST &&
      words(sentence) >= 6 &&
      /\b(?:\w+ed|kept|bought|found|drove|grew|never|did|was|had|went|took|gave|lost|told|knew)\b/.test(
        sentence,
      )
    )
      out.push({
        kind: 'promise',
        text: `${sentence}.`,
        rests: { source: m.letter, fact: m.facts[0].id },
        pays: [],
        own: false,
        ms: tools.clock.time(sentence).ms,
        why: 'the title, which the story keeps',
        score: 0.9,
      });
    m.facts.forEach((f, i) => {
      const here: FactRef = { source: m.letter, fact: f.id };
      const add = (
        kind: HookKind,
        text: string,
        own: boolean,
        pays: readonly FactRef[],
        why: string,
        bonus: number,
      ) => {
        if (words(text) > (own ? LONGEST_OWN : LONGEST) || words(text) < 4) return;
        if (!isWhole(text, tools.tagger(text))) return;
        const { ms } = tools.clock.time(text);
        out.push({
          kind,
          text,
          rests: here,
          pays,
          own,
          ms,
          why,
          score: Math.round((f.strength + bonus - Math.max(0, words(text) - 14) * 0.02) * 1000) / 1000,
        });
      };
      // A reveal in a story's last fifth opens nothing: it would be told before its time.
      if (story && i > m.facts.length * 0.7) return;
      const c = plainClause(f);
      const next = m.facts[i + 1];
      if (c && c.object && explained(f) && m.source.kind !== 'howto') {
        const q = whyQuestion({ ...c, object: undated(c.object) }, tools.tagger);
        if (q && !/[,;:]/.test(q)) add('question', q, false, [here], 'the source gives the answer', 0.35);
        if (words(whyClause(c)) < 16)
          add(
            'promise',
            `This is ${undated(whyClause(c))}.`,
            false,
            [here],
            'the source gives the reason',
            0.1,
          );
      }
      if (/\?["”]?$/.test(f.text) && !POINTS_BACK.test(f.text) && !f.quotes.length && next && !story)
        add('question', f.text, true, [{ source: m.letter, fact: next.id }], 'the source asks it', 0.3);
      if (m.source.kind === 'abstract') {
        const whether =
          /\b(?:not known|unknown|unclear|not clear|hardly been tested|never been tested|not been measured|tested|asked|find out|determine|wanted to know)\b[^.]*?\bwhether ([^,.;]{12,110})/i.exec(
            f.text,
          );
        const clause = whether && yesNo(whether[1], tools.tagger);
        const result = m.facts.slice(i).find((x) => x.type === 'finding' || x.type === 'comparison');
        if (clause && result)
          add(
            'question',
            clause,
            false,
            [{ source: m.letter, fact: result.id }],
            'the study asks it and answers it',
            0.45,
          );
      }
      if (!alone(f)) return;
      const shown = f.text;
      if (
        (f.times.length || f.dates.length || f.names.some((n) => n.type === 'place')) &&
        ACT.test(shown) &&
        (f.names.some((n) => n.type === 'person') ||
          (story && /\bI\b/.test(shown)) ||
          /\b(?:captain|keeper|skipper|driver|nurse|man|woman|boy|girl|crew|people|passengers|divers)\b/i.test(
            shown,
          ))
      )
        add('scene', shown, true, [], 'a time, somebody and what they did', 0.25);
      if (
        f.numbers.some(
          (n) =>
            n.value > 3 &&
            n.unit &&
            (title.has(stems(n.unit)[0] ?? '') || [...stems(shown)].some((s) => title.has(s))),
        ) &&
        !/\b(?:CI|SD)\b|p\s?[<=]/.test(shown)
      )
        add('figure', shown, true, [], 'a number of what the title is about', 0.1);
      if (CONTRADICTS.test(shown) && f.step === undefined && f.polarity !== undefined && words(shown) <= 20)
        add(
          'contradiction',
          shown,
          true,
          next ? [{ source: m.letter, fact: next.id }] : [],
          'it goes against what one expects',
          0.3,
        );
      if (story && CONFESSES.test(shown) && /\bI\b/.test(shown))
        add('confession', shown, true, [], 'the teller owns up to something', 0.5);
      if (LOSS.test(shown) && (f.numbers.length > 0 || f.dates.length > 0) && m.source.kind !== 'howto')
        add('stakes', shown, true, [], 'a loss with a number or a day', 0.25);
    });
    if (m.source.kind === 'howto') {
      const warning = m.facts.find((x) => x.type === 'warning' && alone(x) && words(x.text) <= LONGEST);
      const first = m.facts.find(
        (x) => !x.step && alone(x) && words(x.text) <= LONGEST && !/\b(?:need)\b/i.test(x.text),
      );
      if (first)
        out.push({
          kind: 'promise',
          text: first.text,
          rests: { source: m.letter, fact: first.id },
          pays: [],
          own: true,
          ms: tools.clock.time(first.text).ms,
          why: 'what the task is about',
          score: first.strength + 0.3,
        });
      if (warning && !warning.step)
        out.push({
          kind: 'stakes',
          text: warning.text,
          rests: { source: m.letter, fact: warning.id },
          pays: [],
          own: true,
          ms: tools.clock.time(warning.text).ms,
          why: 'what can go wrong',
          score: warning.strength + 0.1,
        });
    }
  }
  const turn = (h: Hook) => (((h.text.length * 29 + seed * 13) % 89) / 89) * 0.03;
  const ranked = out.sort((a, b) => b.score + turn(b) - (a.score + turn(a)) || (a.text < b.text ? -1 : 1));
  const nth = new Map<string, number>();
  return ranked
    .map((h) => {
      nth.set(h.kind, (nth.get(h.kind) ?? 0) + 1);
      return { h, n: nth.get(h.kind)! };
    })
    .sort((a, b) => a.n - b.n || b.h.score - a.h.score)
    .map(({ h }) => h)
    .filter((h, i, all) => all.findIndex((x) => x.text === h.text) === i);
}

/** "a planned nap reduces errors" → "Does a planned nap reduce errors?" */
function yesNo(clause: string, tagger: Tagger): string | null {
  const tokens = tagger(`${clause}.`);
  const verb = tokens.findIndex(
    (t, i) =>
      i > 0 &&
      (t.pos === 'AUX' ||
        (t.pos === 'VERB' &&
          !/ing$/.test(t.text) &&
          !(/(?:ed|en)$/.test(t.text) && tokens[i - 1].pos === 'NOUN' && tokens[i + 1]?.pos !== 'DET'))),
  );
  if (verb < 1 || verb > 7 || /^(?:they|it|he|she|this|that|these|such|we)\b/i.test(clause)) return null;
  const subject = clause.slice(0, tokens[verb - 1].end);
  if (/[,;]/.test(subject) || /\b(?:that|which|who)\b/.test(subject)) return null;
  let end = verb;
  while (
    tokens[end + 1] &&
    ['AUX', 'VERB', 'PART', 'ADV'].includes(tokens[end + 1].pos) &&
    tokens[end].pos === 'AUX'
  )
    end++;
  const object = clause.slice(tokens[end].end).trim();
  if (/\b(?:it|they|them|this|these|and that)\b/i.test(object)) return null;
  return whyQuestion(
    { subject, verb: clause.slice(tokens[verb].start, tokens[end].end), object },
    tagger,
    '',
  );
}
