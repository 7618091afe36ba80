import { expect, test } from '@jest/globals';
import { byPath } from './site.ts';
import { fileKindOf, parseSitePath, relativePath } from './sitePath.ts';

test.each([
  ['routes/north.html', 'routes/north.html'],
  ['./css//site.css', 'css/site.css'],
  ['a\\b.html', 'a/b.html'],
  ['img/Harbour Map.png', 'img/Harbour Map.png'],
  ['é/ŵ.html', 'é/ŵ.html'],
])('%s is taken', (given, path) => {
  expect(parseSitePath(given)).toEqual({ ok: true, value: path });
});

test.each([
  ['', 'empty-path'],
  ['.', 'empty-path'],
  ['../x.html', 'path-leaves-site'],
  ['a/../../x', 'path-leaves-site'],
  ['a\\..\\x', 'path-leaves-site'],
  ['/etc/passwd', 'absolute-path'],
  ['C:\\x.html', 'absolute-path'],
  ['a\u0000b', 'illegal-character'],
  ['a\nb', 'illegal-character'],
  ['x'.repeat(1001), 'path-too-long'],
])('%j is refused', (given, kind) => {
  expect(parseSitePath(given)).toMatchObject({ ok: false, problem: { kind } });
});

test.each([
  ['index.html', 'css/site.css', 'css/site.css'],
  ['routes/north.html', 'css/site.css', '../css/site.css'],
  ['news/2023/summer.html', 'css/site.css', '../../css/site.css'],
  ['css/a.html', 'css/site.css', 'site.css'],
  ['a/b/c.html', 'a/d.css', '../d.css'],
  ['a/b.html', 'a/b/c.css', 'b/c.css'],
])('from %s to %s: %s', (from, to, path) => {
  expect(relativePath(from, to)).toBe(path);
});

test.each([
  ['a.html', 'page'],
  ['A.HTM', 'page'],
  ['a.xhtml', 'page'],
  ['a.shtml', 'page'],
  ['a.css', 'sheet'],
  ['a.css.bak', 'other'],
  ['html', 'other'],
])('%s is a %s', (path, kind) => {
  expect(fileKindOf(path)).toBe(kind);
});

test('files of a folder come before its subfolders', () => {
  const paths = ['routes/a.html', 'index.html', 'islands/b/c.html', 'islands/a.html', 'zoo.html'];
  expect(
    paths
      .map((path) => ({ path }))
      .sort(byPath)
      .map((f) => f.path),
  ).toEqual(['index.html', 'zoo.html', 'islands/a.html', 'islands/b/c.html', 'routes/a.html']);
});
