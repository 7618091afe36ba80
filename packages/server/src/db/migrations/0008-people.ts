import type { QueryInterface } from 'sequelize';
import type { RunnableMigration } from 'umzug';

/** People who may sign in, what stands for them, and what they may do with which site; revisions say who saved them. */
export const people: RunnableMigration<QueryInterface> = {
  name: '0008-people',
  async up({ context: query }) {
    await query.sequelize.query(`
      CREATE TABLE person (
        id uuid PRIMARY KEY, name text NOT NULL, password text NOT NULL,
        is_administrator boolean NOT NULL, created_at timestamptz NOT NULL);
      CREATE UNIQUE INDEX person_name ON person (lower(name));
      CREATE TABLE pass (
        id uuid PRIMARY KEY, hash text NOT NULL UNIQUE, person_id uuid NOT NULL REFERENCES person ON DELETE CASCADE,
        label text, ends_at timestamptz, created_at timestamptz NOT NULL);
      CREATE INDEX pass_person ON pass (person_id);
      CREATE TABLE site_right (
        site_id uuid NOT NULL REFERENCES site ON DELETE CASCADE, person_id uuid NOT NULL REFERENCES person ON DELETE CASCADE,
        "right" text NOT NULL CHECK ("right" IN ('read', 'edit', 'own')), PRIMARY KEY (site_id, person_id));
      CREATE INDEX site_right_person ON site_right (person_id);
      ALTER TABLE revision ADD COLUMN "by" text NOT NULL DEFAULT '';`);
  },
  async down({ context: query }) {
    await query.sequelize.query('ALTER TABLE revision DROP COLUMN "by"; DROP TABLE site_right, pass, person;');
  },
};
