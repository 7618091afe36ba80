import { expect, test } from '@jest/globals';
import { attributesSheetBeside, freeSheetName } from './freeSheetName.ts';

test.each([
  [[], 'css/site.css'],
  [['CSS/Site.css'], 'css/shared.css'],
  [['css/site.css/readme.txt'], 'css/shared.css'],
  [['css'], 'site.css'],
  [['css/site.css', 'css/shared.css', 'css/gathered.css', 'css/site-2.css'], 'css/site-3.css'],
])('beside %j: %s', (paths, name) => {
  expect(freeSheetName(paths)).toBe(name);
});

test('the sheet for attributes lies beside the shared one, under a free name', () => {
  expect(attributesSheetBeside('css/site.css', [])).toBe('css/attributes.css');
  expect(attributesSheetBeside('site.css', ['Attributes.css', 'attributes-2.css'])).toBe('attributes-3.css');
});
