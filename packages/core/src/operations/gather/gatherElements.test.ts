import { describe, expect, test } from '@jest/globals';
import { planLookKeepingHints } from '../../plan/planAttributes.ts';
import { planWhole } from '../../plan/planWhole.ts';
import { proveSites } from '../../proof/proveSites.ts';
import { askChromium } from '../../testing/chromium.ts';
import { pageOf, siteOf, textIn } from '../../testing/siteOf.ts';
import { planGatherHints } from './gatherHints.ts';
import { applyOperations } from '../operation.ts';

const gather = { kind: 'gather-hints', sheet: 'm.css', elements: true } as const;

/** The body after, and the sheet. */
function gathered(body: string, head = '') {
  const before = siteOf({ 'a.html': pageOf(head, body) });
  const plan = planLookKeepingHints(before, gather);
  if (!plan.ok) throw new Error(plan.problem.kind);
  const { site, stayed, proof } = plan.value;
  const text = textIn(site, 'a.html')!;
  return {
    before,
    site,
    stayed,
    proof,
    body: text.slice(text.indexOf('<body') + 6, text.indexOf('</body>')),
    sheet: textIn(site, 'm.css'),
  };
}

const centred = ':where(.box-centred) {\n  text-align: center;\n  text-align: -webkit-center;\n}\n';
const rows = [
  { shows: 'center', body: '<center><p>a</p><table><tr><td>b</table></center>', becomes: '<div class="box-centred"><p>a</p><table><tr><td>b</table></div>', sheet: centred },
  { shows: 'capitals, attributes of its own', body: '<CENTER ID=x CLASS="y">a</CENTER>', becomes: '<DIV ID=x CLASS="y box-centred">a</DIV>', sheet: centred },
  { shows: 'font with its attributes', body: '<p><font size="2" color=red>a <b>b</b></font>', becomes: '<p><span class="words-size-red">a <b>b</b></span>', sheet: ':where(.words-size-red) {\n  font-size: small;\n  color: red;\n}\n' },
  { shows: 'font inside font', body: '<font color=red>a<font face=serif>b</font></font>', becomes: '<span class="words-red">a<span class="words-lettered">b</span></span>', sheet: undefined },
  { shows: 'a font that says nothing', body: '<font class=k>a</font>', becomes: '<span class=k>a</span>', sheet: undefined },
  { shows: 'one class for center and for align', body: '<center>a</center><div align=center>b</div>', becomes: '<div class="box-centred">a</div><div class="box-centred">b</div>', sheet: centred },
]; // oxfmt-ignore

describe.each(rows)('$shows', ({ body, becomes, sheet }) => {
  test('becomes a plain element, whatever rules say', () => {
    for (const head of ['', '<style>\n* {\n  color: green;\n  text-align: left;\n}\n</style>']) {
      const done = gathered(body, head);
      expect(done.body).toBe(becomes);
      if (sheet !== undefined) expect(done.sheet).toBe(sheet);
      expect([done.stayed, done.proof.verdict]).toEqual([[], 'same']);
    }
  });
});

test('rules that take lines away leave none to redraw', () => {
  const { body } = gathered('<p><font color=red>a</font>', '<style>* { text-decoration: none }</style>');
  expect(body).toBe('<p><span class="words-red">a</span>');
});

test('where elements only get another tag no sheet is made, nor told of', () => {
  const site = siteOf({ 'a.html': pageOf('', '<font class=k>a</font>') });
  const plan = planWhole(site, 'css/site.css', { hints: true });
  if (!plan.ok) throw new Error(plan.problem.kind);
  expect([...plan.value.site.files.keys()]).toEqual(['a.html']);
  expect(plan.value.sheets).toEqual([]);
  const step = applyOperations(site, plan.value.operations);
  expect(step.ok && step.value.steps.map(({ sentence }) => sentence)).toEqual([
    'Turn 1 font or center element into plain ones',
  ]);
});

const kept = [
  ['its tags are not its own', '<p><font color=red>a<p>b</font>c', '', '<p><font class="words-red">a<p>b</font>c'],
  ['it has no end tag', '<center>a', '', '<center>a'],
  ['a rule asks for the element', '<center>a</center>', '<style>center { top: 0 }</style>', '<center>a</center>'],
  ['a rule asks for what it would become', '<center>a</center>', '<style>div { top: 0 }</style>', '<center>a</center>'],
  ['a rule counts elements of a type', '<center>a</center><div>b</div>', '<style>div:first-of-type { top: 0 }</style>', '<center>a</center><div>b</div>'],
  ['a rule rolls back to the browser’s own style', '<center>a</center>', '<style>* { text-align: revert }</style>', '<center>a</center>'],
  ['a link draws a line through its text', '<a href=x>a <font color=red>b</font></a>', '', '<a href=x>a <font class="words-red">b</font></a>'],
  ['a rule draws one', '<p><font color=red>b</font></p>', '<style>p { text-decoration: underline }</style>', '<p><font class="words-red">b</font></p>'],
  ['a script names the element', '<font color=red>b</font><script>document.querySelectorAll("font")</script>', '', '<font class="words-red">b</font><script>document.querySelectorAll("font")</script>'],
] as const; // oxfmt-ignore

test.each(kept)('it stays where %s', (_shows, body, head, becomes) => {
  const before = siteOf({ 'a.html': pageOf(head, body), 'b.html': pageOf('', '<center>x</center>') });
  const plan = planLookKeepingHints(before, gather);
  if (!plan.ok) throw new Error(plan.problem.kind);
  const text = textIn(plan.value.site, 'a.html')!;
  expect(text.slice(text.indexOf('<body') + 6, text.indexOf('</body>'))).toBe(becomes);
  expect(textIn(plan.value.site, 'b.html')).toContain('<div class="box-centred">x</div>');
});

test('the proof finds each of these different where the element is replaced all the same', () => {
  for (const [, body, head] of kept.slice(2, -1)) {
    const before = siteOf({ 'a.html': pageOf(head, body) });
    const tag = body.includes('<font') ? ['font', 'span'] : ['center', 'div'];
    const css = tag[0] === 'font' ? ':where(.n) { color: red }' : ':where(.n) { text-align: -webkit-center }';
    const text = textIn(before, 'a.html')!
      .replace(` color=red`, '')
      .replace(`<${tag[0]!}`, `<${tag[1]!} class=n`)
      .replace(`</${tag[0]!}>`, `</${tag[1]!}>`)
      .replace('<head>', '<head><link rel=stylesheet href=m.css>');
    expect(proveSites(before, siteOf({ 'a.html': text, 'm.css': css })).pages[0]?.verdict).toBe('differs');
  }
});

test('Chromium computes the same for every element before and after', async () => {
  const ask = `[...document.body.querySelectorAll('*')].map((e) => [...getComputedStyle(e)].map((name) => name + ':' + getComputedStyle(e).getPropertyValue(name)).join(';') + JSON.stringify(e.getBoundingClientRect())).join('\\n')`;
  const heads = [
    '',
    '<style>* { font-size: 15px; text-align: left }</style>',
    '<style>body { text-align: right; color: green }</style>',
  ];
  const cases = rows.flatMap(({ body }) =>
    ['<!DOCTYPE html>', ''].flatMap((doctype) =>
      heads.flatMap((head) => {
        const { before, site } = gathered(body, head);
        return [before, site].map((one) => ({
          html: textIn(one, 'a.html')!.replace('<!DOCTYPE html>', doctype),
          files: { 'm.css': textIn(one, 'm.css') ?? '' },
          ask,
        }));
      }),
    ),
  );
  const answers = await askChromium(cases);
  for (let i = 0; i < answers.length; i += 2) expect(answers[i + 1]).toBe(answers[i]);
});

test('what stays is named in the whole plan', () => {
  const site = siteOf({ 'a.html': pageOf('', '<p><font color=red>a<p>b</font>c<center>d</center>') });
  const plan = planWhole(site, 'css/site.css', { hints: true });
  if (!plan.ok) throw new Error(plan.problem.kind);
  expect(plan.value.stays).toMatchObject([{ page: 'a.html', kind: 'presentational', code: 'nesting' }]);
  const direct = planGatherHints(site, gather);
  expect(direct.ok && direct.value.left.map(({ reason }) => reason)).toEqual(['nesting']);
});
