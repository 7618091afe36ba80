import { expect, test } from '@jest/globals';
import { proveSites } from '../../proof/proveSites.ts';
import { markIntended } from '../../proof/intended.ts';
import type { Site } from '../../source/site.ts';
import { familiesOf } from '../../survey/families.ts';
import { pageOf, siteOf, textIn } from '../../testing/siteOf.ts';
import { applyOperations, describeOperationProblem, type Operation } from '../operation.ts';

const block = (rules: string): string => pageOf(`<style>\n  ${rules}\n</style>`, '<h1>a</h1><p>b</p>');

function follow(site: Site, labels: readonly string[], pages: readonly string[]): Operation {
  const families = familiesOf(site);
  const rules = labels.map((label) => {
    const family = families.find((one) => one.label === label)!;
    return { family: family.id, version: family.versions[0]!.id };
  });
  return { kind: 'follow-rule', rules, pages };
}

function done(site: Site, operation: Operation): Site {
  const after = applyOperations(site, [operation]);
  if (!after.ok) throw new Error(describeOperationProblem(after.problem.problem));
  return after.value.site;
}

test('a rule comes behind what stands before it where it is held, with addresses, indentation and line ends of the page', () => {
  const site = siteOf({
    'a.html': block('h1 { top: 0 }\n  p {\n    background: url(i/x.png);\n  }\n  i { top: 0 }'),
    'news/b.html': block('i { top: 0 }\n  h1 { top: 0 }\n  b { top: 0 }').replaceAll('\n', '\r\n'),
  });
  expect(textIn(done(site, follow(site, ['p'], ['news/b.html'])), 'news/b.html')).toBe(
    block('i { top: 0 }\n  h1 { top: 0 }\n  p {\n    background: url(../i/x.png);\n  }\n  b { top: 0 }').replaceAll(
      '\n',
      '\r\n',
    ),
  );
});

test('where nothing of that is here it comes first, ahead of comments; several keep their order', () => {
  const site = siteOf({
    'a.html': block('h1 { top: 0 }\n  p { left: 0 }'),
    'b.html': block('/* b */\n  b { top: 0 }'),
  });
  expect(textIn(done(site, follow(site, ['h1', 'p'], ['b.html'])), 'b.html')).toBe(
    block('h1 { top: 0 }\n  p { left: 0 }\n  /* b */\n  b { top: 0 }'),
  );
});

test('what differs then is what was chosen, and nothing else', () => {
  const site = siteOf({ 'a.html': block('h1 { top: 0 }\n  p { color: red }'), 'b.html': block('h1 { top: 0 }') });
  const after = done(site, follow(site, ['p'], ['b.html']));
  expect(markIntended(proveSites(site, after), after, after).pages).toMatchObject([
    { path: 'a.html', verdict: 'same' },
    { path: 'b.html', verdict: 'intended' },
  ]);
});

const site = siteOf({
  'a.html': block('p { top: 0 }\n  @media print { b { top: 0 } }\n  i { background: url(../x.png) }'),
  'b.html': block('p { top: 1px }'),
  'bare.html': pageOf('', '<p>c'),
});

test.each([
  ['a page that has the rule in its own way', ['p'], ['b.html'], 'b.html has that rule already, in its own way.'],
  ['a page without a block', ['p'], ['bare.html'], 'bare.html has no block with rules that could take another one.'],
])('refused: %s', (_what, labels, pages, words) => {
  const after = applyOperations(site, [follow(site, labels, pages)]);
  expect(!after.ok && describeOperationProblem(after.problem.problem)).toBe(words);
});

test('a rule under a condition, or a version nobody holds, is not followed', () => {
  const printed = familiesOf(site).find((one) => one.label === 'b')!;
  for (const rule of [
    { family: printed.id, version: printed.versions[0]!.id },
    { family: 'p', version: 'none' },
  ]) {
    const after = applyOperations(site, [{ kind: 'follow-rule', rules: [rule], pages: ['b.html'] }]);
    expect(!after.ok && after.problem.problem.kind).toBe('no-rule-to-follow');
  }
});
