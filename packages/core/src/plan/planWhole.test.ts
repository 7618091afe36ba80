import { expect, test } from '@jest/globals';
import { SiteProver } from '../proof/siteProver.ts';
import { pageOf, siteOf, textIn } from '../testing/siteOf.ts';
import { planWhole } from './planWhole.ts';

const page = (style: string): string => `<!DOCTYPE html>\n<title>t</title>\n<style>\n${style}\n</style>\n<p>a</p>\n`;
const files = {
  'a.html': page('@import "i.css";\np { margin: 0 }'),
  'b.html': page('@import "i.css";\np { margin: 0 }'),
  'i.css': 'p { color: teal }\n',
};

test('imports of blocks become links, or are kept where that is asked', () => {
  const linked = planWhole(siteOf(files), 'css/site.css');
  if (!linked.ok) throw new Error(linked.problem.kind);
  expect(linked.value.proof.verdict).toBe('same');
  expect(linked.value.operations[0]).toEqual({ kind: 'import-to-link' });
  expect(textIn(linked.value.site, 'a.html')).toBe(
    '<!DOCTYPE html>\n<title>t</title>\n<link rel="stylesheet" href="i.css">\n<link rel="stylesheet" href="css/site.css">\n<p>a</p>\n',
  );
  const kept = planWhole(siteOf(files), 'css/site.css', { keepImports: true });
  if (!kept.ok) throw new Error(kept.problem.kind);
  expect(kept.value.proof.verdict).toBe('same');
  const sheets = [...kept.value.site.files.values()].filter((file) => file.kind === 'sheet').map((file) => file.text);
  expect(sheets.some((text) => text?.includes('@import'))).toBe(true);
});

test('where no import can be linked the plan is made without', () => {
  const site = siteOf({ ...files, 'a.html': page('@import "i.css" layer(x);\np { margin: 0 }'), 'b.html': '<p>b' });
  const plan = planWhole(site, 'css/site.css');
  expect(plan.ok && plan.value.operations.some((one) => one.kind === 'import-to-link')).toBe(false);
  expect(plan.ok && plan.value.proof.verdict).toBe('same');
});

test.each([
  ['linked alike by all pages: it takes the rules', '<link rel=stylesheet href=css/s.css>', ['css/s.css']],
  [
    'followed by another sheet on the page: what would pass that goes to a new sheet',
    '<link rel=stylesheet href=css/s.css><link rel=stylesheet href=css/t.css>',
    ['css/s.css', 'css/shared.css'],
  ],
])('a sheet that is there, %s', (_shows, links, sheets) => {
  const state = (body: string): string => pageOf(`${links}<style>p { top: 0 } i { left: 1px }</style>`, body);
  const site = siteOf({
    'a.html': state('<p>a'),
    'b.html': state('<p>b <i>i</i>'),
    'css/s.css': 'u { top: 1px }',
    'css/site.css': '',
    'css/t.css': 'p { top: 5px }',
  });
  const plan = planWhole(site, 'css/s.css');
  if (!plan.ok) throw new Error(plan.problem.kind);
  expect(plan.value.sheets.map(({ path }) => path)).toEqual(sheets);
  expect([plan.value.proof.verdict, plan.value.stays]).toEqual(['same', []]);
  expect(plan.value.sheets.map(({ why }) => why === undefined)).toEqual(sheets.map((_, i) => i === 0));
});

test('a plan tells how far it is: pages are read, then states are proved', () => {
  const told: string[] = [];
  const onStep = (step: string, done: number, total: number): void => void told.push(`${step} ${done}/${total}`);
  const { 'i.css': sheet, ...both } = files;
  expect(sheet).toBeDefined();
  const plan = planWhole(siteOf(both), 'css/site.css', { onStep });
  expect(plan.ok).toBe(true);
  expect(told.slice(0, 3)).toEqual(['reading 1/2', 'reading 2/2', 'proving 1/2']);
  expect(told.at(-1)).toBe('proving 2/2');
});

test('of pages that are to change it is kept how they look, while they are parsed for the plan; no other is parsed for that', () => {
  const looked: string[] = [];
  class Watched extends SiteProver {
    override look(...[file, tree]: Parameters<SiteProver['look']>): void {
      looked.push(`${file.path}${tree ? '' : ' parsed again'}`);
      super.look(file, tree);
    }
  }
  const site = siteOf({
    'a.html': page('p { margin: 0 }'),
    'b.html': page('p { margin: 0 }'),
    'c.html': '<p>c',
    'd.html': '<p style="top: 0">d',
  });
  expect(planWhole(site, 'css/site.css', {}, new Watched(site)).ok).toBe(true);
  expect(looked).toEqual(['a.html', 'b.html', 'd.html']);
  looked.length = 0;
  const again = siteOf({ 'a.html': page('p { margin: 0 }'), 'b.html': page('p { margin: 0 }') });
  expect(planWhole(again, 'css/site.css', { pages: ['b.html'] }, new Watched(again)).ok).toBe(true);
  expect(looked).toEqual(['b.html']);
});
