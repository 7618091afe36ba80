import { getHeapStatistics } from 'node:v8';
import type { MessagePort } from 'node:worker_threads';
import { connect } from '../db/connect.ts';
import { databaseTrouble } from '../db/databaseTrouble.ts';
import { openBlobBytes } from '../stores/blobBytes.ts';
import type { ThreadData } from './analysis.ts';
import { makeBlobs } from '../stores/blobs.ts';
import { makeSequelizeRevisionStore } from '../stores/sequelizeRevisionStore.ts';
import { Refusal } from '../http/refusal.ts';
import { ThreadPartner } from './threadPartner.ts';
import { Stopped, type Order, type Report } from './siteThreads.ts';
import { makeSiteTasks } from './siteTasks.ts';
import type { Step } from './tasks.ts';

type SiteTasks = ReturnType<typeof makeSiteTasks>;

/** The thread's end of `SiteThreads`: one order at a time, answered by data alone; a refusal keeps its code. */
export function serveSites(data: ThreadData, port: MessagePort): void {
  const { databaseUrl, blobs } = data;
  const sequelize = connect(databaseUrl, 2);
  const revisions = makeSequelizeRevisionStore(sequelize, makeBlobs(sequelize, blobs && openBlobBytes(blobs)));
  const partner = new ThreadPartner(data.heap);
  let held: { readonly site: string; readonly tasks: SiteTasks } | undefined;

  port.on('message', (order: Order) => {
    // another site's pages are let go before this one's are read
    if (held?.site !== order.site) {
      partner.letGo();
      held = { site: order.site, tasks: makeSiteTasks(revisions, partner) };
    }
    void answer(order, held.tasks, port).then((report) =>
      port.postMessage({ ...report, heap: getHeapStatistics().total_physical_size }),
    );
  });
}

async function answer(order: Order, tasks: SiteTasks, port: MessagePort): Promise<Report> {
  const { id, name, input } = order;
  try {
    const task = tasks[name as keyof typeof tasks] as (input: unknown, step: Step) => Promise<unknown>;
    return { id, kind: 'done', value: await task(input, stepOf(order, port)) };
  } catch (error) {
    if (error instanceof Stopped) return { id, kind: 'stopped' };
    const refusal = error instanceof Refusal ? error : databaseTrouble(error);
    if (refusal) return { id, kind: 'refused', code: refusal.code, message: refusal.message };
    return { id, kind: 'error', error: error instanceof Error ? error : new Error(String(error)) };
  }
}

/** Ten times a second at most. */
function stepOf({ id, stop }: Order, port: MessagePort): Step {
  const stopped = new Int32Array(stop);
  let last = 0;
  return (done, total, rules, proving) => {
    if (Atomics.load(stopped, 0) !== 0) throw new Stopped();
    const now = Date.now();
    if (now - last < 100 && done < total) return;
    last = now;
    const progress = { done, total, ...(rules === undefined ? {} : { rules }), ...(proving ? { proving } : {}) };
    port.postMessage({ id, kind: 'progress', progress } satisfies Report);
  };
}
