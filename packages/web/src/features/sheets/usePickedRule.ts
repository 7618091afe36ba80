import { useState, type RefObject } from 'react';
import { useAppDispatch } from '../../app/hooks.ts';
import type { EditorHandle } from './editor/SheetEditor.tsx';
import { sheetsApi } from './sheetsApi.ts';

/** Goes from an element picked on a page to the rule that decides how it looks, the one in this sheet first. */
export function usePickedRule(
  at: { readonly id: string; readonly number: number },
  sheet: string,
  handle: RefObject<EditorHandle | undefined>,
  onOther: (sheet: string, line: number) => void,
): { readonly pick: (page: string, element: string) => void; readonly said: string | undefined } {
  const dispatch = useAppDispatch();
  const [said, setSaid] = useState<string | undefined>(undefined);
  const pick = async (page: string, element: string): Promise<void> => {
    const asked = dispatch(sheetsApi.endpoints.picked.initiate({ ...at, path: page, element }, { subscribe: false }));
    const { name, rows } = await asked.unwrap();
    const winners = rows.flatMap(({ entries }) =>
      entries.filter(({ state, rule }) => state === 'wins' && rule !== null),
    );
    const here = winners.find(({ file }) => file === sheet);
    const other = winners.find(({ file }) => /\.css$/i.test(file));
    if (here) handle.current?.goToLine(here.line);
    else if (other) onOther(other.file, other.line);
    setSaid(
      here
        ? undefined
        : other
          ? undefined
          : winners.length > 0
            ? `${name}: what decides it stands in the page.`
            : `${name}: no rule decides anything of it.`,
    );
  };
  return { pick: (page, element) => void pick(page, element), said };
}
