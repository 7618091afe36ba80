import { describe, expect, test } from '@jest/globals';
import { planLookKeepingAttributes } from '../../plan/planAttributes.ts';
import { pageOf, siteOf, textIn } from '../../testing/siteOf.ts';

function gathered(pages: Readonly<Record<string, string>>) {
  const plan = planLookKeepingAttributes(siteOf(pages), { kind: 'gather-attributes', sheet: 's.css' });
  if (!plan.ok) throw new Error(plan.problem.kind);
  return {
    ...plan.value.plan,
    site: plan.value.site,
    selectors: plan.value.plan.groups.map(({ selector }) => selector),
  };
}

describe('names that are there, where they mean just these elements', () => {
  test.each([
    ['a class of its own', '<p class=tel style="top:0">1<p>2', ['.tel']],
    [
      'its type and where it lies',
      '<form id=order><label style="top:0">a</label></form><label>b</label>',
      ['#order label'],
    ],
    [
      'of two contexts the one on fewer pages',
      '<div class=all><ul class=steps><li style="top:0">a</ul><ul><li>b</ul></div>',
      ['.steps li'],
    ],
    ['a class that others have too: with its type', '<p class=x style="top:0">a</p><b class=x>b</b>', ['p.x']],
    ['others are meant as well: a class', '<p class=x style="top:0">a</p><p class=x>b</p>', ['.text-top-0']],
    ['nothing tells it apart: a class', '<p style="top:0">a</p><p>b</p>', ['.text-top-0']],
    ['a name that would have to be escaped is none', '<p class="1a" style="top:0">a</p><p>b</p>', ['.text-top-0']],
  ])('%s', (_shows, body, selectors) => {
    const more = pageOf('', '<div class=all></div><i style="left:0">x</i>');
    const made = gathered({ 'a.html': pageOf('', body), 'b.html': more });
    expect(made.selectors.filter((one) => !one.includes('left-0'))).toEqual(selectors);
  });
});

test('another page that links the sheet and has the name elsewhere counts', () => {
  const other = pageOf('', '<b class=tel>x</b><i style="left:0">y</i>');
  expect(gathered({ 'a.html': pageOf('', '<p class=tel style="top:0">1'), 'b.html': other }).selectors[0]).toBe(
    'p.tel',
  );
});

describe('a class that has to beat more takes its context', () => {
  test.each([
    [
      'its own type is enough',
      '<style>p:first-child{top:1px}</style>',
      '<p style="top:0">a</p><p>b</p>',
      'p.text-top-0',
    ],
    [
      'where it lies',
      '<style>form.order input[type=text]{top:1px}</style>',
      '<form class=order><input type=text style="top:0"><input type=text></form>',
      'form.order input.field-top-0',
    ],
    [
      'no context serves: the class again',
      '<style>.a.b p.c.c{top:1px}</style>',
      '<p class="a b"></p><p style="top:0">a</p><p>b</p>',
      '.text-top-0',
    ],
    [
      'an ID, and nothing around',
      '<style>#x{top:1px}</style>',
      '<p id=x style="top:0">a</p><p>b</p>',
      '.text-top-0:not(#_)',
    ],
  ])('%s', (_shows, head, body, selector) => {
    const made = gathered({ 'a.html': pageOf(head, body) });
    expect(made.selectors).toEqual([selector]);
  });
});

test('attributes that say nothing a browser takes go for good, and leave no rule and no link', () => {
  const made = gathered({
    'a.html': pageOf('', '<p style="">a<p style="colr: red">b<p style=" ; ">c'),
    'b.html': pageOf('', '<p style="top:0; colr: red">d'),
  });
  expect(textIn(made.site, 'a.html')).toContain('<p>a<p>b<p>c');
  expect(textIn(made.site, 'a.html')).not.toContain('<link');
  expect([made.dead, textIn(made.site, 's.css')]).toEqual([3, '.text-top-0 {\n  top: 0;\n}\n']);
});
