import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { CascadeSession, type PageCascade } from '../cascade/pageCascade.ts';
import { slotKeys } from '../cascade/stack.ts';
import { pageOf, siteOf } from '../testing/siteOf.ts';
import { madeAlike, namesMade, rulesFor } from './madeElements.ts';

const script = '<script>box.append(document.createElement("p"), "b i u a x one two wide")</script>';

/** Two pages of one session that differ in their block only, and the names their script may give. */
function two(rules: string, later: string, doctype = '<!DOCTYPE html>'): readonly [boolean, PageCascade, PageCascade] {
  const text = (block: string): string =>
    pageOf(`<style>${block}</style>`, script).replace(/^<!DOCTYPE html>/i, doctype);
  const site = siteOf({ 'a.html': text(rules), 'b.html': text(later) });
  const session = new CascadeSession();
  const [old, now] = ['a.html', 'b.html'].map((path) => session.open(site, site.files.get(path)!));
  return [madeAlike(old!, now!, namesMade(old!, site)!), old!, now!];
}

test.each([
  ['the same', '.b{top:0} .i{top:1px}', '.b{top:0} .i{top:1px}', true],
  ['two classes that one element may have change places', '.b{top:0} .i{top:1px}', '.i{top:1px} .b{top:0}', false],
  ['and say different things', '.b{top:0} .i{left:1px}', '.i{left:1px} .b{top:0}', true],
  ['two types', 'b{top:0} i{top:1px}', 'i{top:1px} b{top:0}', true],
  ['two IDs', '#b{top:0} #i{top:1px}', '#i{top:1px} #b{top:0}', true],
  ['a class and a type that may have it', 'b{top:0} p{left:0} .u{left:1px}', 'p{left:0} .u{left:1px} b{top:0}', true],
  ['two pseudo-elements of one class', '.b::before{top:0} .b::after{top:1px}', '.b::after{top:1px} .b::before{top:0}', true],
  ['a rule that came', '.b{top:0}', '.b{top:0} .i{left:0}', false],
  ['a rule for a name that no script says', '.b{top:0}', '.b{top:0} .q{top:1px}', true],
  ['what resets all', '.b{all:unset} .i{top:0}', '.i{top:0} .b{all:unset}', false],
  ['an inset and its physical side', '.b{inset-inline-start:0} .i{left:1px}', '.i{left:1px} .b{inset-inline-start:0}', false],
  ['importance that beats order', '.b{top:0!important} .i{top:1px}', '.i{top:1px} .b{top:0!important}', true],
])('elements that scripts make: %s', (_shows, rules, later, alike) => {
  expect(two(rules, later)[0]).toBe(alike);
}); // oxfmt-ignore

test('in quirks mode an element has an ID in any case', () => {
  const [rules, later] = ['#One{top:0} #one{top:1px}', '#one{top:1px} #One{top:0}'];
  expect(two(rules, later, '')[0]).toBe(false);
});

/** The same question asked slowly: of each type and ID all rules for it, and what they come to. */
function alikeByHand(old: PageCascade, now: PageCascade, names: ReadonlySet<string>): boolean {
  const looks = [old, now].map((cascade) => {
    const { rules } = rulesFor(cascade, names);
    return [undefined, 'b', 'i', 'u', 'a', 'p'].flatMap((tag) =>
      [undefined, 'one', 'two'].map((id) => {
        const meant = rules.filter(({ one }) =>
          one.selector.compounds.at(-1)!.simples.every((simple) => (simple.kind === 'type' ? simple.lower === tag : simple.kind === 'id' ? simple.name === id : true)),
        );
        const sources = meant.map(({ one, text }) => ({ block: one.rule.compiled.block, pseudoElement: one.pseudoElement, layerRank: one.layerRank, condition: `${one.rule.conditionKey} ${text}`, mark: one.mark }));
        return [...slotKeys(sources)].sort(([x], [y]) => (x < y ? -1 : 1));
      }),
    );
  });
  return JSON.stringify(looks[0]) === JSON.stringify(looks[1]);
} // oxfmt-ignore

const rule = fc
  .tuple(
    fc.constantFrom('b', 'i', '.x', '.wide', '.x:hover', '.b', '.u', '#one', '#two', '.wide > a', '.wide::before'),
    fc.constantFrom(
      'top:0',
      'top:1px',
      'inset:2px',
      'inset-block-start:3px',
      'all:unset',
      'top:4px!important',
      'top:revert-layer',
    ),
    fc.constantFrom('', '', '', '@layer l', '@media (min-width:9px)'),
  )
  .map(([selector, declaration, around]) => `${around}${around && '{'}${selector}{${declaration}}${around && '}'}`);

test('no two looks of made elements are called alike that are not, and few are told apart that are alike', () => {
  let alike = 0;
  let apart = 0;
  let needless = 0;
  const ask = (rules: readonly string[], from: number, to: number): void => {
    const moved = rules.filter((_, i) => i !== from);
    moved.splice(to, 0, rules[from]!);
    const [said, old, now] = two(rules.join(' '), moved.join(' '));
    const names = new Set(['b', 'i', 'u', 'a', 'p', 'x', 'wide', 'one', 'two']);
    const by = alikeByHand(old, now, names);
    if (said) expect([rules, by]).toEqual([rules, true]);
    if (said) alike++;
    else if (!by) apart++;
    else needless++;
  };
  const rules = fc.array(rule, { minLength: 5, maxLength: 8 });
  fc.assert(
    fc.property(rules, fc.nat(5), fc.integer({ min: 1, max: 5 }), (list, from, by) =>
      ask(list, from % list.length, (from + by) % list.length),
    ),
    { numRuns: 150, endOnFailure: true },
  );
  expect([alike > 50, apart > 10, needless < 5]).toEqual([true, true, true]);
});
