import type pg from 'pg';
import type { Sequelize, Transaction } from 'sequelize';
import { keepConnection, type StandingConnection } from './standingConnection.ts';

/** What processes on one database tell each other. PostgreSQL, "NOTIFY". */
export interface Signals {
  /**
   * Called with what was told on a channel, and with nothing when something may have been missed: once it is listened to, and whenever
   * the connection was made again. Returns the way to stop.
   */
  on(channel: string, listener: (told: string | undefined) => void): () => void;
  /** 8,000 bytes at most. In a transaction it is told of once that is committed, not before: what is told of is there. */
  tell(channel: string, told: string, transaction?: Transaction): Promise<void>;
  close(): Promise<void>;
}

type Listener = (told: string | undefined) => void;

/** Listens on a connection of its own, from the first listener on. */
export function makeSignals(sequelize: Sequelize, warn: (error: unknown) => void): Signals {
  const channels = new Map<string, Set<Listener>>();
  let connection: StandingConnection | undefined;
  let closed = false;

  async function begin(client: pg.Client): Promise<void> {
    client.on('notification', ({ channel, payload }) => tellAll(channel, payload ?? ''));
    for (const channel of channels.keys()) await client.query(`LISTEN ${channel}`);
    // what was told of in the meantime nobody heard
    for (const channel of channels.keys()) tellAll(channel, undefined);
  }

  function tellAll(channel: string, told: string | undefined): void {
    for (const listener of [...(channels.get(channel) ?? [])]) listener(told);
  }

  const connect = (): StandingConnection => (connection ??= keepConnection(sequelize, begin, warn));

  return {
    on(channel, listener) {
      if (closed) return () => undefined;
      const some = channels.get(channel) ?? new Set<Listener>();
      const isFirst = some.size === 0;
      channels.set(channel, some.add(listener));
      const client = connect().client();
      if (client && isFirst) client.query(`LISTEN ${channel}`).then(() => tellAll(channel, undefined), warn);
      else if (client) queueMicrotask(() => listener(undefined));
      return () => {
        some.delete(listener);
        if (some.size > 0 || channels.get(channel) !== some) return;
        channels.delete(channel);
        connection?.client()?.query(`UNLISTEN ${channel}`).catch(warn);
      };
    },
    async tell(channel, told, transaction) {
      await sequelize.query('SELECT pg_notify($1, $2)', {
        bind: [channel, told],
        ...(transaction ? { transaction } : {}),
      });
    },
    async close() {
      closed = true;
      channels.clear();
      await connection?.close();
    },
  };
}
