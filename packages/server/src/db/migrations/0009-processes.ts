import type { QueryInterface } from 'sequelize';
import type { RunnableMigration } from 'umzug';

/**
 * Which processes work on this database, what they ask of each other about sites (worth nothing once they are gone, so it is not
 * logged), and archives on their way in, so that another process can go on with an import.
 */
export const processes: RunnableMigration<QueryInterface> = {
  name: '0009-processes',
  async up({ context: query }) {
    await query.sequelize.query(`
      CREATE TABLE process (
        id serial PRIMARY KEY, workers text[] NOT NULL DEFAULT '{}', started_at timestamptz NOT NULL DEFAULT now());
      CREATE UNLOGGED TABLE site_task (
        id uuid PRIMARY KEY, process_id integer NOT NULL, site text NOT NULL, name text NOT NULL, input bytea NOT NULL, reply bytea);
      CREATE INDEX site_task_process ON site_task (process_id);
      ALTER TABLE import ADD COLUMN "by" jsonb, ADD COLUMN asked jsonb NOT NULL DEFAULT '{}',
        ADD COLUMN stopped boolean NOT NULL DEFAULT false, ADD COLUMN attempt integer NOT NULL DEFAULT 0;
      CREATE TABLE import_part (
        import_id uuid NOT NULL REFERENCES import ON DELETE CASCADE, part integer NOT NULL, bytes bytea NOT NULL,
        PRIMARY KEY (import_id, part));
      ALTER TABLE import_part ALTER COLUMN bytes SET STORAGE EXTERNAL;`);
  },
  async down({ context: query }) {
    await query.sequelize.query(`
      DROP TABLE import_part, site_task, process;
      ALTER TABLE import DROP COLUMN "by", DROP COLUMN asked, DROP COLUMN stopped, DROP COLUMN attempt;`);
  },
};
