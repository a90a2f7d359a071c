import type { Rule } from '../rule.ts';

/** Spelling and grammar come from a checker that runs beside the rules (`../grammar.ts`); here are only their names and costs. */
export const spelling: Rule = {
  id: 'spelling',
  area: 'language',
  name: 'Spelling',
  cost: { each: 1, most: 8 },
};
export const grammar: Rule = { id: 'grammar', area: 'language', name: 'Grammar', cost: { each: 1, most: 8 } };
