/** Every rule of the Read-through, in the order in which findings of one place are shown. */
import type { Rule } from '../rule.ts';
import { accusation } from './accusation.ts';
import { acronym } from './acronym.ts';
import { adWords } from './ad-words.ts';
import { boldClaim } from './bold-claim.ts';
import { claims } from './claims.ts';
import { closeLine } from './close-line.ts';
import { contraction } from './contraction.ts';
import { doubledWord } from './doubled-word.ts';
import { fadingEnd } from './fading-end.ts';
import { filler } from './filler.ts';
import { grade } from './grade.ts';
import { greeting } from './greeting.ts';
import { hardCluster } from './hard-cluster.ts';
import { hardNumber } from './hard-number.ts';
import { latePromise } from './late-promise.ts';
import { lateTurn } from './late-turn.ts';
import { longBreath } from './long-breath.ts';
import { longSentence } from './long-sentence.ts';
import { noSource } from './no-source.ts';
import { numberCrowd } from './number-crowd.ts';
import { oldFigure } from './old-figure.ts';
import { openLine } from './open-line.ts';
import { openLoop } from './open-loop.ts';
import { overLength } from './over-length.ts';
import { parenthesis } from './parenthesis.ts';
import { passiveChain } from './passive-chain.ts';
import { privateName } from './private-name.ts';
import { saidTwice } from './said-twice.ts';
import { sameLength } from './same-length.ts';
import { sameOpener } from './same-opener.ts';
import { sameSection } from './same-section.ts';
import { slack } from './slack.ts';
import { grammar, spelling } from './spelling.ts';
import { stockPhrase } from './stock-phrase.ts';
import { symbol } from './symbol.ts';
import { twoReadings } from './two-readings.ts';
import { unheardQuote } from './unheard-quote.ts';
import { unsourced } from './unsourced.ts';
import { weakLead } from './weak-lead.ts';

/** Refuses two rules of one id. */
function registry(rules: readonly Rule[]): readonly Rule[] {
  const ids = new Set<string>();
  for (const { id } of rules) {
    if (ids.has(id)) throw new Error(`Two rules are called ${id}.`);
    ids.add(id);
  }
  return rules;
}

export const RULES: readonly Rule[] = registry([
  ...unsourced,
  ...claims,
  oldFigure,
  accusation,
  noSource,
  closeLine,
  latePromise,
  openLine,
  openLoop,
  lateTurn,
  slack,
  saidTwice,
  sameSection,
  weakLead,
  fadingEnd,
  overLength,
  greeting,
  filler,
  stockPhrase,
  spelling,
  grammar,
  doubledWord,
  passiveChain,
  sameOpener,
  sameLength,
  grade,
  longSentence,
  contraction,
  longBreath,
  hardCluster,
  twoReadings,
  symbol,
  acronym,
  hardNumber,
  numberCrowd,
  parenthesis,
  unheardQuote,
  adWords,
  privateName,
  boldClaim,
]);
export const ruleById = (id: string): Rule | undefined => RULES.find((r) => r.id === id);
