import { DataTypes, type QueryInterface } from 'sequelize';
import type { RunnableMigration } from 'umzug';

/** What a revision's survey said is kept with it; removed sites stay for a while. */
export const inventory: RunnableMigration<QueryInterface> = {
  name: '0002-inventory',
  async up({ context: query }) {
    await query.sequelize.transaction(async (transaction) => {
      await query.addColumn('site', 'removed_at', { type: DataTypes.DATE, allowNull: true }, { transaction });
      await query.createTable(
        'inventory',
        {
          site_id: {
            type: DataTypes.UUID,
            primaryKey: true,
            references: { model: 'site', key: 'id' },
            onDelete: 'CASCADE',
          },
          number: { type: DataTypes.INTEGER, primaryKey: true },
          version: { type: DataTypes.INTEGER, allowNull: false },
          survey: { type: DataTypes.BLOB, allowNull: false },
          families: { type: DataTypes.BLOB, allowNull: false },
          sheets: { type: DataTypes.JSONB, allowNull: false },
        },
        { transaction },
      );
    });
  },
  async down({ context: query }) {
    await query.dropTable('inventory');
    await query.removeColumn('site', 'removed_at');
  },
};
