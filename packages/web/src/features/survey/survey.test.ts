import { expect, test } from '@jest/globals';
import { pageOf, sourceOf, type Page } from '../../testing/surveyPages.ts';
import { barsFor, csvOf, localBytes, rowsOf } from './barsFor.ts';
import { pageShapes } from './pageShapes.ts';

const source = (kind: string, bytes: number, target: string | null = null, problem: string | null = null) =>
  sourceOf(kind, target, { bytes, problem });
const page = (path: string, ...sources: Page['sources']): Page => pageOf(path, sources);

test('pages with most styling in them come first', () => {
  const bars = barsFor([
    page('a', source('linked', 900)),
    page('b', source('embedded', 5), source('embedded', 6), source('attribute', 2)),
    page('c', source('presentational', 20)),
  ]);
  expect(bars.map((b) => `${b.path} ${localBytes(b)}`)).toEqual(['c 20', 'b 13', 'a 0']);
});

test('sorted as asked; as many rows as fit, else neighbours share one and show their average', () => {
  const pages = [
    page('b', source('embedded', 10)),
    page('a', source('linked', 5), source('embedded', 20)),
    page('c', source('imported', 9)),
  ];
  expect(barsFor(pages, 'shared').map((b) => b.path)).toEqual(['c', 'a', 'b']);
  const bars = barsFor(pages, 'name');
  expect(bars.map((b) => b.path)).toEqual(['a', 'b', 'c']);
  expect(rowsOf(bars, 3).map((r) => r.pages)).toEqual([['a'], ['b'], ['c']]);
  const many = barsFor(
    Array.from({ length: 3000 }, (_, i) => page(`${String(i).padStart(4, '0')}.html`, source('embedded', i))),
    'name',
  );
  const rows = rowsOf(many, 80);
  expect(rows).toHaveLength(40);
  expect(rows.flatMap((r) => r.pages)).toEqual(many.map((b) => b.path));
  expect(rows[0]).toMatchObject({ path: '0000.html', embedded: 37 });
});

test('the numbers as CSV, names with commas quoted', () => {
  expect(csvOf(barsFor([page('a,b.html', source('linked', 3), source('attribute', 4))]))).toBe(
    'page,linked,imported,embedded,style attributes,presentational attributes,left in the page\r\n"a,b.html",3,0,0,4,0,4\r\n',
  );
});

const palette = { linked: 'L', embedded: 'E', attribute: 'A', presentational: 'P', ink: 'I', ink3: '3', line: 'l' };
const room = { y: 10, width: 600, mostShared: 100, mostLocal: 100 };
const shapes = (bars: Parameters<typeof pageShapes>[0]) =>
  (
    pageShapes(bars, 'a', room, palette) as {
      children: { type: string; shape?: Record<string, number>; style: { fill?: string; text?: string } }[];
    }
  ).children;

test('a row keeps the shape of each source: square ends, pointed ends, triangles, a thin line', () => {
  const drawn = shapes({ path: 'a.html', linked: 100, imported: 0, embedded: 50, attribute: 30, presentational: 10 });
  const filled = drawn.filter((s) => 'LEAP'.includes(s.style.fill ?? ' '));
  expect(filled.map((s) => `${s.style.fill}${s.type}`)).toEqual([
    'Lrect',
    'Epolygon',
    'Apolygon',
    'Apolygon',
    'Apolygon',
    'Apolygon',
    'Apolygon',
    'Apolygon',
    'Prect',
  ]);
  expect(filled.at(-1)!.shape!['height']).toBe(3);
});

test('a page no sheet reaches says so', () => {
  expect(
    shapes({ path: 'a.html', linked: 0, imported: 0, embedded: 1, attribute: 0, presentational: 0 }).some(
      (s) => s.style.text === 'no sheet reaches it',
    ),
  ).toBe(true);
});
