import { useSearchParams } from 'react-router';

/** Which two states are compared, as the address says; undefined where there is only one. */
export interface States {
  /** A revision. */
  readonly from: number;
  /** The site it is one of, where that is another: what is on a server, brought in to be compared. */
  readonly other: string | undefined;
  /** A revision, or the draft on the newest. */
  readonly to: number | 'draft';
}

export type ChooseStates = (from: number, to: number | 'draft', other?: string) => void;

/** The draft against its revision when it is not empty, else the newest revision against the one before. */
export function useStates(
  newest: number,
  inDraft: boolean,
): { readonly states: States | undefined; readonly choose: ChooseStates } {
  const [search, setSearch] = useSearchParams();
  const choose: ChooseStates = (from, to, other) =>
    setSearch((old) => {
      const params = new URLSearchParams(old);
      params.set('from', String(from));
      params.set('to', String(to));
      if (other === undefined) params.delete('other');
      else params.set('other', other);
      return params;
    });
  return { states: statesIn(search, newest, inDraft), choose };
}

function statesIn(search: URLSearchParams, newest: number, inDraft: boolean): States | undefined {
  const asked = (name: string, most: number): number | undefined => {
    const number = Number(search.get(name));
    return Number.isInteger(number) && number >= 1 && number <= most ? number : undefined;
  };
  const to = search.get('to') === 'draft' && inDraft ? 'draft' : (asked('to', newest) ?? (inDraft ? 'draft' : newest));
  const other = search.get('other') ?? undefined;
  if (other !== undefined) return { from: asked('from', Infinity) ?? 1, other, to };
  const last = to === 'draft' ? newest : to - 1;
  if (last < 1) return undefined;
  const from = asked('from', newest) ?? last;
  return { from: from <= last ? from : last, other, to };
}
