import { expect, test } from '@jest/globals';
import { readScope, writeScope } from './scopeInAddress.ts';

const pages = ['a.html', 'b.html', ...Array.from({ length: 300 }, (_, i) => `n/page-number-${i}.html`), 'o/1.html'];

test.each([
  ['a page', ['b.html'], 'page=b.html'],
  ['a folder and a page', ['a.html', ...pages.slice(2, 302)], 'folder=n%2F&page=a.html'],
  ['many pages, as numbers', [...pages.slice(3, 250), 'o/1.html'], 'pages=4-250%2C303'],
  ['all is none', pages, ''],
  ['nothing is all', [], ''],
])('%s: written and read again', (_shows, chosen, written) => {
  const search = writeScope(new URLSearchParams('page=old.html'), chosen, pages);
  expect(search.toString()).toBe(written);
  expect(readScope(search, pages)).toEqual(chosen.length === 0 ? pages : chosen);
});

test('the rest of the address stays; pages that are not there choose nothing', () => {
  expect(writeScope(new URLSearchParams('open=x&pages=1-2'), ['a.html'], pages).toString()).toBe('open=x&page=a.html');
  expect(readScope(new URLSearchParams('page=gone.html&pages=x,9999'), pages)).toEqual(pages);
});
