import { QueryTypes, type Sequelize } from 'sequelize';
import { addJob, hasNoJob } from '../db/queue.ts';
import type { AskedTask, SiteTaskStore } from './siteTaskStore.ts';

export function makeSequelizeSiteTaskStore(sequelize: Sequelize): SiteTaskStore {
  return {
    async ask({ id, asker, site, name, input }) {
      await sequelize.transaction(async (transaction) => {
        await sequelize.query('INSERT INTO site_task (id, process_id, site, name, input) VALUES ($1, $2, $3, $4, $5)', {
          bind: [id, asker, site, name, bufferOf(input)],
          transaction,
        });
        await addJob(sequelize, 'site-task', id, site, transaction);
      });
    },
    async find(id) {
      const [row] = await sequelize.query<AskedTask>(
        'SELECT id, process_id AS asker, site, name, input FROM site_task WHERE id = $1',
        { bind: [id], type: QueryTypes.SELECT },
      );
      return row;
    },
    async answer(id, reply) {
      await sequelize.query('UPDATE site_task SET reply = $2 WHERE id = $1', { bind: [id, bufferOf(reply)] });
    },
    async collect(id) {
      // one statement sees the row as it was: what is not answered stays
      const [row] = await sequelize.query<{ reply: Uint8Array | null }>(
        `WITH taken AS (DELETE FROM site_task WHERE id = $1 AND reply IS NOT NULL)
         SELECT reply FROM site_task WHERE id = $1`,
        { bind: [id], type: QueryTypes.SELECT },
      );
      return row === undefined ? undefined : (row.reply ?? 'waiting');
    },
    async lost(asker) {
      const rows = await sequelize.query<{ id: string }>(
        `SELECT id FROM site_task WHERE process_id = $1 AND reply IS NULL AND ${hasNoJob('site_task')}`,
        { bind: [asker], type: QueryTypes.SELECT },
      );
      return rows.map(({ id }) => id);
    },
    async drop(id) {
      await sequelize.query('DELETE FROM site_task WHERE id = $1', { bind: [id] });
    },
  };
}

const bufferOf = (bytes: Uint8Array): Buffer => Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
