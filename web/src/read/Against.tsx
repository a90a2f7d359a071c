/** A script held against its channel: each figure beside the channel’s, farthest first, with two lines that show it. */
import { useQuery } from '@tanstack/react-query';
import { Dialog } from 'radix-ui';
import { api } from '../api.ts';
import type { ScriptSession } from '../script/session.ts';
import { useSnapshot } from '../script/useSnapshot.ts';

const said = (value: number, unit: string) =>
  `${Math.round(value * 10) / 10}${unit === '%' ? ' %' : unit ? ` ${unit}` : ''}`;

export function Against({ session, onClose }: { session: ScriptSession; onClose: () => void }) {
  const sections = useSnapshot(session, (s) => s.sections);
  const held = useQuery({
    queryKey: ['against', session.script.id, sections],
    queryFn: () => api.against(session.script.id, sections),
    gcTime: 0,
  });
  const against = held.data?.against;
  return (
    <Dialog.Root open onOpenChange={(o) => !o && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="overlay" />
        <Dialog.Content className="dialog p-6" aria-describedby={undefined}>
          <Dialog.Title className="font-serif text-[18px] pb-3">
            Against {session.script.channelName}
          </Dialog.Title>
          {held.isError && <p className="finding">{held.error.message}</p>}
          {held.isSuccess && !against && (
            <p>
              This channel has not been measured yet. Open it in the library and measure its own scripts;
              three are enough to begin.
            </p>
          )}
          {against && (
            <table className="w-full">
              <thead className="columnhead text-left">
                <tr>
                  <th>measure</th>
                  <th className="text-right">here</th>
                  <th className="text-right">the channel</th>
                  <th className="pl-6">the channel says it like this</th>
                </tr>
              </thead>
              <tbody>
                {against.differences.map((d) => (
                  <tr key={d.id} className="border-t border-hair align-baseline">
                    <td className={`py-1 ${Math.abs(d.far) > 2 ? 'finding' : ''}`}>{d.name}</td>
                    <td className="text-right clock">{said(d.here, d.unit)}</td>
                    <td className="text-right clock text-ink2">{said(d.house, d.unit)}</td>
                    <td className="pl-6 font-serif text-ink2">
                      {against.style.measures.find((m) => m.id === d.id)?.examples[0]}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          <p className="pt-4">
            <button className="quietpress" onClick={onClose}>
              Close
            </button>
          </p>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
