import { randomUUID } from 'node:crypto';
import type { Follow, PlanProgressReply } from '@syndeton/contract';
import type { Signals } from '../../db/signals.ts';

export interface PlanProgressTold {
  /** A plan of the site has come so far. */
  tell(siteId: string, progress: PlanProgressReply): void;
  /** The plan is made, or given up. */
  end(siteId: string): void;
  follow(siteId: string): Follow<PlanProgressReply>;
}

/** What one process tells the others; without progress it is made, or given up. */
interface Told {
  readonly from: string;
  readonly siteId: string;
  readonly progress: PlanProgressReply | undefined;
}

const channel = 'plan_progress';

/** How far plans are, for those who wait for them, whichever process was asked to make them. */
export function makePlanProgress(signals: Signals): PlanProgressTold {
  const last = new Map<string, PlanProgressReply>();
  const listeners = new Map<string, Set<(progress: PlanProgressReply) => void>>();
  const ours = randomUUID();
  signals.on(channel, (told) => {
    const { from, siteId, progress } = JSON.parse(told ?? '{}') as Partial<Told>;
    if (siteId !== undefined && from !== ours) hear(siteId, progress);
  });

  function hear(siteId: string, progress: PlanProgressReply | undefined): void {
    if (progress === undefined) last.delete(siteId);
    else {
      last.set(siteId, progress);
      for (const listen of listeners.get(siteId) ?? []) listen(progress);
    }
  }

  function say(siteId: string, progress: PlanProgressReply | undefined): void {
    hear(siteId, progress);
    signals.tell(channel, JSON.stringify({ from: ours, siteId, progress } satisfies Told)).catch(() => undefined);
  }

  return {
    tell: say,
    end: (siteId) => say(siteId, undefined),
    follow: (siteId) => (listen) => {
      const known = last.get(siteId);
      if (known) listen(known);
      const own = listeners.get(siteId) ?? new Set();
      listeners.set(siteId, own.add(listen));
      return () => {
        own.delete(listen);
        if (own.size === 0) listeners.delete(siteId);
      };
    },
  };
}
