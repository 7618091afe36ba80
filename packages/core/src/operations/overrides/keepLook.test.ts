import { expect, test } from '@jest/globals';
import { proveSites } from '../../proof/proveSites.ts';
import type { Cause } from '../../proof/proof.ts';
import { applyChangeSet } from '../../source/changeSet.ts';
import type { Site } from '../../source/site.ts';
import { pageOf, siteOf } from '../../testing/siteOf.ts';
import { planKeepLook, type KeepLook } from './keepLook.ts';
import { sayingBefore } from './sayingBefore.ts';

const link = '<link rel="stylesheet" href="s.css">';
const other = pageOf(link, '<h2>Else</h2><p class="n">z');

/** What the act beside a difference puts in the draft. */
const keeping = (page: string, cause: Cause): KeepLook => ({
  kind: 'keep-look',
  page,
  elements: cause.elements.map(({ path }) => path),
  ...(cause.pseudoElement === '' ? {} : { pseudoElement: cause.pseudoElement }),
  says: sayingBefore(cause)!,
});

/** Every difference of the first page kept out, one after the other. */
function kept(before: Site, after: Site): Site {
  let at = after;
  for (const { path, causes } of proveSites(before, after).pages.slice(0, 1))
    for (const cause of causes) {
      const plan = planKeepLook(at, keeping(path, cause));
      if (!plan.ok) throw new Error(plan.problem.kind);
      const done = applyChangeSet(at, plan.value);
      if (!done.ok) throw new Error(done.problem.kind);
      at = done.value;
    }
  return at;
}

test.each<readonly [shows: string, head: string, sheet: string, rules: string]>([
  ['a colour that another value took', '<style>h2 { color: red }</style>', 'p { top: 0 }', 'h2 { color: blue }'],
  ['stronger than what decides now', '<style>#wrap h2 { color: red }</style>', '', '#wrap h2.a { color: blue }'],
  ['against importance', '<style>h2 { color: red }</style>', '', 'h2 { color: blue !important }'],
  ['what was important stays so', '<style>h2 { color: red !important }</style>', '', 'h2 { color: blue }'],
  [
    'of a pseudo-element',
    '<style>h2::before { content: "a"; color: red }</style>',
    '',
    'h2::before { content: "a"; color: blue }',
  ],
  ['of several elements', '<style>h2, p { letter-spacing: 1px }</style>', '', 'h2, p { letter-spacing: 2px }'],
  ['where nobody said anything before', '', 'p { top: 0 }', 'h2 { color: blue; margin: 3px }'],
  ['a shorthand', '<style>h2 { border: 1px solid red }</style>', '', 'h2 { border: 2px dotted red }'],
])('the old look is kept: %s', (_shows, head, sheet, rules) => {
  const body = '<div id="wrap"><h2 class="a">One</h2><h2 CLASS=a>Two</h2><p>x</div>';
  const before = siteOf({ 'a.html': pageOf(link + head, body), 'b.html': other, 's.css': `${sheet}\n` });
  const after = siteOf({ 'a.html': pageOf(link, body), 'b.html': other, 's.css': `${sheet}\n${rules}\n` });
  expect(proveSites(before, after).pages[0]!.verdict).toBe('differs');
  const made = kept(before, after);
  expect(proveSites(before, made).pages[0]!.verdict).toBe('same');
  // others look as they did with the change
  expect(proveSites(after, made).pages[1]!.verdict).toBe('same');
});

test('the least that does: one class, written in the sheet the page takes last, as sheets here are written', () => {
  const body = '<h2>One</h2>';
  const before = siteOf({
    'a.html': pageOf(`${link}<style>h2 { color: red }</style>`, body),
    's.css': 'p {\n  top: 0;\n}\n',
  });
  const after = siteOf({ 'a.html': pageOf(link, body), 's.css': 'p {\n  top: 0;\n}\nh2 {\n  color: blue;\n}\n' });
  const made = kept(before, after);
  expect(made.files.get('s.css')!.text).toBe(
    'p {\n  top: 0;\n}\nh2 {\n  color: blue;\n}\n.kept-color {\n  color: red;\n}\n',
  );
  expect(made.files.get('a.html')!.text).toContain('<h2 class="kept-color">One</h2>');
});

test.each<readonly [operation: Partial<KeepLook>, problem: string]>([
  [{ page: 'z.html' }, 'kept-page-unread'],
  [{ elements: ['html>body:nth-child(2)>h6:nth-child(9)'] }, 'kept-element-gone'],
  [{ page: 'bare.html' }, 'kept-without-sheet'],
  [{ says: { property: 'background', value: 'url(x.png)' } }, 'kept-address'],
  [{ says: { property: 'color', value: 'red } p {' } }, 'kept-with-brace'],
  [{ page: 'strong.html' }, 'kept-too-weak'],
])('refused: %j', (operation, problem) => {
  const site = siteOf({
    'a.html': pageOf(link, '<h2>x</h2>'),
    'bare.html': pageOf('', '<h2>x</h2>'),
    'strong.html': pageOf(link, '<h2 style="color: blue !important">x</h2>'),
    's.css': 'p{}',
  });
  const plan = planKeepLook(site, {
    kind: 'keep-look',
    page: 'a.html',
    elements: ['html>body:nth-child(2)>h2:nth-child(1)'],
    says: { property: 'color', value: 'red' },
    ...operation,
  });
  expect(plan.ok ? 'done' : plan.problem.kind).toBe(problem);
});

test.each([
  ['an attribute that styles it', '<table><tr><td bgcolor="red">x</table>', 'td'],
  ['a control', '<button>x</button>', 'button'],
])('where nobody said anything, what %s would be lost is left', (_shows, body, tag) => {
  const site = siteOf({ 'a.html': pageOf(link, body), 's.css': `${tag} { background-color: blue }` });
  const path =
    tag === 'td'
      ? 'html>body:nth-child(2)>table:nth-child(1)>tbody:nth-child(1)>tr:nth-child(1)>td:nth-child(1)'
      : 'html>body:nth-child(2)>button:nth-child(1)';
  const plan = planKeepLook(site, {
    kind: 'keep-look',
    page: 'a.html',
    elements: [path],
    says: { property: 'background-color', value: 'revert' },
  });
  expect(plan.ok || plan.problem.kind).toBe('kept-attributes');
});
