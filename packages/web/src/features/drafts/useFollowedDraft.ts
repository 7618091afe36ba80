import { useEffect, useState } from 'react';
import { addressOf, type DraftReply, type DraftVersionReply } from '@syndeton/contract';
import { api, draftTags, revisionTags } from '../../app/api.ts';
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
  const hasBecome = isBehind && told.base !== draft.base;
  useEffect(() => {
    // one's own change is answered any moment
    const tags = hasBecome ? revisionTags(siteId) : [...draftTags(siteId), 'Sites' as const];
    const soon = isBehind ? setTimeout(() => dispatch(api.util.invalidateTags(tags)), 200) : undefined;
    return () => clearTimeout(soon);
  }, [isBehind, hasBecome, told, siteId, dispatch]);
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
