import { expect, test } from '@jest/globals';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { addresses, addressOf, Operation, openApiDocument, routes } from './index.ts';

test.each([
  ['gather', { kind: 'gather-rules', sheet: 'css/site.css', rules: [{ family: 'p', version: 'x' }] }, true],
  ['gather without a sheet', { kind: 'gather-rules' }, false],
  ['an edit', { kind: 'edit-sheet', path: 'a.css', hash: 'x', text: '' }, true],
  ['an edit with a number for text', { kind: 'edit-sheet', path: 'a.css', hash: 'x', text: 1 }, false],
  [
    'attributes with names',
    { kind: 'gather-attributes', sheet: 'a.css', names: { 'top:0': 'first' }, except: [{ key: 'x' }] },
    true,
  ],
  ['a mend', { kind: 'mend', finding: 'drift p' }, true],
  ['links alike for no page', { kind: 'link-alike', pages: [] }, false],
  ['another kind', { kind: 'drop-all' }, false],
  ['a field nobody knows', { kind: 'gather-rules', sheet: 'a.css', force: true }, false],
])('%s', (_shows, operation, valid) => {
  expect(new Ajv2020({ strict: false }).validate(Operation, operation)).toBe(valid);
});

test('every schema of the document compiles, and every path parameter is described', () => {
  const document = openApiDocument('1') as {
    paths: Record<string, Record<string, { operationId: string; parameters: { name: string; in: string }[] }>>;
  };
  const ajv = new Ajv2020({ strict: false, formats: { uuid: true, 'date-time': true } });
  for (const { reply } of Object.values(routes))
    if (typeof reply.body === 'object') expect(() => ajv.compile({ ...reply.body, $id: undefined })).not.toThrow();
  const ids = Object.values(document.paths).flatMap((methods) => Object.values(methods).map((one) => one.operationId));
  expect(ids.sort()).toEqual(Object.keys(addresses).sort());
  for (const [path, methods] of Object.entries(document.paths))
    for (const operation of Object.values(methods))
      expect([...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => name)).toEqual(
        operation.parameters.filter((p) => p.in === 'path').map((p) => p.name),
      );
});

test.each([
  ['a name with a slash in it', addressOf('readSite', { id: 'a/b' }), '/api/sites/a%2Fb'],
  ['a path of a file keeps its slashes', addressOf('readFile', { id: '1', state: 'r2', path: 'css/a b#?.css' }), '/api/sites/1/files/r2/css/a%20b%23%3F.css'], // oxfmt-ignore
  ['lists are written one by one, empty parts left out', addressOf('readElement', { id: '1', number: 2 }, { path: 'a&b', pseudo: '', state: ['hover', 'focus'], width: 9 }), '/api/sites/1/revisions/2/element?path=a%26b&state=hover&state=focus&width=9'], // oxfmt-ignore
])('%s', (_shows, written, address) => {
  expect(written).toBe(address);
});
