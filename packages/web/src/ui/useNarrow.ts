import { useSyncExternalStore } from 'react';

/** A window too narrow for all columns, as a laptop's beside another window. */
const query = '(max-width: 1150px)';

const subscribe = (tell: () => void): (() => void) => {
  const list = matchMedia(query);
  list.addEventListener('change', tell);
  return () => list.removeEventListener('change', tell);
};

export const useNarrow = (): boolean => useSyncExternalStore(subscribe, () => matchMedia(query).matches);
