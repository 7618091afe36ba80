import { expect, test } from '@jest/globals';
import { rebaseReference, resolveReference, siteBase } from './urls.ts';

// RFC 3986, "Normal Examples" and "Abnormal Examples", base http://a/b/c/d;p?q: the rows that stay on the host.
// Dot segments above the root are `outside` here: a server stops at its own root, the site's folder need not be that root.
test.each([
  ['g', 'b/c/g', ''],
  ['./g', 'b/c/g', ''],
  ['g/', 'b/c/g/', ''],
  ['/g', 'g', ''],
  ['?y', 'b/c/d;p', '?y'],
  ['g?y', 'b/c/g', '?y'],
  ['g#s', 'b/c/g', '#s'],
  ['g?y#s', 'b/c/g', '?y#s'],
  [';x', 'b/c/;x', ''],
  ['g;x', 'b/c/g;x', ''],
  ['g;x?y#s', 'b/c/g;x', '?y#s'],
  ['.', 'b/c/', ''],
  ['./', 'b/c/', ''],
  ['..', 'b/', ''],
  ['../', 'b/', ''],
  ['../g', 'b/g', ''],
  ['../..', '', ''],
  ['../../', '', ''],
  ['../../g', 'g', ''],
  ['/./g', 'g', ''],
  ['g.', 'b/c/g.', ''],
  ['.g', 'b/c/.g', ''],
  ['g..', 'b/c/g..', ''],
  ['..g', 'b/c/..g', ''],
  ['./../g', 'b/g', ''],
  ['./g/.', 'b/c/g/', ''],
  ['g/./h', 'b/c/g/h', ''],
  ['g/../h', 'b/c/h', ''],
  ['g;x=1/./y', 'b/c/g;x=1/y', ''],
  ['g;x=1/../y', 'b/c/y', ''],
  ['g?y/./x', 'b/c/g', '?y/./x'],
  ['g?y/../x', 'b/c/g', '?y/../x'],
  ['g#s/./x', 'b/c/g', '#s/./x'],
  ['g#s/../x', 'b/c/g', '#s/../x'],
])('%s is %s%s', (reference, path, suffix) => {
  expect(resolveReference(reference, siteBase('b/c/d;p'))).toEqual({ kind: 'site', path, suffix });
  // the URL Standard's own implementation agrees
  const url = new URL(reference, 'http://a/b/c/d;p');
  expect(decodeURI(url.pathname).slice(1) + url.search + url.hash).toBe(path + suffix);
});

test.each([
  ['g:h', 'remote'],
  ['//g', 'remote'],
  ['\\\\g', 'remote'],
  ['HTTP://x/y', 'remote'],
  ['data:image/png;base64,AA', 'data'],
  ['#s', 'local'],
  ['', 'empty'],
  [' \n', 'empty'],
  ['../../../g', 'outside'],
  ['/../g', 'outside'],
])('%j is %s', (reference, kind) => {
  expect(resolveReference(reference, siteBase('b/c/d')).kind).toBe(kind);
});

test.each([
  ['percent escapes', 'img/Harbour%20Map.png', 'a.html', 'img/Harbour Map.png'],
  ['a space as written', 'img/Harbour Map.png', 'a.html', 'img/Harbour Map.png'],
  ['backslashes as browsers read them', 'img\\x.png', 'a.html', 'img/x.png'],
  ['line ends inside are dropped', 'img/\nx.png', 'a.html', 'img/x.png'],
])('%s', (_shows, reference, page, path) => {
  expect(resolveReference(reference, siteBase(page))).toMatchObject({ kind: 'site', path });
});

test.each([
  // reference          page                     sheet             rewritten
  ['img/x.png', 'index.html', 'css/site.css', '../img/x.png'],
  ['../img/x.png', 'routes/a.html', 'css/site.css', '../img/x.png'],
  ['x.png', 'routes/a.html', 'site.css', 'routes/x.png'],
  ['x.png?v=2#f', 'routes/a.html', 'css/site.css', '../routes/x.png?v=2#f'],
  ['Harbour%20Map.png', 'img/a.html', 'css/site.css', '../img/Harbour%20Map.png'],
  ['/img/x.png', 'routes/a.html', 'css/site.css', '/img/x.png'],
  ['http://h/x.png', 'routes/a.html', 'css/site.css', 'http://h/x.png'],
  ['data:x', 'routes/a.html', 'css/site.css', 'data:x'],
  ['#glow', 'routes/a.html', 'css/site.css', '#glow'],
  ['', 'routes/a.html', 'css/site.css', ''],
  ['x.png', 'css/a.html', 'css/site.css', 'x.png'],
  ['../up.png', 'index.html', 'css/site.css', undefined],
  ['?q', 'index.html', 'css/site.css', undefined],
])('%j of %s, from %s, is %j', (reference, page, sheet, rewritten) => {
  expect(rebaseReference(reference, siteBase(page), sheet)).toBe(rewritten);
});

test('with an absolute base nothing relative can be moved', () => {
  expect(rebaseReference('x.png', { kind: 'remote', url: 'http://h/' }, 'css/a.css')).toBeUndefined();
});
