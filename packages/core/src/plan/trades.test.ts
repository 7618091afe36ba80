import { expect, test } from '@jest/globals';
import { applyOperations } from '../operations/operation.ts';
import { pageOf, siteOf } from '../testing/siteOf.ts';
import { planFigures } from './planFigures.ts';
import { planWhole } from './planWhole.ts';
import { scaleTrades } from './scales.ts';
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
  expect(trade).toMatchObject({
    label: 'p',
    pages: ['c.html'],
    others: 2,
    properties: ['left'],
    saves: { marks: 1, rules: 1 },
  });
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
    'a.html': pageOf('<style>p{top:0;left:0} #x{right:0}</style>', '<p class=n style="color:red">a</p><p>b</p><i style="color:blue">c</i><p id=x style="right:9px">d</p>'), // oxfmt-ignore
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
  const lengthened = siteOf({
    ...Object.fromEntries([...styled.files].map(([path, file]) => [path, file.text!])),
    'css/new.css': '.a.a { top: 0 } .a.b { top: 0 } .b:not(#_) { top: 0 } .m p { left: 0 } p { left: 0 }',
  });
  const marked = [{ ...made.written, marks: [{ name: 'm', on: 'body' as const, pages: ['a.html'] }] }];
  expect(planFigures(styled, lengthened, marked)).toMatchObject({ repeatedClasses: 2, declarationsTwice: 1 });
});

test('pages that have a class only because they lack a rule may take it; then the class is not needed', () => {
  const menu = 'nav a{color:red} nav a:hover{color:blue}';
  const body = '<nav><a href=x>a</a></nav>';
  const files = Object.fromEntries(
    ['a', 'b', 'c'].map((name) => [`${name}.html`, pageOf(`<style>${menu}</style>`, body)]),
  );
  const lacking = siteOf({ ...files, 'd.html': pageOf('<style>nav a{color:red}</style>', body) });
  const [trade, ...others] = tradesOf(lacking, plan(lacking).written);
  expect(others).toEqual([]);
  expect(trade).toMatchObject({
    label: 'nav a:hover',
    pages: ['d.html'],
    others: 3,
    properties: ['color'],
    saves: { marks: 1 },
  });
  const taken = applyOperations(lacking, [trade!.operation]);
  if (!taken.ok) throw new Error('it does not fit');
  expect(plan(taken.value.site).written.marks).toBeUndefined();
});

test('style attributes that differ by a number a little are a scale; far apart, of two kinds or of other elements they are none', () => {
  const items = (...values: readonly string[]): string =>
    values.map((v) => `<p style="top:0;padding-left:${v}">a</p>`).join('');
  const paths = ['a.html'];
  const scales = (body: string) => scaleTrades(siteOf({ 'a.html': pageOf('', body) }), paths);
  expect(scales(items('6px', '8px', '8px', '10px'))).toMatchObject([
    { label: 'p', pages: paths, properties: ['padding-left'], saves: { rules: 2 }, scale: { from: ['6px', '10px'], to: '8px', elements: 2 } }, // oxfmt-ignore
  ]);
  for (const body of [
    items('6px', '8px'),
    items('6px', '60px', '8px'),
    items('6px', '8px', '1em'),
    items('6px', '8px') + '<li style="top:0;padding-left:7px">',
  ])
    expect(scales(body)).toEqual([]);
  const site = siteOf({ 'a.html': pageOf('', items('6px', '8px', '10px')) });
  const taken = applyOperations(site, [scaleTrades(site, paths)[0]!.operation]);
  if (!taken.ok) throw new Error('it does not fit');
  expect(scaleTrades(taken.value.site, paths)).toEqual([]);
  expect(taken.value.site.files.get('a.html')!.text!.match(/padding-left:8px/g)).toHaveLength(3);
});
