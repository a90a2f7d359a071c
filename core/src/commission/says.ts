/** What came of an order that was told in rounds, in one sentence. */
import { clockTime } from './parts.ts';
import type { RoundsTaken } from './rounds.ts';

const plural = (n: number, one: string) => `${n.toLocaleString('en')} ${one}${n === 1 ? '' : 's'}`;

/** `seconds`: how long the script lasts now. `cost` in the money of the service's prices; null without any. */
export function roundsSays(
  { count, offMs }: Pick<RoundsTaken, 'count' | 'offMs'>,
  spent: {
    by: string;
    seconds: number;
    round: number;
    orders: number;
    tokens: number;
    cost: number | null;
  },
): string {
  return [
    `${plural(count.taken + count.mended, 'line')} by ${spent.by || 'the service'}${count.mended ? ` (${count.mended} mended)` : ''}`,
    ...(count.byRule ? [`, ${count.byRule} by rule`] : []),
    ...(count.open ? [`, ${plural(count.open, 'place')} open`] : []),
    ...(count.leftOut ? [`, ${count.leftOut} left out for length`] : []),
    `; ${plural(spent.round, 'round')}, ${plural(spent.orders, 'order')}`,
    ...(spent.tokens ? [`, ${plural(spent.tokens, 'token')}`] : []),
    ...(spent.cost === null ? [] : [`, ${spent.cost.toFixed(spent.cost < 0.1 ? 4 : 2)} in its money`]),
    `. It lasts ${clockTime(spent.seconds)}`,
    ...(Math.abs(offMs) >= 1000
      ? [`, ${Math.round(Math.abs(offMs) / 1000)} s ${offMs > 0 ? 'over' : 'short'}`]
      : []),
    '.',
  ].join('');
}
