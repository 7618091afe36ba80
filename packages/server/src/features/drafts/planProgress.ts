import type { Follow, PlanProgressReply } from '@syndeton/contract';

export interface PlanProgressTold {
  /** A plan of the site has come so far. */
  tell(siteId: string, progress: PlanProgressReply): void;
  /** The plan is made, or given up. */
  end(siteId: string): void;
  follow(siteId: string): Follow<PlanProgressReply>;
}

/** How far plans are, for those who wait for them. */
export function makePlanProgress(): PlanProgressTold {
  const last = new Map<string, PlanProgressReply>();
  const listeners = new Map<string, Set<(progress: PlanProgressReply) => void>>();
  return {
    tell(siteId, progress) {
      last.set(siteId, progress);
      for (const listen of listeners.get(siteId) ?? []) listen(progress);
    },
    end: (siteId) => void last.delete(siteId),
    follow: (siteId) => (say) => {
      const known = last.get(siteId);
      if (known) say(known);
      const own = listeners.get(siteId) ?? new Set();
      listeners.set(siteId, own.add(say));
      return () => {
        own.delete(say);
        if (own.size === 0) listeners.delete(siteId);
      };
    },
  };
}
