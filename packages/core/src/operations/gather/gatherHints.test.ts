import { describe, expect, test } from '@jest/globals';
import { planLookKeepingHints } from '../../plan/planAttributes.ts';
import { proveSites } from '../../proof/proveSites.ts';
import { askChromium } from '../../testing/chromium.ts';
import { pageOf, siteOf, textIn } from '../../testing/siteOf.ts';
import { describeElementStays, planGatherHints } from './gatherHints.ts';
import { applyOperations, describeOperationProblem } from '../operation.ts';

const gather = { kind: 'gather-hints', sheet: 'm.css' } as const;

function gathered(body: string, head = '') {
  const before = siteOf({ 'a.html': pageOf(head, body) });
  const done = applyOperations(before, [gather]);
  if (!done.ok) throw new Error(describeOperationProblem(done.problem.problem));
  const text = textIn(done.value.site, 'a.html')!;
  return {
    before,
    after: done.value.site,
    body: text.slice(text.indexOf('<body') + 6, text.indexOf('</body>')),
    sheet: textIn(done.value.site, 'm.css')!,
  };
}

const rows = [
  { shows: 'a colour of a cell', body: '<table><tr><td bgcolor="#EEE">a</td></tr></table>', becomes: '<table><tr><td class="cell-on-pearl">a</td></tr></table>', sheet: ':where(.cell-on-pearl) {\n  background-color: #eeeeee;\n}\n' },
  { shows: 'several attributes, one class', body: '<table><tr><td width=50 valign="top" class=x>a</td></tr></table>', becomes: '<table><tr><td class="x cell-width-50-top">a</td></tr></table>', sheet: ':where(.cell-width-50-top) {\n  width: 50px;\n  vertical-align: top;\n}\n' },
  { shows: 'a paragraph', body: '<P ALIGN="right">a</P>', becomes: '<P CLASS="text-right">a</P>', sheet: ':where(.text-right) {\n  text-align: right;\n  text-align: -webkit-right;\n}\n' },
  { shows: 'centred blocks: the standard’s word first', body: '<div align=center>a</div>', becomes: '<div class="box-centred">a</div>', sheet: ':where(.box-centred) {\n  text-align: center;\n  text-align: -webkit-center;\n}\n' },
  { shows: 'a font element', body: '<font color=red size=5 face="Georgia, serif">a</font>', becomes: '<font class="words-red-size-lettered">a</font>', sheet: ':where(.words-red-size-lettered) {\n  color: red;\n  font-size: x-large;\n  font-family: Georgia, serif;\n}\n' },
  { shows: 'what reaches cells stays', body: '<table border=1 cellpadding=4 cellspacing=0><tr><td>a</td></tr></table>', becomes: '<table border=1 cellpadding=4 class="table-ruled"><tr><td>a</td></tr></table>', sheet: ':where(.table-ruled) {\n  border-spacing: 0px;\n}\n' },
]; // oxfmt-ignore

describe.each(rows)('$shows', ({ body, becomes, sheet }) => {
  test('becomes a class that counts as little', () => {
    expect(gathered(body)).toMatchObject({ body: becomes, sheet });
  });
  test('looks the same, whatever rules say', () => {
    const head = '<style>* { top: 1px } td, p, div { background-color: lime } .x { width: 9px }</style>';
    for (const one of ['', head]) {
      const { before, after } = gathered(body, one);
      expect(proveSites(before, after)).toMatchObject({ verdict: 'same' });
    }
  });
});

test('Chromium computes the same before and after', async () => {
  const ask = `[...document.body.querySelectorAll('*')].map((e) => [...getComputedStyle(e)].map((name) => name + ':' + getComputedStyle(e).getPropertyValue(name)).join(';')).join('\\n')`;
  const heads = [
    '',
    '<style>* { font-size: 15px } td, p, div { text-align: left; background-color: lime } .x { width: 9px }</style>',
  ];
  const cases = rows.flatMap(({ body }) =>
    heads.flatMap((head) => {
      const { before, after } = gathered(body, head);
      return [before, after].map((site) => ({
        html: textIn(site, 'a.html')!,
        files: { 'm.css': textIn(site, 'm.css') ?? '' },
        ask,
      }));
    }),
  );
  const answers = await askChromium(cases);
  for (let i = 0; i < answers.length; i += 2) expect(answers[i + 1]).toBe(answers[i]);
});

test.each([
  ['an attribute selector asks for it', '<style>[bgcolor] { left: 1px }</style>'],
  ['a layer stands between attributes and rules', '<style>@layer a { td { background-color: lime } }</style>'],
])('taken back where %s', (_shows, head) => {
  const body = '<table><tr><td bgcolor="#eee">a</td><td valign=top>b</td></tr></table>';
  const plan = planLookKeepingHints(siteOf({ 'a.html': pageOf(head, body) }), gather);
  if (!plan.ok) throw new Error(plan.problem.kind);
  expect(textIn(plan.value.site, 'a.html')).toContain('<td bgcolor="#eee">a</td><td class="cell-top">b</td>');
  expect(plan.value.proof.verdict).toBe('same');
});

test('where a rule rolls back a layer nothing is taken, since Chromium tells attributes and rules apart', async () => {
  const head = '<style>td { background-color: revert-layer }</style>';
  const body = '<table><tr><td bgcolor="#eee">a</td></tr></table>';
  const site = siteOf({ 'a.html': pageOf(head, body) });
  expect(planLookKeepingHints(site, gather)).toMatchObject({ ok: false, problem: { kind: 'no-hints' } });
  const { after } = gathered(body, head);
  const ask = `getComputedStyle(document.querySelector('td')).backgroundColor`;
  const answers = await askChromium([
    { html: pageOf(head, body), ask },
    { html: textIn(after, 'a.html')!, files: { 'm.css': textIn(after, 'm.css')! }, ask },
  ]);
  expect(answers).toEqual(['rgb(238, 238, 238)', 'rgba(0, 0, 0, 0)']);
});

test.each([
  ['nothing to take', { 'a.html': pageOf('', '<p>a') }, 'no-hints'],
  ['a sheet that is there', { 'a.html': pageOf('', '<p align=left>a'), 'm.css': '' }, 'hints-sheet-taken'],
])('%s is refused', (_shows, files, kind) => {
  expect(planGatherHints(siteOf(files), gather)).toMatchObject({ ok: false, problem: { kind } });
});

test('attributes that no rule can stand for stay, and are said to', () => {
  const html = '<!DOCTYPE html><title>t</title><body bgcolor="#eee" link="#00e" vlink="#518"><p align=right>a';
  const plan = planGatherHints(siteOf({ 'a.html': html }), gather);
  if (!plan.ok) throw new Error('refused');
  expect(plan.value.left).toEqual([
    { page: 'a.html', element: 'html>body:nth-child(2)', reason: 'no-rule-for-it', names: ['link', 'vlink'] },
  ]);
  expect(plan.value.left.map(describeElementStays)).toEqual(['no rule surely says what link, vlink say']);
});
