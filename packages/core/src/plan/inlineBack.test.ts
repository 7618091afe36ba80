import { expect, test } from '@jest/globals';
import juice from 'juice';
import { parsePage } from '../page/parsePage.ts';
import { attributeOf } from '../page/nodes.ts';
import { compileBlock } from '../cascade/compileBlock.ts';
import { parseDeclarations } from '../sheet/parseSheet.ts';
import { siteBase } from '../values/urls.ts';
import { orderFreeKey } from '../survey/versionKey.ts';
import { pageOf, siteOf, textIn } from '../testing/siteOf.ts';
import { planWhole } from './planWhole.ts';

const looks = ['color: #c00', 'margin: 0 4px', 'padding-left: 2em; font-weight: bold', 'border: 1px solid #ccc', 'text-align: right', 'float: left; width: 50%', 'COLOR: Red; background: #eee', 'line-height: 1.5; font: 12px/1.2 serif', 'color: teal !important; top: 0']; // oxfmt-ignore
const tags = ['p', 'h2', 'div', 'span', 'em'];

/** The style attribute of each element, by meaning. */
const attributesOf = (text: string): readonly string[] =>
  parsePage(text)
    .elements.filter((element) => tags.includes(element.tag))
    .map((element) => {
      const declarations = parseDeclarations(attributeOf(element, 'style') ?? '');
      return orderFreeKey(
        compileBlock(declarations, { base: siteBase('a.html'), fingerprint: undefined }).declarations,
      );
    });

function pageNumber(seed: number): string {
  let state = seed * 7919 + 11;
  const pick = (n: number): number => (state = (Math.imul(state, 1103515245) + 12345) >>> 0) % n;
  const body = Array.from({ length: 12 }, () => {
    const tag = tags[pick(tags.length)]!;
    const style = pick(3) > 0 ? ` style="${looks[pick(looks.length)]!}"` : '';
    const own = pick(2) > 0 ? ` class="${['a', 'b', 'a b'][pick(3)]!}"` : '';
    return `<${tag}${own}${style}>x</${tag}>`;
  }).join('\n');
  return pageOf('', body);
}

// what an inliner does is the way back: rules become style attributes. Its subset has no media, no states, no layers.
test('gathered and inlined again by a reference library (juice 11), the style attributes are the old ones', () => {
  for (let seed = 1; seed <= 12; seed++) {
    const before = siteOf({ 'a.html': pageNumber(seed), 'b.html': pageNumber(seed + 100) });
    const plan = planWhole(before, 'site.css');
    if (!plan.ok) throw new Error(plan.problem.kind);
    expect(plan.value.stays).toEqual([]);
    const sheet = textIn(plan.value.site, 'site.css')!;
    for (const path of ['a.html', 'b.html']) {
      const inlined = juice.inlineContent(textIn(plan.value.site, path)!, sheet, { preserveImportant: true });
      expect(attributesOf(inlined)).toEqual(attributesOf(textIn(before, path)!));
    }
  }
});
