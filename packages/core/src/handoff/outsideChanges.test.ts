import { expect, test } from '@jest/globals';
import { outsideChanges } from './outsideChanges.ts';

const nothing = { same: 0, changed: [], fresh: [], gone: [], moved: [], older: [] };

test('changed, new and gone files; files of the same bytes under another path have moved', () => {
  const now = { 'a.html': '1', 'b.html': '2', 'c.html': '3', 'd.html': '3', 'e.html': '5' };
  const found = { 'a.html': '1', 'b.html': '9', 'x/c.html': '3', 'f.html': '6' };
  expect(outsideChanges(now, found, [])).toEqual({
    ...nothing,
    same: 1,
    changed: ['b.html'],
    fresh: ['f.html'],
    gone: ['d.html', 'e.html'],
    moved: [{ from: 'c.html', to: 'x/c.html' }],
  });
});

test('what is as an earlier revision had it was not changed there, and neither was what it had not', () => {
  const first = { 'a.html': '1', 'b.html': '2', 'old.css': '7' };
  const second = { 'a.html': '11', 'b.html': '22', 'old.css': '7', 'site.css': '8' };
  const now = { 'a.html': '12', 'b.html': '22', 'site.css': '8' };
  const earlier = [
    { number: 2, files: second },
    { number: 1, files: first },
  ];
  expect(outsideChanges(now, { 'a.html': '11', 'b.html': '2', 'old.css': '7' }, earlier)).toEqual({
    ...nothing,
    older: [
      { path: 'a.html', revision: 2 },
      { path: 'b.html', revision: 1 },
      { path: 'old.css', revision: 2 },
      { path: 'site.css', revision: 1 },
    ],
  });
});

test('names that objects have of their own are names like others', () => {
  expect(outsideChanges({}, { constructor: '1' }, [{ number: 1, files: { x: '1' } }])).toEqual({
    ...nothing,
    fresh: ['constructor'],
  });
});
