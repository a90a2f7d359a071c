/** One file, or one page of our own, among those a recipient gets: shown, saved alone, or left out of the zip. */
export function FileRow({
  name,
  file,
  says,
  chosen,
  left = false,
  address,
  onShow,
  onLeave,
}: {
  name: string;
  file?: string;
  says: string;
  chosen: boolean;
  left?: boolean;
  address?: string;
  onShow: () => void;
  onLeave?: () => void;
}) {
  return (
    <div
      className={`border-t border-hair py-[6px] flex gap-2 items-start ${chosen ? 'bg-lit -mx-4 px-4 border-t-edge border-b' : ''}`}
    >
      {onLeave ? (
        <button
          className="w-6 h-6 -ml-[7px] -mt-[1px] grid place-items-center shrink-0 cursor-pointer"
          aria-pressed={!left}
          aria-label={`In the zip: ${name}`}
          onClick={onLeave}
        >
          <span
            className={`w-[10px] h-[10px] rounded-full border ${left ? 'border-mark' : 'bg-ink border-ink'}`}
          />
        </button>
      ) : (
        <span className="w-[17px] shrink-0" />
      )}
      <button className="flex-1 min-w-0 text-left cursor-pointer" aria-pressed={chosen} onClick={onShow}>
        <span className={`block truncate font-semibold ${left ? 'line-through text-ink3' : ''}`} title={file}>
          {name}
        </span>
        <span className="block text-ink2 text-[12px] leading-[15px]">{says}</span>
      </button>
      {address && (
        <a className="textpress" href={address} download aria-label={`Save ${name}`}>
          Save
        </a>
      )}
    </div>
  );
}
