/** The command list: one key finds any action. Places put their actions in while they are shown. */
import { Command } from 'cmdk';
import { Dialog } from 'radix-ui';
import { createContext, useCallback, useContext, useEffect, useMemo, useState, type ReactNode } from 'react';

export interface Action {
  id: string;
  name: string;
  /** The key that does the same, in words. */
  keys?: string;
  run: () => void;
}

interface Registry {
  add: (owner: string, actions: readonly Action[]) => void;
  remove: (owner: string) => void;
  open: () => void;
}
const Context = createContext<Registry | null>(null);

/** Puts a place's actions into the list while it is mounted. `actions` must be memoised. */
export function useActions(owner: string, actions: readonly Action[]): void {
  const registry = useContext(Context);
  useEffect(() => {
    registry?.add(owner, actions);
    return () => registry?.remove(owner);
  }, [registry, owner, actions]);
}
export const useCommandList = () => useContext(Context)!.open;

export function Commands({ children }: { children: ReactNode }) {
  const [groups, setGroups] = useState<ReadonlyMap<string, readonly Action[]>>(new Map());
  const [shown, setShown] = useState(false);
  const add = useCallback(
    (owner: string, actions: readonly Action[]) => setGroups((g) => new Map(g).set(owner, actions)),
    [],
  );
  const remove = useCallback(
    (owner: string) => setGroups((g) => new Map([...g].filter(([k]) => k !== owner))),
    [],
  );
  const registry = useMemo(() => ({ add, remove, open: () => setShown(true) }), [add, remove]);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== 'F2') return;
      event.preventDefault();
      setShown((s) => !s);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  const actions = [...groups.values()].flat();
  return (
    <Context.Provider value={registry}>
      {children}
      <Dialog.Root open={shown} onOpenChange={setShown}>
        <Dialog.Portal>
          <Dialog.Overlay className="overlay" />
          <Dialog.Content className="dialog" aria-describedby={undefined}>
            <Dialog.Title className="sr-only">Any action</Dialog.Title>
            <Command label="Any action" loop>
              <Command.Input placeholder="Find an action" />
              <Command.List>
                <Command.Empty>No action has this name.</Command.Empty>
                {actions.map((a) => (
                  <Command.Item
                    key={a.id}
                    value={`${a.name} ${a.id}`}
                    onSelect={() => {
                      setShown(false);
                      // After the dialog has given the focus back.
                      setTimeout(a.run, 0);
                    }}
                  >
                    <span>{a.name}</span>
                    <span className="clock text-ink3">{a.keys}</span>
                  </Command.Item>
                ))}
              </Command.List>
            </Command>
          </Dialog.Content>
        </Dialog.Portal>
      </Dialog.Root>
    </Context.Provider>
  );
}
