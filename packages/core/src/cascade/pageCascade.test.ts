import { expect, test } from '@jest/globals';
import { pagesOf } from '../source/site.ts';
import { hostileSite } from '../testing/hostileSite.ts';
import { pageOf, siteOf } from '../testing/siteOf.ts';
import { matchElement, styleAttributeOf } from './matchElement.ts';
import { CascadeSession } from './pageCascade.ts';

test('the number of a match list, known from an element like it, is the one matching gives', () => {
  const odd = pageOf(
    '<style>p { top: 0 } .a { top: 1px } .b.a { top: 2px } #i { top: 3px } u i { top: 4px } b:hover { top: 5px } .c > p { top: 6px }</style>',
    '<p>1<p class=a>2<p class="b a">3<p class="a b">4<p id=i>5<p id="i\na" class=b>6<p id=i class="a b">7<i>8</i><u><i>9</i></u><b>10</b><div class=c><p>11</p></div><svg><a class=a /><p class=a>12</svg>',
  );
  for (const site of [
    siteOf({ 'a.html': odd }),
    siteOf({ 'a.html': odd.replace('<!DOCTYPE html>', '').replaceAll('class=a', 'class=A') }),
    ...[1, 2, 3, 4, 5, 6, 7, 8].map((seed) => siteOf(hostileSite(seed))),
  ]) {
    // oxfmt-ignore
    const session = new CascadeSession();
    for (const file of pagesOf(site)) {
      const cascade = session.open(site, file);
      const index = session.sharedIndex(cascade.rules, cascade.quirks);
      for (const element of cascade.tree.elements) {
        const matched = session.listNumber(
          matchElement(element, index),
          styleAttributeOf(element),
          cascade.rules.sources.base,
        );
        expect(cascade.listOf(element)).toBe(matched);
      }
    }
  }
});
