import { expect, test } from '@jest/globals';
import { ConnectionRefusedError, DatabaseError } from 'sequelize';
import { databaseTrouble } from './databaseTrouble.ts';

const coded = (code: string): Error => Object.assign(new Error('x'), { code });
const fromDatabase = (code: string): Error => new DatabaseError(Object.assign(new Error('x'), { code, sql: '' }));

// PostgreSQL, "PostgreSQL Error Codes"
test.each([
  ['no room on its disk', fromDatabase('53100'), 'disk-full'],
  ['no room on ours', coded('ENOSPC'), 'disk-full'],
  ['being shut down', fromDatabase('57P01'), 'database-away'],
  ['starting up', fromDatabase('57P03'), 'database-away'],
  ['a connection that failed', fromDatabase('08006'), 'database-away'],
  ['too many connections', fromDatabase('53300'), 'database-away'],
  ['nobody there', new ConnectionRefusedError(coded('ECONNREFUSED')), 'database-away'],
  ['a connection cut', new Error('Connection terminated unexpectedly'), 'database-away'],
  ['a fault of ours', fromDatabase('42601'), undefined],
  ['another fault of ours', new Error('x is undefined'), undefined],
])('%s', (_shows, error, code) => {
  expect(databaseTrouble(error)?.code).toBe(code);
});
