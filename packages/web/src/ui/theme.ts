import { useCallback, useSyncExternalStore } from 'react';

type Theme = 'light' | 'dark';

const key = 'syndeton-theme';
const listeners = new Set<() => void>();

function current(): Theme {
  const chosen = localStorage.getItem(key);
  if (chosen === 'light' || chosen === 'dark') return chosen;
  return matchMedia('(prefers-color-scheme: dark)').matches ? 'dark' : 'light';
}

/** Puts the chosen theme on the document; called once before the first paint. */
export function applyTheme(): void {
  document.documentElement.dataset['theme'] = current();
}

export function useTheme(): readonly [Theme, () => void] {
  const theme = useSyncExternalStore(
    useCallback((listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    }, []),
    current,
  );
  const toggle = useCallback(() => {
    localStorage.setItem(key, current() === 'dark' ? 'light' : 'dark');
    applyTheme();
    for (const listener of listeners) listener();
  }, []);
  return [theme, toggle];
}
