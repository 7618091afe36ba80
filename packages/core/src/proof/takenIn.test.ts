import { expect, test } from '@jest/globals';
import { planWhole } from '../plan/planWhole.ts';
import { siteOf } from '../testing/siteOf.ts';
import { proveSites } from './proveSites.ts';
import { SiteProver } from './siteProver.ts';

const host = (inside: string): string => `<!DOCTYPE html><title>a</title><div id=x></div>${inside}`;
const parts = ['<p style="color:red">x</p>', '<link rel=stylesheet href=s.css><p class=r>x</p>'];
const states = (page: string, more: Record<string, string> = {}) =>
  parts.map((part, i) => siteOf({ 'a.html': host(page), 'part.html': part, ...(i === 1 ? { 's.css': '.r{color:red}' } : {}), ...more })); // prettier-ignore

test.each<readonly [shows: string, page: string, more: Record<string, string>, verdict: 'same' | 'unsure']>([
  ['a script fetches it', '<script>fetch("part.html").then((r) => r.text()).then((t) => (x.innerHTML = t))</script>', {}, 'unsure'],
  ['a handler does', '<b onclick="$(\'#x\').load(\'part.html\')">b</b>', {}, 'unsure'],
  ['a script of the site does', '<script src=l.js></script>', { 'l.js': 'var r = new XMLHttpRequest(); r.open("GET", "part.html")' }, 'unsure'],
  ['a script of the site does what one here names', '<script src=l.js></script><script>take("part.html")</script>', { 'l.js': 'function take(n) { fetch(n) }' }, 'unsure'],
  ['an attribute names it, for some script', '<div data-page="part.html"></div><script src="http://lib.test/l.js"></script>', {}, 'unsure'],
  ['an element of its own names it', '<page-part src="part.html"></page-part><script src="http://lib.test/l.js"></script>', {}, 'unsure'],
  ['the server includes it', '<!--#include virtual="/part.html" -->', {}, 'unsure'],
  ['a language of the server does', '<?php include("part.html") ?>', {}, 'unsure'],
  ['a link leads there', '<a href="part.html">part</a><script>fetch("list.json")</script>', {}, 'same'],
  ['a frame shows it as a page of its own', '<iframe src="part.html"></iframe>', {}, 'same'],
  ['a script goes there', '<script>b.onclick = () => (location.href = "part.html")</script>', {}, 'same'],
  ['another name', '<script>fetch("apart.html2")</script>', {}, 'same'],
])('what another page holds, gathered: %s', (_shows, page, more, verdict) => {
  const [before, after] = states(page, more);
  const [proof] = proveSites(before!, after!).pages;
  expect([proof!.path, proof!.verdict]).toEqual(['a.html', verdict]);
  if (verdict === 'unsure') expect(proof!.doubts.at(-1)!.sentence).toMatch(/^What is in part\.html is shown in this page as well/);
}); // prettier-ignore

test('said of each state of a draft as it is, whatever was said before', () => {
  const [before, after] = states('<!--#include virtual="/part.html" -->');
  const prover = new SiteProver(before!);
  const verdicts = [before, after, before, after].map((state) => prover.prove(state!).pages[0]!.verdict);
  expect(verdicts).toEqual(['same', 'unsure', 'same', 'unsure']);
});

test('a plan gathers all the same, and says of which page it cannot be told', () => {
  const part = '<!DOCTYPE html><title>p</title><style>b{top:0}</style><p style="color:red">x</p>';
  const site = siteOf({ 'a.html': host('<!--#include virtual="/part.html" -->'), 'part.html': part });
  const plan = planWhole(site, 'site.css');
  expect(plan.ok && plan.value.proof.pages.map(({ path, verdict }) => [path, verdict])).toEqual([
    ['a.html', 'unsure'],
    ['part.html', 'same'],
  ]);
});

test('marks that nobody closes take no time', () => {
  const [before, after] = states(['<script ', '<?', '<%', '{%', '<!--#include ', ' onx="', '<x-y '].map((mark) => mark.repeat(50_000)).join('')); // prettier-ignore
  expect(proveSites(before!, after!).pages).toHaveLength(2);
});
