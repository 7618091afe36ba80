import { expect, test } from '@jest/globals';
import { planWhole } from '../plan/planWhole.ts';
import { siteOf } from '../testing/siteOf.ts';
import type { Verdict } from './proof.ts';
import { proveSites } from './proveSites.ts';

const page = (head: string, body: string): string =>
  `<!DOCTYPE html><html><head><meta charset="utf-8">${head}</head><body>${body}</body></html>`;
const include = '<!--#include virtual="/part.html" -->';
const sheets = { 's.css': 'p{color:red}', 'n.css': 'p{color:red} .news{color:blue}' };
const link = (sheet: string): string => `<link rel=stylesheet href=${sheet}>`;

test.each<readonly [shows: string, before: string, after: string, verdict: Verdict]>([
  ['the same rules for whatever is written', page('<style>p{color:red}</style>', `${include}<p>x`), page(link('s.css'), `${include}<p>x`), 'same'],
  ['a rule more, which may reach it', page('<style>p{color:red}</style>', `${include}<p>x`), page(link('n.css'), `${include}<p>x`), 'unsure'],
  ['… written by another language', page('<style>p{color:red}</style>', '<?php news() ?><p>x'), page(link('n.css'), '<?php news() ?><p>x'), 'unsure'],
  ['… or a template', page('<style>p{color:red}</style>', '<div>{{ content }}</div><p>x'), page(link('n.css'), '<div>{{ content }}</div><p>x'), 'unsure'],
  ['… or as a class', page('<style>p{color:red}</style>', '<p class="<?= $c ?>">x'), page(link('n.css'), '<p class="<?= $c ?>">x'), 'unsure'],
  ['… or as whole attributes', page('<style>p{color:red}</style>', '<p <?= $more ?>>x'), page(link('n.css'), '<p <?= $more ?>>x'), 'unsure'],
  ['text about templates writes nothing', page('<style>p{color:red}</style>', '<pre>{{ content }} <% x %></pre><p>x'), page(link('n.css'), '<pre>{{ content }} <% x %></pre><p>x'), 'same'],
  ['nor does a declaration of XML', `<?xml version="1.0"?>${page('<style>p{color:red}</style>', '<p>x')}`, `<?xml version="1.0"?>${page(link('n.css'), '<p>x')}`, 'same'],
  ['a link in the place of a block, behind what may be sheets', page(`${include}<style>p{color:red}</style>`, '<p>x'), page(`${include}${link('s.css')}`, '<p>x'), 'same'],
  ['… and before it', page(`${include}<style>p{color:red}</style>`, '<p>x'), page(`${link('s.css')}${include}`, '<p>x'), 'unsure'],
  ['… with others on both sides', page(`${link('s.css')}${include}<style>p{color:red}</style>`, '<p>x'), page(`${link('s.css')}${include}`, '<p>x'), 'unsure'],
  ['a sheet may come and beat what nothing beat', page(include, '<p style="color:red">x'), page(`${include}<style>.r{color:red}</style>`, '<p class=r>x'), 'unsure'],
  ['… also from the body', page('', `${include}<p style="color:red">x`), page('<style>.r{color:red}</style>', `${include}<p class=r>x`), 'unsure'],
  ['… where an attribute lost to it', page('', `${include}<table><tr><td bgcolor=#ff0000>x</table>`), page('<style>.r{background-color:#ff0000}</style>', `${include}<table><tr><td class=r>x</table>`), 'unsure'],
  ['… but none comes where a class is written', page('', '<b class="<?= $c ?>">y</b><p style="color:red">x'), page('<style>p.r{color:red}</style>', '<b class="<?= $c ?>">y</b><p class=r>x'), 'same'],
  ['rolled back, where attributes may be written that style', page('', '<table><tr><td <?= $colour ?>>x</table>'), page('<style>td{background-color:revert}</style>', '<table><tr><td <?= $colour ?>>x</table>'), 'differs'],
  ['an initial value, where attributes may be written that style', page('', '<table><tr><td <?= $colour ?>>x</table>'), page('<style>td{background-color:transparent}</style>', '<table><tr><td <?= $colour ?>>x</table>'), 'differs'],
  ['… or a sheet', page(`${include}<style>p{background-image:none}</style>`, '<p>x'), page(`${include}<style>p{background:none}</style>`, '<p>x'), 'differs'],
  ['important, where a sheet may be written that says more', page(`<style>p{color:red}</style>${include}`, '<p>x'), page(`<style>p{color:red!important}</style>${include}`, '<p>x'), 'differs'],
])('a server writes into the page: %s', (_shows, before, after, verdict) => {
  const proof = proveSites(siteOf({ 'p.shtml': before, ...sheets }), siteOf({ 'p.shtml': after, ...sheets }));
  expect(proof.pages.map((one) => [one.verdict, one.notes])).toEqual([[verdict, []]]);
}); // oxfmt-ignore

test('a plan keeps the rules of one page away from what is written into another, and says what stays', () => {
  const own = (name: string, head = ''): string =>
    page(`${head}<style>p{color:red} .${name}{color:blue}</style>`, `${include}<p class=${name}>x`);
  const { gathered, proof } = planned({ 'a.shtml': own('a'), 'b.shtml': own('b') });
  expect(proof.verdict).toBe('same');
  expect(gathered.files.get('css/site.css')!.text).toMatch(/:where\(.*\) \.a\{/);
  const stays = planned({ 'a.shtml': page(include, '<p style="color:red">x</p><p style="color:red">y</p>') });
  expect(stays.gathered.files.get('a.shtml')!.text).toContain('style="color:red"');
});

function planned(files: Readonly<Record<string, string>>) {
  const plan = planWhole(siteOf(files), 'css/site.css');
  if (!plan.ok) throw new Error(plan.problem.kind);
  return { gathered: plan.value.site, proof: plan.value.proof };
}
