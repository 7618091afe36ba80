import { EventEmitter } from 'node:events';
import { Logger, run, runMigrations, type Runner, type RunnerOptions, type WorkerEvents } from 'graphile-worker';
import pg from 'pg';
import type { Sequelize, Transaction } from 'sequelize';
import { whereIs } from './standingConnection.ts';

/** What jobs hold: the id of the row they are about. A job whose row is gone is nothing to do. */
export type Job = (id: string, signal: AbortSignal) => Promise<void>;

export type JobName = 'import' | 'site-task';

export interface Taking {
  readonly jobs: Partial<Readonly<Record<JobName, Job>>>;
  readonly atOnce: number;
  /** Lanes that are left to others. */
  readonly passOver?: () => readonly string[];
  /** Told the names under which jobs are taken, and those under which none are any more. */
  readonly worksAs: (name: string) => void;
  readonly worksNoLonger: (name: string) => void;
  readonly warn: (error: unknown) => void;
}

/** Milliseconds between looks for jobs that nobody told of: those that came back to the queue. */
const between = 1000;
/** A job whose process ended in the middle is begun so often. */
export const attempts = 3;

/** Brings the tables of the queue to their newest form. */
export async function migrateQueue(sequelize: Sequelize): Promise<void> {
  const pool = poolOf(sequelize, 1);
  try {
    await runMigrations({ pgPool: pool, logger: quiet });
  } finally {
    await pool.end();
  }
}

/** Puts a job into the queue, with the transaction. Jobs of one lane are done one after the other. */
export async function addJob(
  sequelize: Sequelize,
  name: JobName,
  id: string,
  lane: string | undefined,
  transaction: Transaction,
): Promise<void> {
  await sequelize.query(
    `SELECT graphile_worker.add_job($1, payload := json_build_object('id', $2::text), job_key := $2, max_attempts := $3,
       queue_name := $4::text, flags := CASE WHEN $4::text IS NULL THEN NULL ELSE ARRAY[$4::text] END)`,
    { bind: [name, id, attempts, lane ?? null], transaction },
  );
}

/** In SQL: the row of a table has no job that runs or may be taken still. */
export const hasNoJob = (table: string): string =>
  `NOT EXISTS (SELECT 1 FROM graphile_worker.jobs
     WHERE key = ${table}.id::text AND (locked_at IS NOT NULL OR attempts < max_attempts))`;

/**
 * Takes jobs as they come, until the returned way to stop is called: then none is begun any more. What takes them ends where the
 * database goes away in the middle, and is begun again.
 */
export async function takeJobs(sequelize: Sequelize, taking: Taking): Promise<() => Promise<void>> {
  const { atOnce, worksAs, worksNoLonger, warn } = taking;
  const pool = poolOf(sequelize, atOnce + 3);
  pool.on('error', warn);
  const runners = new Set<Runner>();
  let stopping = false;

  async function begin(): Promise<void> {
    const events = new EventEmitter() as WorkerEvents;
    let runner: Runner | undefined;
    let hasFailed = false;
    events.on('worker:create', ({ worker }) => worksAs(worker.workerId));
    events.on('worker:stop', ({ worker }) => worksNoLonger(worker.workerId));
    events.on('worker:fatalError', ({ worker }) => {
      worksNoLonger(worker.workerId);
      if (hasFailed) return;
      hasFailed = true;
      if (runner) void end(runner);
      void beginAgain();
    });
    runners.add((runner = await run({ ...optionsOf(taking), pgPool: pool, events })));
  }

  async function beginAgain(): Promise<void> {
    while (!stopping)
      try {
        await begin();
        return;
      } catch (error) {
        warn(error);
        await new Promise((done) => setTimeout(done, between));
      }
  }

  /** What it does is finished. */
  async function end(runner: Runner): Promise<void> {
    await runner.stop().catch(warn);
    runners.delete(runner);
  }

  await begin();
  return async () => {
    stopping = true;
    await Promise.all([...runners].map(end));
    await pool.end();
  };
}

const optionsOf = ({ jobs, atOnce, passOver }: Taking): RunnerOptions => ({
  logger: quiet,
  concurrency: atOnce,
  noHandleSignals: true,
  pollInterval: between,
  parsedCronItems: [],
  ...(passOver ? { forbiddenFlags: () => [...passOver()] } : {}),
  taskList: Object.fromEntries(
    Object.entries(jobs).map(([name, job]) => [
      name,
      (payload: unknown, { abortSignal }: { abortSignal?: AbortSignal }) =>
        job((payload as { id: string }).id, abortSignal ?? new AbortController().signal),
    ]),
  ),
});

const quiet = new Logger(() => () => undefined);

const poolOf = (sequelize: Sequelize, max: number): pg.Pool => new pg.Pool({ ...whereIs(sequelize), max });
