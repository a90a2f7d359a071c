/** What orders and their answers take of a text service: tokens, and its money where prices are known. */
import type { TextServiceState } from '../api.ts';

/** A token is about four letters, as services tell it (common practice, no published source); a reply is about as long as its words. */
const LETTERS_A_TOKEN = 4;
const TOKENS_A_WORD = 1 / 0.75;

export function costsOf(
  service: NonNullable<TextServiceState['service']>,
  { letters, words }: { letters: number; words: number },
): { tokens: number; cost: number | null } {
  const [tokensIn, tokensOut] = [Math.ceil(letters / LETTERS_A_TOKEN), Math.ceil(words * TOKENS_A_WORD)];
  const { priceIn, priceOut } = service;
  return {
    tokens: tokensIn + tokensOut,
    cost:
      priceIn === null && priceOut === null
        ? null
        : (tokensIn * (priceIn ?? 0) + tokensOut * (priceOut ?? 0)) / 1e6,
  };
}

/** Money as it is shown: small sums to the hundredth of a hundredth. */
export const moneyText = (cost: number): string => cost.toFixed(cost < 0.1 ? 4 : 2);
