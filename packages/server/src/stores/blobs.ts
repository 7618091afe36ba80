import { ForeignKeyConstraintError, QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { each, type BlobBytes } from './blobBytes.ts';

/** The bytes of files, by their SHA-256. The database names them all, and holds them unless there is another store for them. */
export interface Blobs {
  /** Written, and used by the site from now on, inside the caller's transaction. */
  write(siteId: string, blobs: ReadonlyMap<string, Buffer>, transaction: Transaction): Promise<void>;
  /** Without those nobody ever wrote. */
  read(hashes: readonly string[]): Promise<ReadonlyMap<string, Buffer>>;
  sizes(hashes: readonly string[]): Promise<ReadonlyMap<string, number>>;
  /** Deletes those that no site uses. */
  purge(): Promise<void>;
}

const readAtOnce = 500;

export function makeBlobs(sequelize: Sequelize, elsewhere?: BlobBytes): Blobs {
  const select = <Row extends object>(sql: string, bind: unknown[] = [], transaction?: Transaction): Promise<Row[]> =>
    sequelize.query<Row>(sql, { bind, type: QueryTypes.SELECT, ...(transaction ? { transaction } : {}) });

  /**
   * Bytes that are there already are locked by "on conflict do update" until the transaction ends: a purge cannot take them away
   * before their use is written. Another store gets them under this lock.
   */
  async function writeSome(
    siteId: string,
    some: readonly (readonly [string, Buffer])[],
    transaction: Transaction,
  ): Promise<void> {
    const values = some.map((_, i) => `($${3 * i + 1}, $${3 * i + 2}, $${3 * i + 3}::bytea)`).join(', ');
    const bind = some.flatMap(([hash, bytes]) => [hash, bytes.length, elsewhere ? null : bytes]);
    const rows = await select<{ hash: string; outside: boolean }>(
      `INSERT INTO blob (hash, size, bytes) VALUES ${values} ON CONFLICT (hash) DO UPDATE SET size = EXCLUDED.size
       RETURNING hash, bytes IS NULL AS outside`,
      bind,
      transaction,
    );
    const outside = new Set(rows.flatMap((row) => (row.outside ? row.hash : [])));
    if (outside.size > 0) await putOutside(some.filter(([hash]) => outside.has(hash)));
    await select(
      'INSERT INTO blob_use (site_id, hash) SELECT $1, unnest($2::text[]) ON CONFLICT DO NOTHING',
      [siteId, some.map(([hash]) => hash)],
      transaction,
    );
  }

  const outsideFor = (hash: string): BlobBytes => {
    if (!elsewhere) throw new Error(`The bytes of ${hash} are in another store. BLOBS has to name it.`);
    return elsewhere;
  };
  const putOutside = (some: readonly (readonly [string, Buffer])[]): Promise<void> => outsideFor(some[0]![0]).put(some);

  return {
    async write(siteId, blobs, transaction) {
      let batch: [string, Buffer][] = [];
      let size = 0;
      const flush = async (): Promise<void> => {
        if (batch.length > 0) await writeSome(siteId, batch, transaction);
        batch = [];
        size = 0;
      };
      // one order for all writers, so that two saves never wait for each other
      for (const entry of [...blobs].sort((a, b) => (a[0] < b[0] ? -1 : 1))) {
        batch.push(entry);
        size += entry[1].length;
        if (batch.length >= 200 || size > 8_000_000) await flush();
      }
      await flush();
    },
    async read(hashes) {
      const out = new Map<string, Buffer>();
      const wanted = [...new Set(hashes)];
      for (let i = 0; i < wanted.length; i += readAtOnce) {
        const rows = await select<{ hash: string; bytes: Buffer | null }>(
          'SELECT hash, bytes FROM blob WHERE hash = ANY($1)',
          [wanted.slice(i, i + readAtOnce)],
        );
        await each(rows, async ({ hash, bytes }) => {
          out.set(hash, bytes ?? (await outsideFor(hash).get(hash)));
        });
      }
      return out;
    },
    async sizes(hashes) {
      const rows = await select<{ hash: string; size: number }>('SELECT hash, size FROM blob WHERE hash = ANY($1)', [
        [...new Set(hashes)],
      ]);
      return new Map(rows.map(({ hash, size }) => [hash, size]));
    },
    /**
     * Bytes that a write under way holds are passed over. Should a use be written between looking and deleting, the foreign key refuses
     * the whole statement: then they stay until the next time.
     */
    async purge() {
      const unused = `SELECT hash FROM blob WHERE NOT EXISTS (SELECT 1 FROM blob_use WHERE blob_use.hash = blob.hash)
        LIMIT 500 FOR UPDATE SKIP LOCKED`;
      try {
        for (let gone = 1; gone > 0;)
          gone = await sequelize.transaction(async (transaction) => {
            const rows = await select<{ hash: string }>(
              `DELETE FROM blob WHERE hash IN (${unused}) RETURNING hash`,
              [],
              transaction,
            );
            // before the rows are gone for others: who writes one of them anew waits, and puts it there again
            if (rows.length > 0) await elsewhere?.drop(rows.map(({ hash }) => hash));
            return rows.length;
          });
      } catch (error) {
        if (!(error instanceof ForeignKeyConstraintError)) throw error;
      }
    },
  };
}
