/** The end of a list that holds more than is shown. */
export function Earlier({
  shown,
  of,
  what,
  onMore,
}: {
  shown: number;
  of: number;
  what: string;
  onMore: () => void;
}) {
  if (shown >= of) return null;
  return (
    <p className="px-6 py-2 text-ink3">
      The newest {shown} of {of} {what} are shown.{' '}
      <button className="textpress" onClick={onMore}>
        Show earlier ones
      </button>
    </p>
  );
}
