import { DataTypes, type QueryInterface } from 'sequelize';
import type { RunnableMigration } from 'umzug';

/** Why overrides are kept, by the override's id. */
export const notes: RunnableMigration<QueryInterface> = {
  name: '0003-notes',
  async up({ context: query }) {
    await query.addColumn('site', 'notes', { type: DataTypes.JSONB, allowNull: false, defaultValue: {} });
  },
  async down({ context: query }) {
    await query.removeColumn('site', 'notes');
  },
};
