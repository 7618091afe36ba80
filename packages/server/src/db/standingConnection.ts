import pg from 'pg';
import type { Sequelize } from 'sequelize';

/** A connection of its own that is made again whenever it is lost, until it is closed. */
export interface StandingConnection {
  /** Undefined while there is none. */
  client(): pg.Client | undefined;
  close(): Promise<void>;
}

/** Milliseconds until a lost connection is made again. */
const again = 1000;

/** `onConnect` is done before anybody may use it; what it throws counts as a connection that was lost. */
export function keepConnection(
  sequelize: Sequelize,
  onConnect: (client: pg.Client) => Promise<void>,
  warn: (error: unknown) => void,
): StandingConnection {
  let current: pg.Client | undefined;
  let ready = false;
  let closed = false;

  function connect(): void {
    const mine = new pg.Client(whereIs(sequelize));
    current = mine;
    ready = false;
    const lost = (error?: unknown): void => {
      if (current !== mine) return;
      current = undefined;
      if (error !== undefined && !closed) warn(error);
      void mine.end().catch(() => undefined);
      setTimeout(() => !closed && current === undefined && connect(), again).unref();
    };
    mine.on('error', lost);
    mine.on('end', () => lost());
    mine
      .connect()
      .then(() => onConnect(mine))
      .then(() => (ready = true))
      .catch(lost);
  }

  connect();
  return {
    client: () => (ready ? current : undefined),
    async close() {
      closed = true;
      const last = current;
      current = undefined;
      await last?.end().catch(() => undefined);
    },
  };
}

/** The database, in the words of the driver. */
export function whereIs(sequelize: Sequelize): pg.ClientConfig {
  const { host, port, username, password, database } = sequelize.config;
  return { host, port: Number(port), user: username, password: password ?? undefined, database };
}
