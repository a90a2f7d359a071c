/** Words and signs for kinds of sources, types of facts, marks and rights. */
import type { FactType } from '@ursprung/core/facts';
import type { SourceKind } from '@ursprung/core/source';
import type { Mark, Rights } from '../api.ts';

export const KINDS = [['news', 'news'], ['encyclopedia', 'encyclopedia'], ['abstract', 'abstract'], ['forum', 'board story'], ['howto', 'guide'], ['interview', 'interview']] as const satisfies readonly (readonly [SourceKind, string])[]; // prettier-ignore
export const kindName = (kind: string): string => KINDS.find(([k]) => k === kind)?.[1] ?? kind;

export const TYPES: readonly FactType[] = ['event', 'figure', 'definition', 'cause', 'comparison', 'finding', 'quote', 'step', 'warning', 'opinion', 'detail']; // prettier-ignore
/** A path in a 12 box for each type; the word always stands with it. */
export const TYPE_SIGN: Readonly<Record<FactType, string>> = {
  event: 'M6 1v10M3 4l3-3 3 3',
  figure: 'M2 10V6M6 10V2M10 10V5',
  definition: 'M1 4h10M1 8h10',
  cause: 'M1 6h8M7 3l3 3-3 3',
  comparison: 'M3 1v10M9 4v7',
  finding: 'M5 5m-3.5 0a3.5 3.5 0 1 0 7 0a3.5 3.5 0 1 0-7 0M8 8l3 3',
  quote: 'M2 8V4h2M7 8V4h2',
  step: 'M1 10h3V6h4V2h3',
  warning: 'M6 1v7M6 10v1',
  opinion: 'M1 2h10v6H5l-2 3V8H1z',
  detail: 'M3 6h6',
};

export const MARK_WORDS = [['must', 'must be in'], ['out', 'leave out'], ['wrong', 'wrong'], ['wait', 'wait']] as const satisfies readonly (readonly [Mark['mark'], string])[]; // prettier-ignore
/** The key that sets each mark while the list of facts has the focus. */
export const MARK_KEYS: Readonly<Record<string, Mark['mark']>> = {
  m: 'must',
  o: 'out',
  x: 'wrong',
  w: 'wait',
};

export const RIGHT_WORDS = [['own', 'own'], ['open', 'open licence'], ['asked', 'asked'], ['granted', 'granted'], ['not asked', 'not asked']] as const satisfies readonly (readonly [Rights, string])[]; // prettier-ignore
/** Rights under which it may be retold as it is. */
export const mayRetell = (rights: Rights): boolean =>
  rights === 'own' || rights === 'open' || rights === 'granted';
