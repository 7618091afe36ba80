import { useEffect, useState } from 'react';
import { addressOf, type PlanProgressReply } from '@syndeton/contract';
import { followEvents } from '../../app/followEvents.ts';

/** How far the plan is while one is being made, in the button's words. */
export function usePlanProgress(siteId: string, proposing: boolean): string {
  const [progress, setProgress] = useState<PlanProgressReply | undefined>(undefined);
  useEffect(() => {
    if (!proposing) return undefined;
    const stop = followEvents<PlanProgressReply>(addressOf('followProposal', { id: siteId }), setProgress);
    return () => {
      stop();
      setProgress(undefined);
    };
  }, [siteId, proposing]);
  return planWords(progress);
}

export function planWords(progress: PlanProgressReply | undefined): string {
  if (!progress) return 'Planning …';
  const { step, done, total } = progress;
  const of = `${done.toLocaleString('en')} of ${total.toLocaleString('en')}`;
  return step === 'reading' ? (done < total ? `Reading, ${of} …` : 'Ordering the rules …') : `Proving, ${of} …`;
}
