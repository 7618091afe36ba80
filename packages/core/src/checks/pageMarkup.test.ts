import { expect, test } from '@jest/globals';
import { pageOf, siteOf } from '../testing/siteOf.ts';
import { markupFindings } from './pageMarkup.ts';

const told = (body: string): readonly string[] =>
  markupFindings(siteOf({ 'a.html': pageOf('', body) })).map(({ sentence }) => sentence);

test.each([
  ['the second class attribute does not count', '<p class="a" class="b">x</p>', ['`a`: Attribute `class` duplicated']],
  ['a block in a paragraph ends it', '<p>x<div>y</div></p>', ["`a`: Stray end tag '`</p>`'"]],
  ['a misspelt element', '<dvi>x</dvi>', ['`a`: Unknown element `<dvi>`']],
  ['an element closed by another', '<b>x<i>y</b></i>', expect.arrayContaining([expect.stringMatching(/`<\/?[bi]>`/)])],
  ['old elements are as they were', '<table><tr><td><font size="2">x</font><center>y</center></td></tr></table>', []],
  ['end tags that may be left out', '<ul><li>x<li>y</ul><p>z', []],
])('%s', (_shows, body, wanted) => {
  expect(told(body)).toEqual(wanted);
});

test('one finding for all pages that have it, with a place on each', () => {
  const page = pageOf('', '<p class="a" class="b">x</p>');
  const [finding, ...others] = markupFindings(siteOf({ 'a.html': page, 'b.html': page }));
  expect(others).toEqual([]);
  expect(finding).toMatchObject({
    kind: 'page-markup',
    severity: 'wrong',
    pages: ['a.html', 'b.html'],
    places: [
      { path: 'a.html', line: 4 },
      { path: 'b.html', line: 4 },
    ],
  });
});
