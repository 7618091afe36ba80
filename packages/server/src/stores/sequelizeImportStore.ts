import fs from 'node:fs';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import type { ImportReply } from '@syndeton/contract';
import { addJob, hasNoJob } from '../db/queue.ts';
import type { Signals } from '../db/signals.ts';
import type { Person } from '../people/whoAsks.ts';
import { Overtaken, type AskedImport, type ImportAttempt, type ImportRecord, type ImportStore } from './importStore.ts';

const channel = 'import_changed';
/** Bytes of an archive in one row. */
const partBytes = 4_000_000;

type Row = Omit<ImportRecord, 'by'> & { readonly by: Person | null };
const recordOf = ({ reply, by }: Row): ImportRecord => ({ reply, by: by ?? undefined });

export function makeSequelizeImportStore(sequelize: Sequelize, signals: Pick<Signals, 'on'>): ImportStore {
  const select = <One extends object>(sql: string, bind: unknown[], transaction?: Transaction): Promise<One[]> =>
    sequelize.query<One>(sql, { bind, type: QueryTypes.SELECT, ...(transaction ? { transaction } : {}) });
  /** A statement that changes imports and returns their ids, each told of. */
  const change = (sql: string, bind: unknown[]): Promise<object[]> =>
    select(`WITH changed AS (${sql}) SELECT pg_notify('${channel}', id::text) FROM changed`, bind);

  return {
    async add(reply, asked, by, archive) {
      await sequelize.transaction(async (transaction) => {
        const { id } = reply;
        const bind = [id, JSON.stringify(reply), JSON.stringify(asked), by ? JSON.stringify(by) : null];
        await select(
          `INSERT INTO import (id, reply, asked, "by", running, updated_at) VALUES ($1, $2, $3, $4, true, now())`,
          bind,
          transaction,
        );
        let part = 0;
        for await (const bytes of fs.createReadStream(archive, { highWaterMark: partBytes }) as AsyncIterable<Buffer>)
          await select(
            'INSERT INTO import_part (import_id, part, bytes) VALUES ($1, $2, $3)',
            [id, part++, bytes],
            transaction,
          );
        await addJob(sequelize, 'import', id, undefined, transaction);
        await select(`SELECT pg_notify('${channel}', $1)`, [id], transaction);
      });
    },
    async list(after) {
      const rows = await select<Row>(
        'SELECT reply, "by" FROM import WHERE running OR updated_at > $1 ORDER BY updated_at',
        [after],
      );
      return rows.map(recordOf);
    },
    async find(id) {
      const [row] = await select<Row>('SELECT reply, "by" FROM import WHERE id = $1', [id]);
      return row && recordOf(row);
    },
    async begin(id) {
      await change(
        `UPDATE import SET running = false, updated_at = now(), reply = reply || '{"status": "stopped"}' WHERE id = $1 AND running AND stopped RETURNING id`,
        [id],
      );
      const [row] = await select<{ attempt: number; asked: AskedImport; by: Person | null }>(
        `UPDATE import SET attempt = attempt + 1, updated_at = now(), reply = reply || '{"status": "reading", "done": 0, "total": 0, "rules": 0}'
         WHERE id = $1 AND running RETURNING attempt, asked, "by"`,
        [id],
      );
      return row && { id, attempt: row.attempt, ...row.asked, by: row.by ?? undefined };
    },
    async *archive(id) {
      for (let part = 0; ; part++) {
        const [row] = await select<{ bytes: Buffer }>(
          'SELECT bytes FROM import_part WHERE import_id = $1 AND part = $2',
          [id, part],
        );
        if (!row) return;
        yield row.bytes;
      }
    },
    async isStopped(id) {
      const [row] = await select<{ stopped: boolean }>('SELECT stopped FROM import WHERE id = $1', [id]);
      return row?.stopped ?? true;
    },
    async tell({ id, attempt }, said) {
      await change(
        'UPDATE import SET updated_at = now(), reply = reply || $3 WHERE id = $1 AND attempt = $2 AND running RETURNING id',
        [id, attempt, JSON.stringify(said)],
      );
    },
    async end(attempt, said) {
      await sequelize.transaction((transaction) => endImport(sequelize, attempt, said, transaction));
    },
    async stop(id) {
      await change(
        `UPDATE import SET stopped = true, running = attempt > 0, updated_at = now(),
           reply = CASE WHEN attempt > 0 THEN reply ELSE reply || '{"status": "stopped"}' END
         WHERE id = $1 AND running RETURNING id`,
        [id],
      );
    },
    async endLost(said) {
      await change(
        `UPDATE import SET running = false, updated_at = now(), reply = reply || $1
         WHERE running AND ${hasNoJob('import')} RETURNING id`,
        [JSON.stringify(said)],
      );
    },
    onChange: (listener) => signals.on(channel, listener),
    async drop(before) {
      await select('DELETE FROM import WHERE NOT running AND updated_at < $1', [before]);
    },
  };
}

/** Inside the caller's transaction: what an attempt did counts with the end of its import, or not at all. */
export async function endImport(
  sequelize: Sequelize,
  { id, attempt }: ImportAttempt,
  said: Partial<ImportReply>,
  transaction: Transaction,
): Promise<void> {
  const ended = await sequelize.query(
    `WITH gone AS (DELETE FROM import_part WHERE import_id = $1)
     UPDATE import SET running = false, updated_at = now(), reply = reply || $3 WHERE id = $1 AND attempt = $2 AND running
     RETURNING pg_notify('${channel}', id::text)`,
    { bind: [id, attempt, JSON.stringify(said)], type: QueryTypes.SELECT, transaction },
  );
  if (ended.length === 0) throw new Overtaken();
}
