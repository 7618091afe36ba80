import { useSearchParams } from 'react-router';

/** Which two states are compared, as the address says; undefined where there is only one. */
export interface States {
  /** A revision. */
  readonly from: number;
  /** A revision, or what is lined up on the newest. */
  readonly to: number | 'draft';
  readonly choose: (from: number, to: number | 'draft') => void;
}

/** The draft against its revision when something is lined up, else the newest revision against the one before. */
export function useStates(newest: number, linedUp: boolean): States | undefined {
  const [search, setSearch] = useSearchParams();
  const choose: States['choose'] = (from, to) =>
    setSearch((old) => {
      const params = new URLSearchParams(old);
      params.set('from', String(from));
      params.set('to', String(to));
      return params;
    });
  const asked = (name: string): number | undefined => {
    const number = Number(search.get(name));
    return Number.isInteger(number) && number >= 1 && number <= newest ? number : undefined;
  };
  const to = search.get('to') === 'draft' && linedUp ? 'draft' : (asked('to') ?? (linedUp ? 'draft' : newest));
  const last = to === 'draft' ? newest : to - 1;
  if (last < 1) return undefined;
  const from = asked('from') ?? last;
  return { from: from <= last ? from : last, to, choose };
}
