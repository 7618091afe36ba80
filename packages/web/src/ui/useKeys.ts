import { useEffect, useLayoutEffect, useRef } from 'react';
import { singleKeysAct } from './singleKeys.ts';

type Keys = Readonly<Record<string, (event: KeyboardEvent) => void>>;

const typing = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));

const isChord = (event: KeyboardEvent): boolean => event.ctrlKey || event.metaKey;

/** A box that asks something: what is under it waits (`Box`). */
const asking = '[data-asking]';

/**
 * Single keys (`m`, `1`) when nothing is typed into, no box is open and they are not switched off; `ctrl+enter`-like ones anywhere while
 * no box asks something, and before any control sees them where nothing is typed into: boxes to tick and menus take Enter for
 * themselves, with Ctrl as well.
 */
export function useKeys(keys: Keys): void {
  const current = useRef(keys);
  // before the browser paints, so that a key pressed on what is shown acts on what is shown
  useLayoutEffect(() => {
    current.current = keys;
  });
  useEffect(() => {
    const isOurs = (event: KeyboardEvent): boolean => isChord(event) && !typing(event.target);
    const onKey = (event: KeyboardEvent): void => {
      if (event.defaultPrevented || event.altKey) return;
      const chord = isChord(event);
      const name = `${chord ? 'ctrl+' : ''}${event.key.toLowerCase()}`;
      const action = current.current[name];
      if (!action) return;
      if (chord && document.querySelector(asking)) return;
      if (!chord && (typing(event.target) || document.querySelector('[role="dialog"], [role="menu"]'))) return;
      if (!chord && event.key.length === 1 && !singleKeysAct()) return;
      if (chord && /^ctrl\+[zy]$/.test(name) && typing(event.target)) return;
      event.preventDefault();
      if (isOurs(event)) event.stopPropagation();
      action(event);
    };
    const before = (event: KeyboardEvent): void => (isOurs(event) ? onKey(event) : undefined);
    const after = (event: KeyboardEvent): void => (isOurs(event) ? undefined : onKey(event));
    window.addEventListener('keydown', before, { capture: true });
    window.addEventListener('keydown', after);
    return () => {
      window.removeEventListener('keydown', before, { capture: true });
      window.removeEventListener('keydown', after);
    };
  }, []);
}
