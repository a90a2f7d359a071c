/** A source that an earlier version took apart: what reading it again would change is shown first, then it may be done. */
import { useMutation } from '@tanstack/react-query';
import { api, type Renewal, type SourceView } from '../api.ts';

const counted = (n: number, one: string, more: string) => (n === 1 ? `1 ${one}` : `${n} ${more}`);

/** In words, what comes out otherwise. */
function Changes({ renewal: r }: { renewal: Renewal }) {
  const fresh = r.facts.after - r.facts.same;
  if (r.tidy) return <p>Nothing comes out otherwise.</p>;
  return (
    <>
      <p>
        {counted(r.facts.same, 'fact stays as it is', 'facts stay as they are')}
        {fresh > 0 && `, ${counted(fresh, 'is new', 'are new')}`}.
        {r.passages.after !== r.passages.before &&
          ` ${counted(r.passages.after, 'passage', 'passages')} instead of ${r.passages.before}.`}
      </p>
      {r.moved.length > 0 && (
        <p>
          {counted(r.moved.length, 'fact is', 'facts are')} part of another now; marks, lines and promises go
          with the words.
        </p>
      )}
      {r.lost.map((f) => (
        <p key={f.id}>
          <span className="finding">{f.mark ? `Gone, with its mark “${f.mark}”:` : 'Gone:'}</span> {f.text}
        </p>
      ))}
      {r.lines.map((l) => (
        <p key={`${l.script} ${l.line}`}>
          <span className="finding">Rests on what goes:</span> “{l.text}” in {l.title}
        </p>
      ))}
    </>
  );
}

export function Renewing({
  source,
  onRenewed,
}: {
  source: SourceView;
  onRenewed: (next: SourceView) => void;
}) {
  const look = useMutation({ mutationFn: () => api.renewal(source.id) });
  const renew = useMutation({
    mutationFn: () => api.renewSource(source.id),
    onSuccess: (answer) => onRenewed(answer.source),
  });
  const failed = look.error ?? renew.error;
  return (
    <div role="status">
      <p className="text-ink3">taken apart by an earlier version</p>
      {failed && <p className="finding">{failed.message}</p>}
      {look.data ? (
        <>
          <Changes renewal={look.data} />
          <button className="textpress" disabled={renew.isPending} onClick={() => renew.mutate()}>
            {renew.isPending ? 'Reading…' : 'Take it apart again'}
          </button>
        </>
      ) : (
        <button className="textpress" disabled={look.isPending} onClick={() => look.mutate()}>
          {look.isPending ? 'Looking…' : 'What would be new?'}
        </button>
      )}
    </div>
  );
}
