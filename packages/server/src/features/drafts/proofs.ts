import type { DraftProofReply } from '@syndeton/contract';
import type { Analysis } from '../../analysis/analysis.ts';
import type { SiteState } from '../../analysis/tasks.ts';
import { Refusal } from '../../http/refusal.ts';
import { Stopped } from '../../analysis/siteThreads.ts';

export interface Proofs {
  /** The proof of a draft's version, or how far it is; it is begun when nobody asked before. */
  of(siteId: string, version: number, state: SiteState): DraftProofReply;
  /** A newer draft is on its way: what runs for an older one ends. */
  overtaken(siteId: string): void;
}

interface Running {
  readonly version: number;
  readonly stop: AbortController;
  done: number;
  total: number;
  result: DraftProofReply | undefined;
}

/** Sites whose last proof is kept. */
const mostKept = 30;

/** One proof a site: of the version of its draft asked for last. */
export function makeProofs(analysis: Analysis): Proofs {
  const running = new Map<string, Running>();

  function start(siteId: string, version: number, state: SiteState): Running {
    running.get(siteId)?.stop.abort();
    running.delete(siteId);
    const one: Running = { version, stop: new AbortController(), done: 0, total: 0, result: undefined };
    running.set(siteId, one);
    if (running.size > mostKept) running.delete(running.keys().next().value!);
    const started = performance.now();
    const forget = (): void => {
      if (running.get(siteId) === one) running.delete(siteId);
    };
    analysis
      .run(
        siteId,
        'proof',
        { state },
        { signal: one.stop.signal, onProgress: (progress) => Object.assign(one, progress) },
      )
      .then(
        (proof) => (one.result = { status: 'done', seconds: (performance.now() - started) / 1000, proof }),
        (error: Error) => {
          if (error instanceof Stopped) {
            forget();
            return;
          }
          const detail = error instanceof Refusal ? error.message : 'Something went wrong here; ask again.';
          one.result = { status: 'failed', detail: `The proof could not be computed. ${detail}` };
          // let a later request try again
          setTimeout(forget, 2000).unref();
        },
      );
    return one;
  }

  return {
    of(siteId, version, state) {
      const known = running.get(siteId);
      const one = known?.version === version && !known.stop.signal.aborted ? known : start(siteId, version, state);
      return one.result ?? { status: 'running', done: one.done, total: one.total };
    },
    overtaken(siteId) {
      const one = running.get(siteId);
      if (one && !one.result) one.stop.abort();
    },
  };
}
