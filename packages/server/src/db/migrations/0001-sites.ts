import { DataTypes, type QueryInterface } from 'sequelize';
import type { RunnableMigration } from 'umzug';

// made anew for each column: Sequelize writes into them
const text = () => ({ type: DataTypes.TEXT, allowNull: false });
const integer = () => ({ type: DataTypes.INTEGER, allowNull: false });
const json = () => ({ type: DataTypes.JSONB, allowNull: false });
const date = () => ({ type: DataTypes.DATE, allowNull: false });

export const sites: RunnableMigration<QueryInterface> = {
  name: '0001-sites',
  async up({ context: query }) {
    await query.sequelize.transaction(async (transaction) => {
      const siteId = () => ({
        type: DataTypes.UUID,
        allowNull: false,
        primaryKey: true,
        references: { model: 'site', key: 'id' },
        onDelete: 'CASCADE',
      });
      const site = {
        id: { type: DataTypes.UUID, primaryKey: true },
        name: text(),
        prefix: text(),
        head: integer(),
        left_out: json(),
        created_at: date(),
      };
      await query.createTable('site', site, { transaction });
      const blob = {
        hash: { type: DataTypes.TEXT, primaryKey: true },
        size: integer(),
        bytes: { type: DataTypes.BLOB, allowNull: false },
      };
      await query.createTable('blob', blob, { transaction });
      const revision = {
        site_id: siteId(),
        number: { ...integer(), primaryKey: true },
        parent: { type: DataTypes.INTEGER, allowNull: true },
        message: text(),
        manifest: json(),
        figures: json(),
        changed_files: integer(),
        created_at: date(),
      };
      await query.createTable('revision', revision, { transaction });
      await query.createTable(
        'draft',
        { site_id: siteId(), base: integer(), operations: json(), updated_at: date() },
        { transaction },
      );
    });
  },
  async down({ context: query }) {
    for (const table of ['draft', 'revision', 'blob', 'site']) await query.dropTable(table);
  },
};
