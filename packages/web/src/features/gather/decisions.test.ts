import { expect, test } from '@jest/globals';
import type { FamilyReply, OperationBody } from '@syndeton/contract';
import { decisionsOf, inOwnSheet, inScopeOf, sharedSheetOf, isDecided, leaving, sending, taking } from './decisions.ts';

const version = (id: string, pages: string[]): FamilyReply['versions'][number] => ({
  id,
  pages,
  declarations: [],
  text: '',
  line: 1,
});
const family: FamilyReply = {
  id: '.n',
  label: '.n',
  groups: [],
  kind: 'rule',
  versions: [version('A', ['1', '2', '3']), version('B', ['4', '5']), version('C', ['6'])],
  pages: ['1', '2', '3', '4', '5', '6'],
  twins: [],
  elements: 1,
  order: 0,
  drifted: ['color'],
};
const [A, B, C] = family.versions as [
  (typeof family.versions)[0],
  (typeof family.versions)[0],
  (typeof family.versions)[0],
];
const site: OperationBody = { kind: 'gather-rules', sheet: 'site.css', pages: ['1', '2', '3'], rules: [{ family: '.n', version: 'A' }, { family: 'p' }], after: [] }; // oxfmt-ignore
const rest: OperationBody = { kind: 'gather-blocks', folder: 'css', pages: ['4', '6'] };

const told = (operations: readonly OperationBody[]): readonly string[] =>
  family.versions.map((one) =>
    decisionsOf(operations, family, one)
      .map(
        (d) =>
          `${d.kind === 'sheet' ? d.sheet : d.kind === 'takes' ? `takes ${d.version}` : d.kind} ${d.pages.join('')}`,
      )
      .join(', '),
  );

test.each<[string, readonly OperationBody[], readonly string[]]>([
  ['nothing', [], ['open 123', 'open 45', 'open 6']],
  ['a sheet and blocks', [site, rest], ['site.css 123', 'block 4, open 5', 'block 6']],
  ['everything', [{ kind: 'gather-rules', sheet: 'all.css' }], ['all.css 123', 'all.css 45', 'all.css 6']],
  [
    'one page excepted',
    [{ ...site, except: [{ family: '.n', page: '2' }] }],
    ['site.css 13, open 2', 'open 45', 'open 6'],
  ],
  [
    'drift settled',
    [{ kind: 'settle-drift', family: '.n', version: 'A' }, site],
    ['site.css 123', 'takes A 45', 'takes A 6'],
  ],
  ['another family', [{ kind: 'settle-drift', family: 'p', version: 'A' }], ['open 123', 'open 45', 'open 6']],
])('with %s in the draft', (_shows, operations, expected) => {
  expect(told(operations)).toEqual(expected);
});

test('left where it is: out of the rules of a sheet, or excepted, or its page out of the whole blocks', () => {
  expect(told(leaving([site, rest], family, A))).toEqual(['open 123', 'block 4, open 5', 'block 6']);
  expect(told(leaving([{ kind: 'gather-rules', sheet: 'all.css' }], family, B))).toEqual([
    'all.css 123',
    'open 45',
    'all.css 6',
  ]);
  expect(told(leaving([site, rest], family, C))).toEqual(['site.css 123', 'block 4, open 5', 'open 6']);
});

test('in a sheet of its own, behind the others and before the blocks that are left', () => {
  const operations = inOwnSheet([site, rest], family, B, 'news.css');
  expect(operations.map((one) => one.kind)).toEqual(['gather-rules', 'gather-rules', 'gather-blocks']);
  expect(operations[1]).toMatchObject({ sheet: 'news.css', pages: ['4', '5'], after: ['site.css'] });
  expect(told(operations)).toEqual(['site.css 123', 'news.css 45', 'block 6']);
});

test('taking the shared version comes first, adds up, and links the shared sheet there', () => {
  const once = taking([site], family, B, 'A');
  const twice = taking(once, family, C, 'A');
  expect(twice[0]).toEqual({
    kind: 'settle-drift',
    family: '.n',
    version: 'A',
    from: ['B', 'C'],
    pages: ['4', '5', '6'],
  });
  expect(twice[1]).toMatchObject({ sheet: 'site.css', pages: ['1', '2', '3', '4', '5', '6'] });
  expect(told(twice)).toEqual(['site.css 123', 'takes A 45', 'takes A 6']);
  expect(isDecided(twice, family)).toBe(true);
  // and back again
  expect(told(leaving(twice, family, C))).toEqual(['site.css 123', 'takes A 45', 'open 6']);
});

test('where blocks become sheets, its own sheet is that of its block', () => {
  const settled = taking([site, rest], family, C, 'A');
  expect(told(settled)).toEqual(['site.css 123', 'block 4, open 5', 'takes A 6']);
  expect(told(inOwnSheet(settled, family, C, 'c.css'))).toEqual(['site.css 123', 'block 4, open 5', 'block 6']);
});

test('in the shared sheet below a class of its pages', () => {
  const scoped = inScopeOf([site, rest], family, C, sharedSheetOf([site], family)!);
  expect(scoped[1]).toMatchObject({ sheet: 'site.css', pages: ['6'], after: ['site.css'], scope: 'these-page' });
  expect(told(scoped)).toEqual(['site.css 123', 'block 4, open 5', 'site.css 6']);
  expect(sharedSheetOf([], family)).toBeUndefined();
});

test('what is sent by hand goes behind other rules and classes, and before whole blocks', () => {
  const attributes: OperationBody = { kind: 'gather-attributes', sheet: 'classes.css' };
  const sent = sending([attributes, site, rest], [{ family, version: B }], { sheet: 'b.css', place: 'start' });
  expect(sent).toEqual([attributes, site, { kind: 'gather-rules', sheet: 'b.css', place: 'start', after: ['site.css'] }, rest]);
}); // oxfmt-ignore
