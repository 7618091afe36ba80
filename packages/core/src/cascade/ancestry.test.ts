import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { matchSelector } from '../selectors/matchSelector.ts';
import { siteOf } from '../testing/siteOf.ts';
import { matchAtRest, matchElement } from './matchElement.ts';
import { CascadeSession, type PageCascade } from './pageCascade.ts';
import type { RuleIndex } from './ruleIndex.ts';

const names = ['a', 'b', 'C', 'c'];
const compound = fc
  .tuple(
    fc.constantFrom('', 'p', 'div', '*', 'B'),
    fc.array(
      fc.constantFrom(
        '.a',
        '.b',
        '.C',
        '.c',
        '#a',
        '#C',
        ':hover',
        ':not(.a)',
        ':where(.b)',
        ':is(.a, #a)',
        ':first-child',
        '[id]',
      ),
      { maxLength: 2 },
    ),
  )
  .map(([tag, rest]) => tag + rest.join('') || '.a');
const selector = fc
  .tuple(compound, fc.array(fc.tuple(fc.constantFrom(' ', ' ', ' > ', ' + ', ' ~ '), compound), { maxLength: 3 }))
  .map(([first, others]) => first + others.map((one) => one.join('')).join(''));

interface Drawn {
  readonly tag: string;
  readonly id: string | undefined;
  readonly classes: readonly string[];
  readonly children: readonly Drawn[];
}
const { element } = fc.letrec<{ element: Drawn }>((tie) => ({
  element: fc.record(
    {
      tag: fc.constantFrom('div', 'p', 'b', 'DIV'),
      id: fc.option(fc.constantFrom(...names), { nil: undefined }),
      classes: fc.array(fc.constantFrom(...names), { maxLength: 2 }),
      children: fc.oneof({ depthSize: 'small' }, fc.constant([]), fc.array(tie('element'), { maxLength: 3 })),
    },
    { noNullPrototype: true },
  ),
}));
const written = ({ tag, id, classes, children }: Drawn): string =>
  `<${tag}${id === undefined ? '' : ` id=${id}`} class="${classes.join(' ')}">${children.map(written).join('')}</${tag}>`;

function open(selectors: readonly string[], body: string, doctype: string): PageCascade {
  const html = `${doctype}<style>${selectors.map((one) => `${one}{top:0}`).join('\n')}</style><body>${body}`;
  const site = siteOf({ 'a.html': html });
  return new CascadeSession().open(site, site.files.get('a.html')!);
}

/** Each selector asked of each element by itself, against what is told by place and names. */
function holdAgainstEach(page: PageCascade): void {
  const index: RuleIndex = page.session.sharedIndex(page.rules, page.quirks);
  for (const one of page.tree.elements) {
    const alone = (state: 'any' | 'rest', least: number): readonly number[] =>
      index.all
        .filter(({ selector: asked }) => matchSelector(one, asked, { quirks: page.quirks, state }) >= least)
        .map(({ position }) => position);
    const positions = (found: ReturnType<typeof matchElement>): readonly number[] =>
      found.map(({ indexed }) => indexed.position);
    expect(positions(matchElement(one, index))).toEqual(alone('any', 1));
    expect(positions(matchAtRest(one, index))).toEqual(alone('rest', 2));
  }
}

test.each([
  ['standards', '<!DOCTYPE html>'],
  ['quirks', ''],
])('in %s mode an index says of every element what each selector says by itself', (_mode, doctype) => {
  const run = (selectors: readonly string[], drawn: readonly Drawn[]): void =>
    holdAgainstEach(open(selectors, drawn.map(written).join(''), doctype));
  fc.assert(
    fc.property(fc.array(selector, { minLength: 1, maxLength: 12 }), fc.array(element, { maxLength: 6 }), run),
    { numRuns: 300, endOnFailure: true },
  );
});

test('so it does where more places can be told apart than are kept', () => {
  const many = Array.from({ length: 13 }, (_, i) => `.k${i}`);
  // each of 4,096 sets of classes above a paragraph
  const body = Array.from(
    { length: 4096 },
    (_, set) =>
      `<div class="${many.flatMap((name, i) => ((set >> i) & 1 ? [name.slice(1)] : [])).join(' ')}"><p></div>`,
  ).join('');
  holdAgainstEach(
    open(
      many.map((name) => `${name} p`),
      body,
      '<!DOCTYPE html>',
    ),
  );
});

test('elements of one place and of equal names share one number, others do not', () => {
  const page = open(['.a p', '#b'], '<div class=a><p id=x><p id=y></div><p>', '<!DOCTYPE html>');
  const numbers = page.tree.elements.filter(({ tag }) => tag === 'p').map((one) => page.listOf(one));
  expect(numbers[0]).toBe(numbers[1]);
  expect(numbers[2]).not.toBe(numbers[0]);
});
