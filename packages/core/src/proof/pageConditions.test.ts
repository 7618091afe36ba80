import { expect, test } from '@jest/globals';
import { withoutPageConditions } from './pageConditions.ts';

/** On `<body class="news old"><p class="old">`. */
const onTop = new Set(['news', 'old']);
const isNew = (name: string): boolean => name !== 'old';

test.each([
  ['.news p', 'p'],
  [':where(.news) p', 'p'],
  [':where(.news, .other) > p', ':where(.news, .other) > p'],
  ['.other p', undefined],
  ['body:not(.other) p', 'p'],
  [':where(body:not(.news)) p', undefined],
  [':is(.other, .news) a:hover', 'a:hover'],
  ['body.news', 'body'],
  ['body:where(.other)', undefined],
  ['*:where(.news, .news *)', '*'],
  ['p:is(.other, .other *)', undefined],
  ['.old p', '.old p'],
  ['.news.old p', '.news.old p'],
  ['.new', '.new'],
  ['p.new', 'p.new'],
  ['div .news p', 'div .news p'],
])('%s on a page whose body has the class: %s', (selector, expected) => {
  expect(withoutPageConditions(selector, onTop, isNew)).toBe(expected);
});
