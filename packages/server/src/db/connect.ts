import { Sequelize, type QueryInterface } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import { imports } from './migrations/0005-imports.ts';
import { decisions } from './migrations/0006-decisions.ts';
import { people } from './migrations/0008-people.ts';
import { blobs } from './migrations/0010-blobs.ts';
import { processes } from './migrations/0009-processes.ts';
import { steps } from './migrations/0007-steps.ts';
import { inventory } from './migrations/0002-inventory.ts';
import { notes } from './migrations/0003-notes.ts';
import { sites } from './migrations/0001-sites.ts';
import { versions } from './migrations/0004-versions.ts';
import { defineModels } from './models.ts';
import { migrateQueue } from './queue.ts';

export function connect(url: string, connections = 10): Sequelize {
  const sequelize = new Sequelize(url, {
    dialect: 'postgres',
    logging: false,
    pool: { max: connections, min: 0, idle: 10_000 },
  });
  defineModels(sequelize);
  return sequelize;
}

/** Brings the database to the newest schema, or to the one a migration leaves. Several servers may start at once: an advisory lock lets one do it. */
export async function migrate(sequelize: Sequelize, to?: string): Promise<void> {
  await sequelize.transaction(async (transaction) => {
    await sequelize.query('SELECT pg_advisory_xact_lock(4870)', { transaction });
    const umzug = new Umzug<QueryInterface>({
      migrations: [sites, inventory, notes, versions, imports, decisions, steps, people, processes, blobs],
      context: sequelize.getQueryInterface(),
      storage: new SequelizeStorage({ sequelize, tableName: 'schema_migration' }),
      logger: undefined,
    });
    await umzug.up(to === undefined ? {} : { to });
  });
  await migrateQueue(sequelize);
}
