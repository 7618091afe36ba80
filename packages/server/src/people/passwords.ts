import { randomBytes, scrypt, timingSafeEqual, type ScryptOptions } from 'node:crypto';
import { promisify } from 'node:util';

/** OWASP "Password Storage Cheat Sheet", scrypt: N 2^17, r 8, p 1; from memory. Each takes 128 MB for a moment. */
const cost = { N: 2 ** 17, r: 8, p: 1, maxmem: 256 * 2 ** 20 } satisfies ScryptOptions;
const bytes = 32;
const derive = promisify<string, Buffer, number, ScryptOptions, Buffer>(scrypt);

/** So many at once: the rest waits, that many signing in at a time fill no memory. */
let turn: Promise<unknown> = Promise.resolve();

function inTurn<Result>(act: () => Promise<Result>): Promise<Result> {
  const mine = turn.then(act);
  turn = mine.catch(() => undefined);
  return mine;
}

/** What is kept of a password: salt and key, and how dearly (`N`) they were made. */
export async function hashPassword(password: string, N: number = cost.N): Promise<string> {
  const salt = randomBytes(16);
  const key = await inTurn(() => derive(password.normalize('NFC'), salt, bytes, { ...cost, N }));
  return `scrypt ${N} ${salt.toString('base64')} ${key.toString('base64')}`;
}

/** Takes as long where nothing is kept, so that the time does not tell which names there are. */
export async function isPassword(password: string, kept: string | undefined): Promise<boolean> {
  const [, n, salt, key] = (kept ?? `scrypt ${cost.N} AAAA ${Buffer.alloc(bytes).toString('base64')}`).split(' ');
  const wanted = Buffer.from(key!, 'base64');
  const options = { ...cost, N: Number(n) };
  const given = await inTurn(() => derive(password.normalize('NFC'), Buffer.from(salt!, 'base64'), bytes, options));
  return timingSafeEqual(given, wanted) && kept !== undefined;
}
