import type { Logger } from 'pino';
import type { Sequelize } from 'sequelize';
import { startAnalysis, type Analysis } from './analysis/analysis.ts';
import type { ThreadLimits } from './analysis/siteThreads.ts';
import { connect, migrate } from './db/connect.ts';
import { joinProcesses } from './db/processes.ts';
import { takeJobs } from './db/queue.ts';
import { makeSignals } from './db/signals.ts';
import { makeQueuedAnalysis } from './jobs/queuedAnalysis.ts';
import { makeSiteTaskWork } from './jobs/siteTaskJob.ts';
import { archivesAtOnce, makeServices, type Services } from './services.ts';
import { openBlobBytes, type BlobPlace } from './stores/blobBytes.ts';
import { makeBlobs } from './stores/blobs.ts';
import { makeSequelizeSiteTaskStore } from './stores/sequelizeSiteTaskStore.ts';

/** `all`: the only process on its database; else some answer requests (`serve`) and some compute (`worker`), as many as you like of each. */
export const roles = ['all', 'serve', 'worker'] as const;
export type Role = (typeof roles)[number];

export interface RunningProcess {
  readonly sequelize: Sequelize;
  readonly analysis: Analysis;
  readonly services: Services;
  /** Nothing is begun any more; what runs is finished, `seconds` long at most. */
  finish(seconds: number): Promise<void>;
  /** What was not finished goes back to the queue; the database is let go. */
  leave(): Promise<void>;
}

interface Parts {
  readonly databaseUrl: string;
  /** Where bytes of files are kept, if not in the database. */
  readonly blobs?: BlobPlace | undefined;
  readonly role: Role;
  readonly log: Logger;
  readonly limits: ThreadLimits;
}

const tidyEvery = 15_000;

/** Everything of a process but the requests it answers: its database, what it computes, the jobs it takes. */
export async function startProcess({ databaseUrl, blobs, role, log, limits }: Parts): Promise<RunningProcess> {
  const warn = (error: unknown): void => log.warn(error, 'the database is away');
  const sequelize = connect(databaseUrl);
  await migrate(sequelize);
  const signals = makeSignals(sequelize, warn);
  const processes = await joinProcesses(sequelize, warn);
  const store = makeSequelizeSiteTaskStore(sequelize);
  const analysis =
    role === 'serve'
      ? makeQueuedAnalysis({ store, signals, processes, warn })
      : startAnalysis({ databaseUrl, blobs }, limits);
  const services = makeServices({
    sequelize,
    blobs: makeBlobs(sequelize, blobs && openBlobBytes(blobs)),
    analysis,
    signals,
    log,
  });
  const ends: (() => Promise<void>)[] = [];
  const { worksAs, worksNoLonger } = processes;
  const taking = { worksAs, worksNoLonger, warn };
  if (role !== 'serve')
    ends.push(await takeJobs(sequelize, { ...taking, jobs: { import: services.importJob }, atOnce: archivesAtOnce }));
  if (role === 'worker') {
    const atOnce = limits.threads;
    const work = makeSiteTaskWork({ store, signals, processes, analysis, atOnce, warn });
    ends.push(
      await takeJobs(sequelize, { ...taking, jobs: { 'site-task': work.job }, atOnce, passOver: work.heldElsewhere }),
    );
  }
  const tidy = setInterval(() => void services.imports.tidy().catch(warn), tidyEvery).unref();
  await services.imports.tidy();
  return {
    sequelize,
    analysis,
    services,
    async finish(seconds) {
      clearInterval(tidy);
      const ended = Promise.all(ends.map((end) => end()));
      await analysis.close(seconds);
      // a job that is left to others never ends here
      await Promise.race([ended, new Promise((done) => setTimeout(done, 500))]);
    },
    async leave() {
      await processes.leave().catch(warn);
      await signals.close();
      await sequelize.close();
    },
  };
}
