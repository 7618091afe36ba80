import { DataTypes, type QueryInterface } from 'sequelize';
import type { RunnableMigration } from 'umzug';

/** What people decided about a site that no file of it says, kept with each revision. */
export const decisions: RunnableMigration<QueryInterface> = {
  name: '0006-decisions',
  async up({ context: query }) {
    await query.addColumn('revision', 'decisions', {
      type: DataTypes.JSONB,
      allowNull: false,
      defaultValue: { absent: [], leftOut: [] },
    });
  },
  async down({ context: query }) {
    await query.removeColumn('revision', 'decisions');
  },
};
