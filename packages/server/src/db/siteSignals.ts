import pg from 'pg';
import type { Sequelize, Transaction } from 'sequelize';
import type { SiteModel } from './models.ts';

/** Tells, by PostgreSQL and so across all processes on it, that something about a site was changed. */
export interface SiteSignals {
  /** Called after each change that was committed, and when some may have been missed. Returns the way to stop. */
  on(siteId: string, listener: () => void): () => void;
}

const channel = 'site_changed';
/** Milliseconds until a lost connection is made again. */
const again = 1000;

/** With the transaction, not before: what is told of is there. PostgreSQL, "NOTIFY". */
export async function tellSiteChanged(site: SiteModel, transaction: Transaction): Promise<void> {
  await site.sequelize.query(`SELECT pg_notify('${channel}', $1)`, { bind: [site.id], transaction });
}

/** Listens on a connection of its own, as long as somebody does here. */
export function makeSiteSignals(sequelize: Sequelize, warn: (error: unknown) => void): SiteSignals {
  const listeners = new Map<string, Set<() => void>>();
  let client: pg.Client | undefined;

  function connect(): void {
    const { host, port, username, password, database } = sequelize.config;
    const mine = new pg.Client({ host, port: Number(port), user: username, password: password ?? undefined, database });
    client = mine;
    const lost = (error?: unknown): void => {
      if (client !== mine) return;
      client = undefined;
      if (error !== undefined) warn(error);
      void mine.end().catch(() => undefined);
      if (listeners.size > 0) setTimeout(() => client === undefined && listeners.size > 0 && connect(), again).unref();
    };
    mine.on('error', lost);
    mine.on('end', () => lost());
    mine.on('notification', ({ payload }) => listeners.get(payload ?? '')?.forEach((listener) => listener()));
    mine
      .connect()
      .then(() => mine.query(`LISTEN ${channel}`))
      // what was told of in the meantime nobody heard
      .then(() => listeners.forEach((some) => some.forEach((listener) => listener())))
      .catch(lost);
  }

  return {
    on(siteId, listener) {
      const some = listeners.get(siteId) ?? new Set();
      listeners.set(siteId, some.add(listener));
      if (!client) connect();
      return () => {
        some.delete(listener);
        if (some.size === 0 && listeners.get(siteId) === some) listeners.delete(siteId);
        if (listeners.size > 0 || !client) return;
        const last = client;
        client = undefined;
        void last.end().catch(() => undefined);
      };
    },
  };
}
