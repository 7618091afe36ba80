import { expect, test } from '@jest/globals';
import { railRows, rowAfter } from './railRows.ts';

const pages = ['about.html', 'index.html', 'tours/a.html', 'tours/b.html', 'tours/old/c.html'];
const rows = railRows(pages);

test('each folder stands before its pages', () => {
  expect(rows.map((row) => (row.kind === 'folder' ? `${row.folder} (${row.pages.length})` : row.path))).toEqual([
    'about.html',
    'index.html',
    'tours/ (2)',
    'tours/a.html',
    'tours/b.html',
    'tours/old/ (1)',
    'tours/old/c.html',
  ]);
});

test('keys lead to the next row, the first and the last; with Shift past folders', () => {
  expect(rowAfter(rows, 1, 'ArrowDown', false)).toBe(2);
  expect(rowAfter(rows, 1, 'ArrowDown', true)).toBe(3);
  expect(rowAfter(rows, 3, 'ArrowUp', true)).toBe(1);
  expect(rowAfter(rows, 3, 'Home', false)).toBe(0);
  expect(rowAfter(rows, 0, 'End', false)).toBe(6);
});

test('beyond the ends, and by any other key, nowhere', () => {
  expect(rowAfter(rows, 0, 'ArrowUp', false)).toBeUndefined();
  expect(rowAfter(rows, 6, 'ArrowDown', false)).toBeUndefined();
  expect(rowAfter(rows, 3, 'x', false)).toBeUndefined();
  expect(rowAfter([], 0, 'ArrowDown', false)).toBeUndefined();
});
