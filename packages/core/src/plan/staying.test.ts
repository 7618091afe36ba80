import { expect, test } from '@jest/globals';
import { pageOf, siteOf } from '../testing/siteOf.ts';
import { planWhole } from './planWhole.ts';
import { whatStays } from './staying.ts';

test.each([
  ['a block in a comment', pageOf('<!-- <style>p{top:0}</style> -->', '<p>a'), ['block 3 in-comment']],
  ['a block that hides its rules as old pages do', pageOf('<style><!-- p{top:0} --></style>', '<p>a'), ['block 3 looks-different']],
  ['a block for browsers without scripts', pageOf('<noscript><style>p{top:0}</style></noscript>', '<p>a'), ['block 3 in-noscript']],
  ['a block in a template', pageOf('', '<template>\n<style>p{top:0}</style></template>'), ['block 4 in-template']],
  ['a block of another type', pageOf('<style type="text/less">p{}</style>', ''), ['block 3 not-css']],
  ['a block in a drawing', pageOf('', '<svg><style>p{top:0}</style></svg>'), ['block 4 svg-block']],
  ['an empty block', pageOf('<style> </style>', ''), ['block 3 no-rule']],
  ['a style attribute', pageOf('', '\n<p style="top:0">'), ['attribute 5 looks-different']],
  ['a style attribute beside a sheet that is not there', pageOf('<link rel=stylesheet href=no.css>', '<p style="top:0">'), ['attribute 4 unread-sheet']],
  ['nothing', pageOf('<link rel=stylesheet href=s.css>', '<p class=style>'), []],
])('%s', (_shows, page, expected) => {
  const stays = whatStays(siteOf({ 'a.html': page }));
  expect(stays.map(({ kind, line, code }) => `${kind} ${line} ${code}`)).toEqual(expected);
  for (const { reason } of stays) expect(reason).toMatch(/^\S.{10,}/);
}); // oxfmt-ignore

test('a plan names what a script or a template keeps, and takes the rest', () => {
  const site = siteOf({
    'a.html': pageOf('<style>p{color:red}</style>', '<p style="top:0">a<p style="width:{{w}}px">b<b style="left:0">c</b><script>e.style.left = 1</script>'), // oxfmt-ignore
  });
  const plan = planWhole(site, 'site.css');
  expect(plan.ok && plan.value.stays.map(({ code }) => code)).toEqual(['template', 'script']);
  expect(plan.ok && plan.value.sheets.map(({ path, rules }) => [path, rules])).toEqual([['site.css', 2]]);
});

test('where no attribute can go at all, the reason is still the real one', () => {
  const site = siteOf({ 'a.html': pageOf('', '<p style="left:0">a<script>e.style.left = 1</script>') });
  const plan = planWhole(site, 'site.css');
  expect(plan.ok && plan.value.stays.map(({ code }) => code)).toEqual(['script']);
});

test('the number of sheets said is the one asked for', () => {
  const page = (color: string): string => pageOf(`<style>p{color:${color}}</style>`, '<p style="top:0">a');
  const site = siteOf({ 'a.html': page('red'), 'b.html': page('red'), 'c.html': page('blue'), 'd.html': page('blue') });
  const plan = planWhole(site, 'site.css', { maxSheets: 2, sheets: 'own' });
  expect(plan.ok && plan.value.sheets.length).toBe(2);
  expect(plan.ok && [...new Set(plan.value.stays.map(({ reason }) => reason))]).toEqual([
    'it would need more than 2 sheets',
  ]);
});
