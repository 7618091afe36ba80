import { expect, test } from '@jest/globals';
import { planWhole } from '../plan/planWhole.ts';
import { makeSiteFile, pagesOf, type Site } from '../source/site.ts';
import { readingOf, type PageReading } from '../survey/pageReading.ts';
import { hostileSite } from '../testing/hostileSite.ts';
import { pageOf, siteOf } from '../testing/siteOf.ts';
import type { Operation } from './operation.ts';
import { planOperation } from './operation.ts';
import { applyPlan } from './readings.ts';

const sites = Number(process.env['HOSTILE_SITES'] ?? 5);

/** All of a reading that planning hangs on; names may be more than there are. */
const comparable = ({ path, text, base, sources, blocks, headEnd, body, root, scripts }: PageReading): unknown => ({
  path,
  text,
  base,
  sources,
  headEnd,
  body,
  root,
  scripts,
  blocks: blocks.map(({ units, ...block }) => ({
    ...block,
    units: units.map(({ rule, ...unit }) => ({ ...unit, key: rule.key, rules: rule.rules })),
  })),
});

/** How many readings were made without parsing; each is what parsing gives. */
function check(site: Site, operations: readonly Operation[]): number {
  let at = site;
  let made = 0;
  for (const operation of operations) {
    for (const file of pagesOf(at)) readingOf(file);
    const plan = planOperation(at, operation);
    if (!plan.ok) throw new Error(plan.problem.kind);
    const next = applyPlan(at, plan.value);
    if (!next.ok) throw new Error(next.problem.kind);
    at = next.value;
    for (const path of plan.value.readings?.keys() ?? []) {
      const file = at.files.get(path)!;
      const kept = readingOf(file)!;
      const fresh = readingOf(makeSiteFile(path, file.bytes))!;
      expect(comparable(kept)).toEqual(comparable(fresh));
      expect([...fresh.names].filter((name) => !kept.names.has(name))).toEqual([]);
      made++;
    }
  }
  return made;
}

test('what is known of a page after an operation is what parsing it would give', () => {
  let made = 0;
  for (let seed = 1; seed <= sites; seed++) {
    const site = siteOf(hostileSite(seed));
    const one = planWhole(site, 'css/new.css');
    const plan = planWhole(site, 'css/new.css', { sheets: 'own' });
    if (!one.ok || !plan.ok) throw new Error('no plan');
    made += check(site, one.value.operations) + check(site, plan.value.operations);
    // rules one after the other, so that blocks are emptied by and by
    const whole = plan.value.operations.find((one) => one.kind === 'gather-rules');
    const single = whole?.rules
      ?.slice(0, 3)
      .map((rule, i) => ({ kind: 'gather-rules' as const, sheet: `css/step${i % 2}.css`, rules: [rule] }));
    made += check(site, single ?? []);
  }
  expect(made).toBeGreaterThan(sites * 5);
});

test('groups that empty, comments, kept empty blocks and attributes of the body', () => {
  const text = pageOf(
    '<meta name=a><style>\n/* one */\np { top: 0 }\n\n@media print {\n  /* two */\n  a { top: 1px }\n  b { top: 2px }\n}\n/* end */\n</style>',
    '<p style="top: 3px" id=x>a <b style="top: 4px">b</b>\n<style>i { top: 5px } u { top: 6px }</style><u>u</u>',
  );
  const gather = (family: string, more = {}): Operation => ({
    kind: 'gather-rules',
    sheet: 'css/a.css',
    rules: [{ family }],
    ...more,
  });
  const site = siteOf({ 'a.html': text, 'b/c.html': text.replace('<body>', '<body class=k style="margin: 0">') });
  const operations: readonly Operation[] = [
    { kind: 'gather-attributes', sheet: 'css/attributes.css' },
    gather('@media print { b'),
    gather('u', { keepEmptyBlocks: true }),
    gather('@media print { a', { sheet: 'css/b.css', after: ['css/a.css'] }),
    gather('i', { keepEmptyBlocks: true }),
    gather('p'),
  ];
  // the body's own tag is edited in one of the pages by the first
  expect(check(site, operations)).toBe(11);
});
