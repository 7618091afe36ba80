import { DataTypes, type QueryInterface } from 'sequelize';
import type { RunnableMigration } from 'umzug';

/** Sites on their way in, so that one that a restart ended is told of. */
export const imports: RunnableMigration<QueryInterface> = {
  name: '0005-imports',
  async up({ context: query }) {
    await query.createTable('import', {
      id: { type: DataTypes.UUID, primaryKey: true },
      reply: { type: DataTypes.JSONB, allowNull: false },
      running: { type: DataTypes.BOOLEAN, allowNull: false },
      updated_at: { type: DataTypes.DATE, allowNull: false },
    });
  },
  async down({ context: query }) {
    await query.dropTable('import');
  },
};
