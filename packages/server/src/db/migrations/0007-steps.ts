import { DataTypes, type QueryInterface } from 'sequelize';
import type { RunnableMigration } from 'umzug';

/** What each revision did, operation by operation, and what its author wrote about a change of look. */
export const steps: RunnableMigration<QueryInterface> = {
  name: '0007-steps',
  async up({ context: query }) {
    await query.addColumn('revision', 'steps', { type: DataTypes.JSONB, allowNull: false, defaultValue: [] });
    await query.addColumn('revision', 'note', { type: DataTypes.TEXT, allowNull: false, defaultValue: '' });
  },
  async down({ context: query }) {
    await query.removeColumn('revision', 'steps');
    await query.removeColumn('revision', 'note');
  },
};
