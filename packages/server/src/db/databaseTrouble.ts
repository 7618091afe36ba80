import { BaseError, ConnectionError } from 'sequelize';
import { Refusal } from '../http/refusal.ts';

/**
 * What the database could not do for reasons that pass: it is away, or its disk is full. Undefined for faults of ours.
 *
 * PostgreSQL, "PostgreSQL Error Codes": class 08 and 57P are about the connection and the server's coming and going, 53 about means.
 */
export function databaseTrouble(error: unknown): Refusal | undefined {
  const code = codeOf(error);
  if (code === '53100' || code === 'ENOSPC')
    return new Refusal(
      'disk-full',
      'The disk of the server is full. Nothing of this was saved; make room and do it again.',
    );
  const isAway =
    error instanceof ConnectionError ||
    /^(08|57P|53300|ECONNREFUSED|ECONNRESET|EPIPE)/.test(code) ||
    (error instanceof Error && /^Connection terminated|Client has encountered a connection error/.test(error.message));
  if (!isAway) return undefined;
  return new Refusal(
    'database-away',
    'The database does not answer just now. What was saved before is safe; look at what is there in a moment, then do it again.',
  );
}

function codeOf(error: unknown): string {
  const cause = error instanceof BaseError && 'parent' in error ? error.parent : error;
  return typeof cause === 'object' && cause !== null && 'code' in cause ? String(cause.code) : '';
}
