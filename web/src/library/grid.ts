/** What rows of scripts and of sources share: columns, the axis, how a day is written. */

/** Ten minutes across the axis; longer scripts widen it. */
export const AXIS_PX = 560;
export const GRID = 'grid grid-cols-[300px_minmax(600px,1fr)_64px_64px_84px] px-6 items-center';

/** Today's time, this year's day, or the date. */
export function when(iso: string): string {
  const date = new Date(iso);
  const now = new Date();
  if (date.toDateString() === now.toDateString())
    return date.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
  return date.toLocaleDateString('en-GB', {
    day: 'numeric',
    month: 'short',
    ...(date.getFullYear() === now.getFullYear() ? {} : { year: 'numeric' }),
  });
}
