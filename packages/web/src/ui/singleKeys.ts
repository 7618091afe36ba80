import { useCallback, useSyncExternalStore } from 'react';

const key = 'syndeton-single-keys';
const listeners = new Set<() => void>();

/** Whether keys that write a character act by themselves. WCAG 2.2, "Character Key Shortcuts": they can be switched off. */
export const singleKeysAct = (): boolean => localStorage.getItem(key) !== 'off';

export function useSingleKeys(): readonly [boolean, (act: boolean) => void] {
  const act = useSyncExternalStore(
    useCallback((listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    }, []),
    singleKeysAct,
  );
  const choose = useCallback((on: boolean) => {
    localStorage.setItem(key, on ? 'on' : 'off');
    for (const listener of listeners) listener();
  }, []);
  return [act, choose];
}
