import { useOverridesQuery } from './precedenceApi.ts';

/** How many declarations in pages beat shared ones and are not kept on purpose; asked where they are looked at. */
export function useOverridesCount(id: string, number: number | undefined, wanted: boolean): number | undefined {
  const { data } = useOverridesQuery({ id, number: number ?? 1 }, { skip: !wanted || number === undefined });
  return data?.overrides.filter((one) => one.note === null).length;
}
