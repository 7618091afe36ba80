import { expect, test } from '@jest/globals';
import { freeSheetName } from './freeSheetName.ts';

test.each([
  [[], 'css/site.css'],
  [['CSS/Site.css'], 'css/shared.css'],
  [['css/site.css', 'css/shared.css', 'css/gathered.css', 'css/site-2.css'], 'css/site-3.css'],
])('beside %j: %s', (paths, name) => {
  expect(freeSheetName(paths)).toBe(name);
});
