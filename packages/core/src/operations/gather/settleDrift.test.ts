import { expect, test } from '@jest/globals';
import { applyChangeSet } from '../../source/changeSet.ts';
import { familiesOf } from '../../survey/families.ts';
import { pageOf, siteOf, textIn } from '../../testing/siteOf.ts';
import { planSettleDrift, type SettleDrift } from './settleDrift.ts';

const block = (rule: string): string => pageOf(`<style>\n  h1 { top: 0 }\n  ${rule}\n</style>`, '<p>a');

function settle(files: Readonly<Record<string, string>>, more: Partial<SettleDrift> = {}) {
  const site = siteOf(files);
  const family = familiesOf(site).find((one) => one.label === 'p')!;
  const plan = planSettleDrift(site, {
    kind: 'settle-drift',
    family: family.id,
    version: family.versions[0]!.id,
    ...more,
  });
  if (!plan.ok) throw new Error(plan.problem.kind);
  const after = applyChangeSet(site, plan.value.changes);
  if (!after.ok) throw new Error(after.problem.kind);
  return { after: after.value, pages: plan.value.pages, family };
}

test('the common version goes to the pages that hold another; the rest of their text stays', () => {
  const { after, pages } = settle({
    'a.html': block('p { color: red }'),
    'b.html': block('p { color: red }'),
    'c.html': block('p{color:blue;top:0}'),
  });
  expect(pages).toEqual(['c.html']);
  expect(textIn(after, 'c.html')).toBe(block('p { color: red }'));
});

test('references are counted from the page that takes the rule, line ends and indentation are its own', () => {
  const { after } = settle({
    'a.html': block('p {\n    background: url(i/x.png);\n  }'),
    'b.html': block('p {\n    background: url(i/x.png);\n  }'),
    'news/c.html': block('p { top: 0 }').replaceAll('\n', '\r\n'),
  });
  expect(textIn(after, 'news/c.html')).toBe(
    block('p {\n    background: url(../i/x.png);\n  }').replaceAll('\n', '\r\n'),
  );
});

test('only the chosen versions give way, only on the chosen pages', () => {
  const files = {
    'a.html': block('p { top: 0 }'),
    'b.html': block('p { top: 0 }'),
    'c.html': block('p { top: 1px }'),
    'd.html': block('p { top: 2px }'),
    'e.html': block('p { top: 2px }'),
  };
  const { family } = settle(files);
  const third = family.versions.find((version) => version.pages.includes('d.html'))!;
  expect(settle(files, { from: [third.id] }).pages).toEqual(['d.html', 'e.html']);
  expect(settle(files, { from: [third.id], pages: ['e.html'] }).pages).toEqual(['e.html']);
});

test.each([
  ['a version no page has', { version: 'x' }, 'no-such-version'],
  ['no other version', { from: ['x'] }, 'nothing-to-settle'],
])('%s is refused', (_shows, more, problem) => {
  expect(() => settle({ 'a.html': block('p { top: 0 }'), 'b.html': block('p { top: 1px }') }, more)).toThrow(problem);
});
