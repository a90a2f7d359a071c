/** One of two figures that the source sets against each other, told as if it were the only one. */
import { disputedBetween, disputedWithin, type Claimed, type Figure } from '../../facts/disputed.ts';
import { numbersIn } from '../../facts/extract.ts';
import { accuse, type Check, type PassageFact, type Retelling } from './fault.ts';

/** Pairs of figures that the passage and the facts beside it set against each other. */
function pairsAt({ facts, stock }: Retelling): readonly (readonly [Figure, Figure])[] {
  // Every fact was made ready once.
  const claimed = (fact: PassageFact): Claimed => ({ text: fact.text, tokens: stock.said(fact).words });
  return facts.flatMap((fact) => {
    if (!/\d/.test(fact.text)) return [];
    const own = claimed(fact);
    const within = disputedWithin(own);
    const at = stock.facts.findIndex((f) => f.source === fact.source && f.id === fact.id);
    const beside = [-1, 1].flatMap((step) => {
      const other = stock.facts[at + step];
      if (!other || other.source !== fact.source || !/\d/.test(other.text)) return [];
      const pair = step < 0 ? disputedBetween(claimed(other), own) : disputedBetween(own, claimed(other)); // prettier-ignore
      return pair ? [pair] : [];
    });
    return within ? [within, ...beside] : beside;
  });
}

export const disputed: Check = (r) => {
  const { told, before, behind } = r;
  if (!told.values.length) return [];
  const heard = new Set(numbersIn(`${before} ${told.text} ${behind}`).map((n) => n.value));
  for (const pair of pairsAt(r))
    for (const [own, other] of [pair, [pair[1], pair[0]] as const]) {
      const v = told.values.find((x) => x.raw === own.value || x.value === own.value);
      if (v && !heard.has(other.value) && !told.values.some((x) => x.raw === other.value))
        return accuse(
          'said',
          'unsupported',
          v,
          `The source also has “${other.text}”, on somebody else’s word: both are told.`,
        );
    }
  return [];
};
