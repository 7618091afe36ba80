import { useCallback } from 'react';
import { useSearchParams } from 'react-router';

export type Way = 'element' | 'question' | 'overrides' | 'value';

/** What the address says of the question asked, so that a view can be sent to someone. */
export interface Asked {
  readonly way: Way;
  readonly element: string;
  readonly pseudo: string;
  readonly medium: 'screen' | 'print';
  readonly width: number;
  readonly states: readonly string[];
  readonly peeled: readonly string[];
  readonly selector: string;
  readonly property: string;
  readonly value: string;
  /** The override opened. */
  readonly override: string;
  readonly set: (change: Readonly<Record<string, string | readonly string[] | undefined>>) => void;
}

const ways: readonly Way[] = ['element', 'question', 'overrides', 'value'];

export function useAsked(): Asked {
  const [search, setSearch] = useSearchParams();
  const set = useCallback<Asked['set']>(
    (change) =>
      setSearch((old) => {
        const params = new URLSearchParams(old);
        for (const [name, value] of Object.entries(change)) {
          params.delete(name);
          for (const one of value === undefined ? [] : typeof value === 'string' ? [value] : value)
            if (one !== '') params.append(name, one);
        }
        return params;
      }),
    [setSearch],
  );
  const width = Number(search.get('width') ?? 0);
  return {
    way: ways.find((way) => way === search.get('way')) ?? 'element',
    element: search.get('element') ?? '',
    pseudo: search.get('pseudo') ?? '',
    medium: search.get('medium') === 'print' ? 'print' : 'screen',
    width: Number.isInteger(width) && width > 0 ? width : 700,
    states: search.getAll('state'),
    peeled: search.getAll('peel'),
    selector: search.get('selector') ?? 'h1',
    property: search.get('property') ?? 'color',
    value: search.get('value') ?? '',
    override: search.get('override') ?? '',
    set,
  };
}
