import { useEffect, useState } from 'react';
import { addressOf, type DraftReply, type DraftVersionReply } from '@syndeton/contract';
import { api } from '../../app/api.ts';
import { followEvents } from '../../app/followEvents.ts';
import { useAppDispatch } from '../../app/hooks.ts';

/**
 * What somebody else changes shows here, in another window too. Only in a window that is seen: a browser keeps few connections open,
 * and who comes back is told where the draft is by then.
 */
export function useFollowedDraft(siteId: string, draft: DraftReply | undefined, isChanging: boolean): void {
  const dispatch = useAppDispatch();
  const isSeen = useIsSeen();
  const [told, setTold] = useState<DraftVersionReply | undefined>(undefined);
  useEffect(() => {
    if (!isSeen) return undefined;
    return followEvents<DraftVersionReply>(addressOf('followDraft', { id: siteId }), setTold);
  }, [siteId, isSeen]);
  // versions only grow: one that is older than what is shown was told of on the way
  const isBehind = told !== undefined && draft !== undefined && told.version > draft.version && !isChanging;
  useEffect(() => {
    // one's own change is answered any moment
    const soon = isBehind ? setTimeout(() => dispatch(api.util.invalidateTags(['Draft', 'Proof', 'Site', 'Sites'])), 200) : undefined; // prettier-ignore
    return () => clearTimeout(soon);
  }, [isBehind, told, dispatch]);
}

function useIsSeen(): boolean {
  const [isSeen, setIsSeen] = useState(() => document.visibilityState === 'visible');
  useEffect(() => {
    const look = (): void => setIsSeen(document.visibilityState === 'visible');
    document.addEventListener('visibilitychange', look);
    return () => document.removeEventListener('visibilitychange', look);
  }, []);
  return isSeen;
}
