import { randomUUID } from 'node:crypto';
import type { DraftProofReply, Follow } from '@syndeton/contract';
import type { Analysis } from '../../analysis/analysis.ts';
import type { SiteState } from '../../analysis/tasks.ts';
import { Refusal } from '../../http/refusal.ts';
import type { Signals } from '../../db/signals.ts';
import { Stopped } from '../../analysis/siteThreads.ts';

export interface Proofs {
  /** The proof of a draft's version, or how far it is; it is begun when nobody asked before. */
  of(siteId: string, version: number, state: SiteState): DraftProofReply;
  /** Tells of the proof now and whenever it has come further, until it is done or a newer draft has overtaken it. */
  follow(siteId: string, version: number, state: SiteState): Follow<DraftProofReply>;
  /** A newer draft is on its way: what runs for an older one ends. */
  overtaken(siteId: string): void;
}

interface Running {
  readonly version: number;
  readonly stop: AbortController;
  done: number;
  total: number;
  result: DraftProofReply | undefined;
  /** Called when it has come further, and when it has ended. */
  readonly listeners: Set<() => void>;
}

/** Sites whose last proof is kept. */
const mostKept = 30;

/** Where processes tell each other that a newer draft of a site is on its way. */
const channel = 'draft_overtaken';

/** One proof a site: of the version of its draft asked for last. */
export function makeProofs(analysis: Analysis, signals: Signals): Proofs {
  const running = new Map<string, Running>();
  const ours = randomUUID();
  signals.on(channel, (told) => {
    const [from, siteId] = told?.split(' ') ?? [];
    if (siteId !== undefined && from !== ours) end(siteId);
  });

  function end(siteId: string): void {
    const one = running.get(siteId);
    if (one && !one.result) one.stop.abort();
  }

  function start(siteId: string, version: number, state: SiteState): Running {
    running.get(siteId)?.stop.abort();
    running.delete(siteId);
    const one: Running = {
      version,
      stop: new AbortController(),
      done: 0,
      total: 0,
      result: undefined,
      listeners: new Set(),
    };
    running.set(siteId, one);
    if (running.size > mostKept) running.delete(running.keys().next().value!);
    const started = performance.now();
    const forget = (): void => {
      if (running.get(siteId) === one) running.delete(siteId);
    };
    analysis
      .run(siteId, 'proof', { state }, { signal: one.stop.signal, onProgress: (progress) => tell(one, progress) })
      .then(
        (proof) => tell(one, { result: { status: 'done', seconds: (performance.now() - started) / 1000, proof } }),
        (error: Error) => {
          if (error instanceof Stopped) {
            forget();
            tell(one, {});
            return;
          }
          const detail = error instanceof Refusal ? error.message : 'Something went wrong here; ask again.';
          tell(one, { result: { status: 'failed', detail: `The proof could not be computed. ${detail}` } });
          // let a later request try again
          setTimeout(forget, 2000).unref();
        },
      );
    return one;
  }

  function find(siteId: string, version: number, state: SiteState): Running {
    const known = running.get(siteId);
    return known?.version === version && !known.stop.signal.aborted ? known : start(siteId, version, state);
  }

  return {
    of: (siteId, version, state) => replyOf(find(siteId, version, state)),
    follow: (siteId, version, state) => (say, end) => {
      const one = find(siteId, version, state);
      const listen = (): void => {
        if (!one.stop.signal.aborted) say(replyOf(one));
        if (one.result || one.stop.signal.aborted) end();
      };
      one.listeners.add(listen);
      listen();
      return () => one.listeners.delete(listen);
    },
    overtaken(siteId) {
      end(siteId);
      // elsewhere it would be computed to its end before the draft's turn
      signals.tell(channel, `${ours} ${siteId}`).catch(() => undefined);
    },
  };
}

const replyOf = ({ result, done, total }: Running): DraftProofReply => result ?? { status: 'running', done, total };

function tell(one: Running, change: Partial<Running>): void {
  Object.assign(one, change);
  for (const listener of [...one.listeners]) listener();
}
