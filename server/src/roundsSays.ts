/** What came of an order that was told in rounds, in one sentence. */
import type { RoundsOutcome } from './api.ts';

const plural = (n: number, one: string) => `${n.toLocaleString('en')} ${one}${n === 1 ? '' : 's'}`;
const clock = (seconds: number) =>
  `${Math.floor(Math.round(seconds) / 60)}:${String(Math.round(seconds) % 60).padStart(2, '0')}`;

export function outcomeSays(
  { count, by, seconds, offMs }: RoundsOutcome,
  spent: { round: number; orders: number; tokensIn: number; tokensOut: number; cost: number | null },
): string {
  const own = count.taken + count.mended;
  const tokens = spent.tokensIn + spent.tokensOut;
  return [
    `${plural(own, 'line')} by ${by || 'the service'}${count.mended ? ` (${count.mended} mended)` : ''}`,
    ...(count.byRule ? [`, ${count.byRule} by rule`] : []),
    ...(count.open ? [`, ${plural(count.open, 'place')} open`] : []),
    ...(count.leftOut ? [`, ${count.leftOut} left out for length`] : []),
    `; ${plural(spent.round, 'round')}, ${plural(spent.orders, 'order')}`,
    ...(tokens ? [`, ${plural(tokens, 'token')}`] : []),
    ...(spent.cost === null ? [] : [`, ${spent.cost.toFixed(spent.cost < 0.1 ? 4 : 2)} in its money`]),
    `. It lasts ${clock(seconds)}`,
    ...(Math.abs(offMs) >= 1000
      ? [`, ${Math.round(Math.abs(offMs) / 1000)} s ${offMs > 0 ? 'over' : 'short'}`]
      : []),
    '.',
  ].join('');
}
