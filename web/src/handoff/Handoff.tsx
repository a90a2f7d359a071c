/** Handoff: the script in open formats, downloaded from the server once everything written has reached it. */
import { Dialog } from 'radix-ui';
import type { ScriptSession } from '../script/session.ts';
import { useSnapshot } from '../script/useSnapshot.ts';
import { RIGHT_WORDS, mayRetell } from '../sources/kinds.ts';
import { clockText } from '../text/clockText.ts';

const FORMATS = [
  ['text', 'Clean text', 'for the voice: the narration alone, a paragraph a section'],
  ['markdown', 'Markdown', 'for reading: sections, clocks, rests and sources'],
  ['srt', 'SRT captions', 'for the editor: timed from the clock, two lines of 42 characters at most'],
  ['json', 'Script file', 'for keeping: every line with its seconds and what it rests on'],
] as const;

export function Handoff({
  open,
  onClose,
  session,
}: {
  open: boolean;
  onClose: () => void;
  session: ScriptSession;
}) {
  return (
    <Dialog.Root open={open} onOpenChange={(o) => !o && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="overlay" />
        <Dialog.Content className="dialog p-6" aria-describedby={undefined}>
          <Files session={session} />
          <div className="pt-4">
            <Dialog.Close className="quietpress">Back to the script</Dialog.Close>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Files({ session }: { session: ScriptSession }) {
  const snapshot = useSnapshot(session, (s) => s);
  const waiting = snapshot.save !== 'saved';
  return (
    <>
      <Dialog.Title className="font-serif text-[20px]">Hand over “{snapshot.settings.title}”</Dialog.Title>
      <p className="text-ink2 pb-3">
        {clockText(snapshot.totalMs)}, {snapshot.words} words, {snapshot.scenes.length} scenes
      </p>
      {waiting && (
        <p className="pb-2" role="status">
          <span className="finding">Not all is saved yet.</span> The files hold what the server has.
        </p>
      )}
      {session.sources.map((s) => (
        <p key={s.letter} className="pb-1">
          <strong className="font-serif">{s.letter}</strong> {s.document.title}{' '}
          {mayRetell(s.rights) ? (
            <span className="text-ink3">{RIGHT_WORDS.find(([id]) => id === s.rights)![1]}</span>
          ) : (
            <span className="finding ml-2">
              {s.rights === 'asked' ? 'asked, not granted yet' : 'not asked whether it may be retold'}
            </span>
          )}
        </p>
      ))}
      {FORMATS.map(([id, name, says]) => (
        <div key={id} className="grid grid-cols-[140px_1fr_90px] items-baseline border-t border-hair py-2">
          <strong className="font-semibold">{name}</strong>
          <span className="text-ink2">{says}</span>
          <a
            className="textpress text-right"
            href={`/api/scripts/${session.script.id}/export/${id}`}
            download
            aria-label={`Download ${name}`}
          >
            Download
          </a>
        </div>
      ))}
    </>
  );
}
