import { expect, test } from '@jest/globals';
import { applyOperations } from '../operations/operation.ts';
import { pageOf, siteOf } from '../testing/siteOf.ts';
import { planFigures } from './planFigures.ts';
import { planWhole } from './planWhole.ts';
import { tradesOf } from './trades.ts';

const page = (style: string): string => pageOf(`<style>${style}</style>`, '<h1>a</h1><p class=n>b</p>');
const site = siteOf({
  'a.html': page('p{top:0;left:0} h1{top:0}'),
  'b.html': page('p{top:0;left:0} h1{top:0}'),
  'c.html': page('p{top:0;left:1px} h1{top:0}'),
});

function plan(at = site) {
  const made = planWhole(at, 'css/site.css');
  if (!made.ok) throw new Error(made.problem.kind);
  const written = made.value.operations.find((one) => one.kind === 'gather-sheet');
  if (written?.kind !== 'gather-sheet') throw new Error('no sheet');
  return { ...made.value, written };
}

test('a trade says whose look would change, in what, and what that saves; taken, it saves just that', () => {
  const { written } = plan();
  const [trade, ...others] = tradesOf(site, written);
  expect(others).toEqual([]);
  expect(trade).toMatchObject({ label: 'p', pages: ['c.html'], others: 2, properties: ['left'], saves: { marks: 1, rules: 1 } }); // prettier-ignore
  const taken = applyOperations(site, [trade!.operation]);
  if (!taken.ok) throw new Error('it does not fit');
  const then = plan(taken.value.site).written;
  const rules = (of: typeof written): number => of.rules.filter(({ only }) => only?.length !== 0).length;
  expect([then.marks ?? [], rules(then)]).toEqual([[], rules(written) - 1]);
});

test('where versions agree there is nothing to trade', () => {
  const same = siteOf({ 'a.html': page('p{top:0}'), 'b.html': page('p{top:0}') });
  expect(tradesOf(same, plan(same).written)).toEqual([]);
});

test('figures: sheets, links, marks, classes made and names used, what is said twice', () => {
  const styled = siteOf({
    'a.html': pageOf('<style>p{top:0;left:0} #x{right:0}</style>', '<p class=n style="color:red">a</p><p>b</p><i style="color:blue">c</i><p id=x style="right:9px">d</p>'), // prettier-ignore
    'b.html': pageOf('<style>p{top:0;left:1px}</style>', '<p>b</p><b style="color:blue">c</b>'),
  });
  const made = plan(styled);
  expect(planFigures(styled, made.site, made.operations)).toMatchObject({
    newSheets: 1,
    linksBefore: 0,
    linksAfter: 2,
    marks: 1,
    markedPages: 1,
    classesMade: 2,
    namesUsed: 1,
    declarationsTwice: 0,
  });
  const lengthened = siteOf({ ...Object.fromEntries([...styled.files].map(([path, file]) => [path, file.text!])), 'css/new.css': '.a.a { top: 0 } .a.b { top: 0 } .b:not(#_) { top: 0 } .m p { left: 0 } p { left: 0 }' }); // prettier-ignore
  const marked = [{ ...made.written, marks: [{ name: 'm', on: 'body' as const, pages: ['a.html'] }] }];
  expect(planFigures(styled, lengthened, marked)).toMatchObject({ repeatedClasses: 2, declarationsTwice: 1 });
});
