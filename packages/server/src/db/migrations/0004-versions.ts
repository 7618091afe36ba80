import { DataTypes, type QueryInterface } from 'sequelize';
import type { RunnableMigration } from 'umzug';

/**
 * Drafts get a version that every write names, with the lists they held before and those that came too late; which site uses which
 * bytes is a table with foreign keys, so that bytes somebody is about to name cannot be deleted.
 */
export const versions: RunnableMigration<QueryInterface> = {
  name: '0004-versions',
  async up({ context: query }) {
    await query.sequelize.transaction(async (transaction) => {
      const options = { transaction };
      const site = () => ({
        type: DataTypes.UUID,
        allowNull: false,
        references: { model: 'site', key: 'id' },
        onDelete: 'CASCADE',
      });
      const integer = () => ({ type: DataTypes.INTEGER, allowNull: false });
      const json = () => ({ type: DataTypes.JSONB, allowNull: false });
      const date = () => ({ type: DataTypes.DATE, allowNull: false });
      const hash = {
        type: DataTypes.TEXT,
        allowNull: false,
        primaryKey: true,
        references: { model: 'blob', key: 'hash' },
        onDelete: 'RESTRICT',
      };
      await query.createTable('blob_use', { site_id: { ...site(), primaryKey: true }, hash }, options);
      await query.addIndex('blob_use', ['hash'], options);
      await query.sequelize.query(
        `INSERT INTO blob_use (site_id, hash)
         SELECT site_id, value FROM revision, jsonb_each_text(manifest)
         UNION
         SELECT id, one->>'hash' FROM site, jsonb_array_elements(left_out) AS one WHERE one->>'hash' IS NOT NULL`,
        options,
      );
      await query.addColumn('site', 'draft_version', { ...integer(), defaultValue: 0 }, options);
      await query.sequelize.query('UPDATE site SET draft_version = 1 WHERE id IN (SELECT site_id FROM draft)', options);
      const past = {
        site_id: { ...site(), primaryKey: true },
        version: { ...integer(), primaryKey: true },
        base: integer(),
        operations: json(),
        updated_at: date(),
      };
      await query.createTable('draft_version', past, options);
      await query.sequelize.query(
        `INSERT INTO draft_version (site_id, version, base, operations, updated_at)
         SELECT site_id, 1, base, operations, updated_at FROM draft`,
        options,
      );
      await query.dropTable('draft', options);
      const late = {
        id: { type: DataTypes.UUID, primaryKey: true },
        site_id: site(),
        made_on: integer(),
        operations: json(),
        updated_at: date(),
      };
      await query.createTable('draft_late', late, options);
    });
  },
  async down({ context: query }) {
    const text = `CREATE TABLE draft AS SELECT site_id, base, operations, updated_at FROM draft_version
      JOIN site ON id = site_id AND version = draft_version`;
    await query.sequelize.query(text);
    for (const table of ['draft_late', 'draft_version', 'blob_use']) await query.dropTable(table);
    await query.removeColumn('site', 'draft_version');
  },
};
