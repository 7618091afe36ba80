import { expect, test } from '@jest/globals';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { Operation, openApiDocument, routes } from './index.ts';

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
    paths: Record<string, Record<string, { parameters: { name: string }[] }>>;
  };
  const ajv = new Ajv2020({ strict: false, formats: { uuid: true, 'date-time': true } });
  for (const route of routes)
    for (const reply of Object.values(route.replies))
      if (typeof reply === 'object') expect(() => ajv.compile({ ...reply, $id: undefined })).not.toThrow();
  for (const [path, methods] of Object.entries(document.paths))
    for (const operation of Object.values(methods))
      expect([...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => name)).toEqual(operation.parameters.map((p) => p.name));
});
