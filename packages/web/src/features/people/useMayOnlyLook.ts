import { useRightsQuery, useWhoQuery } from './peopleApi.ts';

/** Whether who is signed in may look at a site and not change it. */
export function useMayOnlyLook(siteId: string): boolean {
  const { data: who } = useWhoQuery();
  const { data } = useRightsQuery(siteId, { skip: who?.accounts !== true });
  return data?.mine === 'read';
}
