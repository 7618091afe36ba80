import { expect, test } from '@jest/globals';
import { Type } from '@sinclair/typebox';
import { succeed } from '../source/result.ts';
import { operationTypes } from './operation.ts';
import { closed, operationType } from './operationType.ts';

test('each kind stands in the list once, and its schema says its kind and takes no field it does not name', () => {
  const kinds = operationTypes.map((type) => type.kind);
  expect(new Set(kinds).size).toBe(kinds.length);
  for (const { kind, schema } of operationTypes)
    expect(schema).toMatchObject({ additionalProperties: false, properties: { kind: { const: kind } } });
});

test('no two operations mean something else by the same kind of problem', () => {
  const sentences = new Map<string, string>();
  for (const { problems } of operationTypes)
    for (const [kind, sentence] of Object.entries(problems)) {
      const written = String(sentence).replace(/\s+/g, ' ');
      expect([kind, sentences.get(kind) ?? written]).toEqual([kind, written]);
      sentences.set(kind, written);
    }
});

test('a schema that says another shape than the type cannot stand in the list', () => {
  const plan = () => succeed({ changes: { created: [], edited: [], deleted: [] }, sentence: '' });
  const schema = Type.Object({ kind: Type.Literal('x'), page: Type.String() }, closed);
  const right = operationType<{ readonly kind: 'x'; readonly page: string }, never>()({
    kind: 'x',
    schema,
    plan,
    problems: {},
  });
  const wrong = operationType<{ readonly kind: 'x'; readonly page: number }, never>()({
    kind: 'x',
    schema,
    plan,
    problems: {},
  });
  // these lines compile only as long as the shapes are compared
  right satisfies { readonly kind: 'x' };
  wrong satisfies { readonly schemaSaysAnotherShape: { page: string } };
  expect(right.kind).toBe('x');
});
