import { useEffect, useLayoutEffect, useRef } from 'react';
import { singleKeysAct } from './singleKeys.ts';

type Keys = Readonly<Record<string, (event: KeyboardEvent) => void>>;

const typing = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));

/** Single keys (`m`, `1`) when nothing is typed into, no box is open and they are not switched off; `ctrl+enter`-like ones anywhere. */
export function useKeys(keys: Keys): void {
  const current = useRef(keys);
  // before the browser paints, so that a key pressed on what is shown acts on what is shown
  useLayoutEffect(() => {
    current.current = keys;
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.defaultPrevented || event.altKey) return;
      const chord = event.ctrlKey || event.metaKey;
      const name = `${chord ? 'ctrl+' : ''}${event.key.toLowerCase()}`;
      const action = current.current[name];
      if (!action) return;
      if (!chord && (typing(event.target) || document.querySelector('[role="dialog"], [role="menu"]'))) return;
      if (!chord && event.key.length === 1 && !singleKeysAct()) return;
      if (chord && /^ctrl\+[zy]$/.test(name) && typing(event.target)) return;
      event.preventDefault();
      action(event);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}
