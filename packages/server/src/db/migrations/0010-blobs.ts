import type { QueryInterface } from 'sequelize';
import type { RunnableMigration } from 'umzug';

/** Bytes may be kept outside the database; it names them all the same. */
export const blobs: RunnableMigration<QueryInterface> = {
  name: '0010-blobs',
  async up({ context: query }) {
    await query.sequelize.query('ALTER TABLE blob ALTER COLUMN bytes DROP NOT NULL');
  },
  async down({ context: query }) {
    await query.sequelize.query('ALTER TABLE blob ALTER COLUMN bytes SET NOT NULL');
  },
};
