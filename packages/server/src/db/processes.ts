import { QueryTypes, type Sequelize } from 'sequelize';
import { keepConnection } from './standingConnection.ts';

/** This process among those that work on one database. */
export interface Processes {
  readonly id: number;
  /** A name under which it takes jobs: they go back to the queue when it is gone. */
  readonly worksAs: (name: string) => void;
  /** What was taken under a name and not ended goes back to the queue now. */
  readonly worksNoLonger: (name: string) => void;
  /** The numbers of all that are there, as they were looked at last. */
  all(): ReadonlySet<number>;
  /** Whether any takes jobs. */
  someWork(): Promise<boolean>;
  /** What it has not done goes back to the queue. */
  leave(): Promise<void>;
}

/** Of advisory locks: each process holds the one of its number as long as it is there. PostgreSQL, "Advisory Locks". */
const space = 4871;
/** Milliseconds between looks for those that are gone; who was not there so many times is. */
const between = 2000;
const looks = 3;

export async function joinProcesses(sequelize: Sequelize, warn: (error: unknown) => void): Promise<Processes> {
  const select = <Row extends object>(sql: string, bind: unknown[] = []): Promise<Row[]> =>
    sequelize.query<Row>(sql, { bind, type: QueryTypes.SELECT });
  const [first] = await select<{ id: number }>('INSERT INTO process DEFAULT VALUES RETURNING id');
  const { id } = first!;
  const names = new Set<string>();
  const dropped = new Set<string>();
  let there: ReadonlySet<number> = new Set([id]);
  const missed = new Map<number, number>();

  /** Also when it was taken for gone because the connection was. */
  const write = (): Promise<unknown> =>
    select('INSERT INTO process (id, workers) VALUES ($1, $2) ON CONFLICT (id) DO UPDATE SET workers = $2', [
      id,
      [...names],
    ]);
  const connection = keepConnection(
    sequelize,
    async (client) => {
      await client.query('SELECT pg_advisory_lock($1, $2)', [space, id]);
      await write();
    },
    warn,
  );

  async function unlockDropped(): Promise<void> {
    const all = [...dropped];
    if (all.length === 0) return;
    await select('SELECT graphile_worker.force_unlock_workers($1::text[])', [all]);
    all.forEach((name) => dropped.delete(name));
    await write();
  }

  async function look(): Promise<void> {
    await unlockDropped();
    const rows = await select<{ id: number; held: boolean }>(
      `SELECT id, EXISTS (SELECT 1 FROM pg_locks WHERE locktype = 'advisory' AND classid = $1 AND objid = process.id
         AND database = (SELECT oid FROM pg_database WHERE datname = current_database())) AS held FROM process`,
      [space],
    );
    there = new Set(rows.map((row) => row.id));
    for (const row of rows) {
      const times = row.held || row.id === id ? 0 : (missed.get(row.id) ?? 0) + 1;
      missed.set(row.id, times);
      if (times >= looks) await takeOut(sequelize, row.id);
    }
    for (const known of missed.keys()) if (!there.has(known)) missed.delete(known);
  }

  const timer = setInterval(() => void look().catch(warn), between).unref();
  return {
    id,
    worksAs(name) {
      names.add(name);
      write().catch(warn);
    },
    worksNoLonger(name) {
      if (!names.delete(name)) return;
      dropped.add(name);
      // where the database is away it is tried again with the next look
      unlockDropped().catch(() => undefined);
    },
    all: () => there,
    async someWork() {
      return (await select('SELECT 1 FROM process WHERE cardinality(workers) > 0 LIMIT 1')).length > 0;
    },
    async leave() {
      clearInterval(timer);
      await takeOut(sequelize, id);
      await connection.close();
    },
  };
}

/** Its jobs go back to the queue; what it asked for nobody waits for. */
async function takeOut(sequelize: Sequelize, id: number): Promise<void> {
  await sequelize.transaction(async (transaction) => {
    const gone = await sequelize.query<{ workers: string[] }>('DELETE FROM process WHERE id = $1 RETURNING workers', {
      bind: [id],
      type: QueryTypes.SELECT,
      transaction,
    });
    for (const { workers } of gone)
      await sequelize.query('SELECT graphile_worker.force_unlock_workers($1::text[])', {
        bind: [workers],
        transaction,
      });
    await sequelize.query('DELETE FROM site_task WHERE process_id = $1', { bind: [id], transaction });
  });
}
