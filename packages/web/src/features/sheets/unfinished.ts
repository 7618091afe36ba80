import { useMemo, useSyncExternalStore } from 'react';

/** Text of a sheet that is not in the draft yet, and the bytes it was typed over. */
export interface UnfinishedText {
  readonly text: string;
  readonly hash: string;
}

const prefix = 'syndeton-typed';
const keyOf = (siteId: string, path: string): string => `${prefix} ${siteId} ${path}`;

/** Kept by site and sheet in this browser, at once: neither another station nor a reload nor a crash loses it. */
export function readUnfinished(siteId: string, path: string): UnfinishedText | undefined {
  const kept = localStorage.getItem(keyOf(siteId, path));
  if (kept === null) return undefined;
  const at = kept.indexOf('\n');
  return { hash: kept.slice(0, at), text: kept.slice(at + 1) };
}

/** False where the browser has no room for it. */
export function keepUnfinished(siteId: string, path: string, { hash, text }: UnfinishedText): boolean {
  try {
    localStorage.setItem(keyOf(siteId, path), `${hash}\n${text}`);
    tell();
    return true;
  } catch {
    return false;
  }
}

export function forgetUnfinished(siteId: string, path: string): void {
  localStorage.removeItem(keyOf(siteId, path));
  tell();
}

/** The sheets of a site with text that waits. */
export function unfinishedSheets(siteId: string): readonly string[] {
  const start = `${prefix} ${siteId} `;
  return Array.from({ length: localStorage.length }, (_, i) => localStorage.key(i) ?? '')
    .filter((key) => key.startsWith(start))
    .map((key) => key.slice(start.length))
    .sort();
}

const listeners = new Set<() => void>();
const tell = (): void => listeners.forEach((listener) => listener());

function watch(listener: () => void): () => void {
  listeners.add(listener);
  // typed in another window
  window.addEventListener('storage', listener);
  return () => {
    listeners.delete(listener);
    window.removeEventListener('storage', listener);
  };
}

/** The sheets of a site with text that waits, as it is typed. */
export function useUnfinishedSheets(siteId: string): readonly string[] {
  const list = useSyncExternalStore(watch, () => unfinishedSheets(siteId).join('\n'));
  return useMemo(() => (list === '' ? [] : list.split('\n')), [list]);
}
