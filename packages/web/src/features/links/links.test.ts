import { expect, test } from '@jest/globals';
import type { SurveyReply } from '@syndeton/contract';
import { linkGrid, placeOf } from './linkGrid.ts';
import { pageOf as page, sourceOf as source, type Page } from '../../testing/surveyPages.ts';
import { tagGroups } from './tagGroups.ts';

const finding = (kind: string, sheet: string, pages: string[]): SurveyReply['findings'][number] => ({
  id: `${kind} ${sheet}`,
  kind,
  severity: 'breaks',
  sentence: '',
  sheet,
  pages,
  places: [],
  action: { does: 'mend', label: 'Mend' },
});
const survey = (pages: Page[], findings: SurveyReply['findings'] = []): SurveyReply =>
  ({ pages, findings, sheets: [], repeatedBlocks: [] }) as unknown as SurveyReply;

const pages = [
  page('a.html', [source('linked', 'base.css'), source('linked', 'site.css'), source('embedded'), source('attribute')]),
  page('b.html', [source('linked', 'site.css', { problem: 'missing' }), source('embedded')]),
  page('c.html', [
    source('imported', 'base.css'),
    source('embedded'),
    source('linked', 'site.css', { media: 'print' }),
  ]),
];
const sheets = [{ path: 'base.css' }, { path: 'site.css' }, { path: 'spare.css' }];
const grid = linkGrid(
  survey(pages, [
    finding('link-missing', 'site.css', ['b.html']),
    finding('link-after-block', 'site.css', ['c.html']),
    finding('drift', 'site.css', ['a.html']),
  ]),
  sheets,
);
const column = (path: string) => grid.columns.find((one) => one.path === path)!;

test('columns stand in load order; a cell has its number among the page’s sources, or what is wrong', () => {
  expect(grid.columns.map((one) => [one.path, one.linked, one.media])).toEqual([
    ['base.css', 2, 'all media'],
    ['site.css', 2, 'several media'],
    ['spare.css', 0, ''],
  ]);
  expect(column('site.css').cells.get('a.html')).toMatchObject({ position: 2, wrong: undefined });
  expect(column('site.css').cells.get('b.html')).toMatchObject({ position: undefined, wrong: 'no such file there' });
  expect(column('site.css').cells.get('c.html')).toMatchObject({
    position: 3,
    media: 'print',
    wrong: 'after the block',
  });
  expect(column('base.css').cells.get('c.html')).toMatchObject({ imported: true });
  expect([...grid.blocks]).toEqual([
    ['a.html', [3]],
    ['b.html', [2]],
    ['c.html', [2]],
  ]);
  expect(grid.findings.map((one) => one.kind)).toEqual(['link-missing', 'link-after-block']);
  expect(column('site.css').mends).toHaveLength(2);
});

test('a medium that matches nothing any more is said', () => {
  const old = linkGrid(survey([page('a.html', [source('linked', 's.css', { media: 'handheld' })])]), [
    { path: 's.css' },
  ]);
  expect(old.columns[0]!.cells.get('a.html')!.wrong).toBe('handheld matches nothing');
});

test('where the links of a column stand', () => {
  expect(placeOf(column('base.css'), grid, ['a.html', 'c.html'])).toBe('first');
  expect(placeOf(column('site.css'), grid, ['a.html'])).toBe('before-blocks');
  expect(placeOf(column('site.css'), grid, ['c.html'])).toBe('last');
  expect(placeOf(column('site.css'), grid, ['a.html', 'c.html'])).toBeUndefined();
});

test('the exact tag of each page, equal ones together', () => {
  const xhtml = { slashed: true, upperCase: false, quote: "'", typed: true } as const;
  const some = [
    page('a.html', []),
    page('b.html', []),
    page('x/c.html', [], { syntax: xhtml }),
    page('d.html', [], { base: null }),
  ];
  expect(tagGroups(some, 'css/my site.css', 'page', 'print')).toEqual([
    { tag: '<link rel="stylesheet" href="css/my%20site.css" media="print">', words: '2 pages at the root', pages: ['a.html', 'b.html'] },
    { tag: "<link rel='stylesheet' type='text/css' href='../css/my%20site.css' media='print' />", words: '1 page one folder down, XHTML', pages: ['x/c.html'] },
  ]); // oxfmt-ignore
  expect(tagGroups(some, 's.css', 'root', '').map((one) => one.tag)).toContain('<link rel="stylesheet" href="/s.css">');
  expect(tagGroups(some, 's.css', { host: 'https://example.org/a/' }, '')[0]).toMatchObject({
    tag: '<link rel="stylesheet" href="https://example.org/a/s.css">',
    words: '3 pages at the root',
  });
});
