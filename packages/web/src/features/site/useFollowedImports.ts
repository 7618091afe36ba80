import { useEffect } from 'react';
import { addressOf, type ImportReply } from '@syndeton/contract';
import { followEvents } from '../../app/followEvents.ts';
import { useAppDispatch } from '../../app/hooks.ts';
import { sitesApi } from './sitesApi.ts';

/** Keeps the list of sites on their way in as the server tells of it, while one is. */
export function useFollowedImports(isAny: boolean): void {
  const dispatch = useAppDispatch();
  useEffect(() => {
    if (!isAny) return undefined;
    return followEvents<{ readonly imports: readonly ImportReply[] }>(addressOf('followImports', {}), ({ imports }) => {
      dispatch(sitesApi.util.updateQueryData('imports', undefined, () => imports));
    });
  }, [isAny, dispatch]);
}
