import { expect, test } from '@jest/globals';
import type { ElementTableReply, OverrideReply, TableEntryReply } from '@syndeton/contract';
import { dropOperations } from './dropOperations.ts';
import { explanationOf } from './explanations.ts';
import { dropOf, shareOf } from './overrideOperations.ts';

const source = (
  id: string,
  kind: ElementTableReply['sources'][number]['kind'],
  pages: string[] = [],
  place = 0,
  path = '',
) => ({ id, kind, path, place, media: '', line: 1, says: 1, peeled: false, pages });
const entry = (id: string, from: string, more: Partial<TableEntryReply> = {}): TableEntryReply => ({
  id,
  source: from,
  declared: '',
  value: 'red',
  important: false,
  selector: 'h1',
  rule: 'h1, h2',
  specificity: '(0,0,1)',
  file: 'a.html',
  line: 1,
  state: 'loses',
  reason: null,
  ...more,
});
const table: ElementTableReply = {
  page: 'a.html',
  element: 'html>body:nth-child(2)',
  name: 'body',
  text: '',
  line: 1,
  ancestors: [],
  children: [],
  pseudoElements: [],
  sources: [
    source('0:s.css', 'linked', [], 1, 's.css'),
    source('1:a.html', 'embedded', ['a.html', 'b.html'], 2),
    source('attribute', 'attribute', ['a.html']),
  ],
  rows: [
    {
      property: 'color',
      longhands: ['color'],
      entries: [
        entry('a.html@5', '1:a.html', { important: true }),
        entry('a.html@9', 'attribute', { rule: null, selector: null, declared: 'font' }),
        entry('s.css@1', '0:s.css', { file: 's.css' }),
      ],
      sentence: { lead: '', rest: '', kind: 'order' },
      inheritedFrom: null,
      value: 'red',
    },
  ],
};

test('a peel leads to the operation that does it for good', () => {
  expect(dropOperations(table, ['attribute'])).toEqual({
    here: [{ kind: 'drop-attribute', page: 'a.html', element: table.element }],
    all: undefined,
  });
  expect(dropOperations(table, ['1:a.html'])).toEqual({
    here: [{ kind: 'drop-block', page: 'a.html', source: 1 }],
    all: { operations: [{ kind: 'drop-block', page: 'a.html', source: 1, pages: ['a.html', 'b.html'] }], pages: 2 },
  });
  expect(dropOperations(table, ['0:s.css']).here).toEqual([
    { kind: 'unlink-sheet', sheet: 's.css', pages: ['a.html'] },
  ]);
  expect(dropOperations(table, ['a.html@5', 'a.html@9']).here).toEqual([
    { kind: 'drop-declaration', where: 'block', selector: 'h1, h2', property: 'color', value: 'red', important: true, pages: ['a.html'] },
    { kind: 'drop-declaration', where: 'attribute', property: 'font', value: 'red', pages: ['a.html'] },
  ]); // oxfmt-ignore
  // a declaration of a shared sheet is edited there
  expect(dropOperations(table, ['s.css@1']).here).toEqual([]);
});

const override: OverrideReply = {
  id: 'x',
  cause: 'specificity',
  kind: 'embedded',
  selector: '#w h1',
  specificity: '(1,0,1)',
  property: 'color',
  value: 'red',
  important: false,
  beats: { path: 's.css', selector: 'h1, h2', part: 'h1', specificity: '(0,0,1)', property: 'color', value: 'teal' },
  then: [{ value: 'teal', source: 's.css', elements: 2 }],
  pages: ['a.html', 'b.html'],
  elements: 2,
  changes: 2,
  first: { page: 'a.html', element: '', name: '', text: '' },
  note: null,
};

test('an override is dropped or shared on its pages, of those chosen', () => {
  const said = { where: 'block', selector: '#w h1', property: 'color', value: 'red' };
  expect(dropOf(override)).toEqual({ kind: 'drop-declaration', ...said, pages: ['a.html', 'b.html'] });
  expect(dropOf(override, ['b.html', 'z.html'])).toEqual({ kind: 'drop-declaration', ...said, pages: ['b.html'] });
  expect(shareOf(override)).toEqual({
    kind: 'share-declaration',
    ...said,
    sheet: 's.css',
    rule: '#w h1',
    pages: ['a.html', 'b.html'],
  });
  // what a style attribute says goes to the selector that reaches its elements, and to no other of its rule
  expect(shareOf({ ...override, kind: 'attribute' })).toMatchObject({ where: 'attribute', sheet: 's.css', rule: 'h1' });
});

test.each(['importance', 'attribute', 'hint', 'layer', 'specificity', 'proximity', 'order', 'default', 'inherited', 'alone', 'condition', 'state'])(
  '%s is explained, with the place in the standard',
  (kind) => {
    const { title, text, standard } = explanationOf(kind);
    expect(title).not.toBe('');
    expect(text.length).toBeGreaterThan(60);
    expect(standard).toMatch(/^(CSS|Selectors) .*Level \d, “/);
  },
); // oxfmt-ignore
