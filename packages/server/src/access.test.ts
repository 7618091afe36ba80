import { expect, test } from '@jest/globals';
import { accessFrom } from './access.ts';

test.each([
  ['127.0.0.1', {}, { accounts: false, secure: false, hosts: [] }],
  ['::1', { ACCOUNTS: 'on' }, { accounts: true, secure: false, hosts: [] }],
  ['127.0.0.1', { ACCOUNTS: 'on', PUBLIC_ADDRESS: 'https://Styles.example/' }, { accounts: true, secure: true, hosts: ['styles.example'] }],
  ['0.0.0.0', { PUBLIC_ADDRESS: 'https://styles.example' }, { accounts: true, secure: true, hosts: ['styles.example'] }],
  ['0.0.0.0', { PLAIN_HTTP: 'allowed' }, { accounts: true, secure: false, hosts: [] }],
  ['10.0.0.4', { PLAIN_HTTP: 'allowed', ACCOUNTS: 'off' }, { accounts: false, secure: false, hosts: [] }],
])('on %s with %j', (host, env, access) => {
  expect(accessFrom(host, env)).toEqual(access);
}); // oxfmt-ignore

test.each([
  ['0.0.0.0', {}, 'PUBLIC_ADDRESS=https'],
  ['0.0.0.0', { PUBLIC_ADDRESS: 'http://styles.example' }, 'without https'],
  ['127.0.0.1.example', {}, 'others can reach it'],
  ['127.0.0.1', { ACCOUNTS: 'yes' }, 'on and off are allowed'],
  ['127.0.0.1', { PUBLIC_ADDRESS: 'styles' }, 'is no address'],
])('refused in words: on %s with %j', (host, env, words) => {
  expect(accessFrom(host, env)).toEqual({ problem: expect.stringContaining(words) });
});
