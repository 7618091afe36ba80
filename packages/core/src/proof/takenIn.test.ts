import { expect, test } from '@jest/globals';
import { planWhole } from '../plan/planWhole.ts';
import { siteOf } from '../testing/siteOf.ts';
import { proveSites } from './proveSites.ts';
import { SiteProver } from './siteProver.ts';

const host = (inside: string): string => `<!DOCTYPE html><title>a</title><div id=x></div>${inside}`;
const parts = ['<p style="color:red">x</p>', '<link rel=stylesheet href=s.css><p class=r>x</p>'];
const states = (page: string, more: Record<string, string> = {}) =>
  parts.map((part, i) =>
    siteOf({ 'a.html': host(page), 'part.html': part, ...(i === 1 ? { 's.css': '.r{color:red}' } : {}), ...more }),
  );

test.each<readonly [shows: string, page: string, more: Record<string, string>, verdict: 'same' | 'unsure']>([
  ['a script fetches it', '<script>fetch("part.html").then((r) => r.text()).then((t) => (x.innerHTML = t))</script>', {}, 'unsure'],
  ['a handler does', '<b onclick="$(\'#x\').load(\'part.html\')">b</b>', {}, 'unsure'],
  ['a script of the site does', '<script src=l.js></script>', { 'l.js': 'var r = new XMLHttpRequest(); r.open("GET", "part.html")' }, 'unsure'],
  ['a script of the site does what one here names', '<script src=l.js></script><script>take("part.html")</script>', { 'l.js': 'function take(n) { fetch(n) }' }, 'unsure'],
  ['an attribute names it, for some script', '<div data-page="part.html"></div><script src="http://lib.test/l.js"></script>', {}, 'unsure'],
  ['an element of its own names it', '<page-part src="part.html"></page-part><script src="http://lib.test/l.js"></script>', {}, 'unsure'],
  ['the server includes it', '<!--#include virtual="/part.html" -->', {}, 'unsure'],
  ['a language of the server does', '<?php include("part.html") ?>', {}, 'unsure'],
  ['a template does', '{{> part.html }}', {}, 'unsure'],
  ['an element that the server replaces does', '<esi:include src="part.html"/>', {}, 'unsure'],
  ['a list names it', '<script>fetch("list.json").then((r) => r.json()).then((all) => all.forEach(show))</script>', { 'list.json': '["part.html"]' }, 'unsure'],
  ['a list that nobody fetches names it', '<a href="list.json">list</a>', { 'list.json': '["part.html"]' }, 'same'],
  ['a script fetches where a link leads', '<a href="part.html">part</a><script>x.onclick = (e) => fetch(e.target.href)</script>', {}, 'unsure'],
  ['a script of the site does, by the attribute', '<a href="part.html">part</a><script src=l.js></script>', { 'l.js': '$("a").click(function () { $("#x").load($(this).attr("href") + " #p"); return false })' }, 'unsure'],
  ['a script does, kept in a variable', '<a href="part.html">part</a><script>var url = a.getAttribute("href"); var r = new XMLHttpRequest(); r.open("GET", url)</script>', {}, 'unsure'],
  ['a script fetches its own address', '<a href="part.html">part</a><script>fetch(location.href)</script>', {}, 'same'],
  ['a link leads there', '<a href="part.html">part</a><script>fetch("list.json")</script>', {}, 'same'],
  ['a frame shows it as a page of its own', '<iframe src="part.html"></iframe>', {}, 'same'],
  ['a script goes there', '<script>b.onclick = () => (location.href = "part.html")</script>', {}, 'same'],
  ['with a folder, from above', '<!--#include virtual="/parts/part.html" -->', {}, 'unsure'],
  ['by its whole address', '<script>fetch("http://a.test/x/part.html")</script>', {}, 'unsure'],
  ['in a folder that a variable says', '<script>fetch(`${base}/part.html`)</script>', {}, 'unsure'],
  ['with slashes escaped', '<script>fetch("x\\/part.html")</script>', {}, 'unsure'],
  ['with letters escaped', '<script>fetch("p%61rt.html")</script>', {}, 'unsure'],
  ['an attribute names it, and no script here fetches', '<div data-page="part.html"></div><script>var a = 1</script>', {}, 'same'],
  ['a script here names it, and only a library could fetch it', '<script src=jquery.js></script><script>tell("part.html")</script>', { 'jquery.js': 'x.get = (n) => new XMLHttpRequest(); w.jQuery=w.$=x' }, 'same'],
  ['what stands in one file with a library may fetch it', '<script src=all.js></script><script>take("part.html")</script>', { 'all.js': 'x.get = (n) => new XMLHttpRequest(); w.jQuery=w.$=x; function take(n) { $.get(n) }' }, 'unsure'],
  ['a file that is named like a library names it', '<script src=jquery.tabs.js></script>', { 'jquery.tabs.js': 'w.jQuery=w.$=x; $(p).load("part.html")' }, 'unsure'],
  ['a script here asks a library for it', '<script src=jquery.js></script><script>$.get("part.html", show)</script>', { 'jquery.js': 'x.get = (n) => new XMLHttpRequest(); w.jQuery=w.$=x' }, 'unsure'],
  ['posts to it', '<script src=jquery.js></script><script>$.post("part.html", show)</script>', { 'jquery.js': 'x.get = (n) => new XMLHttpRequest(); w.jQuery=w.$=x' }, 'unsure'],
  ['takes the function by its name', '<script src=jquery.js></script><script>$(x)["load"]("part.html")</script>', { 'jquery.js': 'x.get = (n) => new XMLHttpRequest(); w.jQuery=w.$=x' }, 'unsure'],
  ['gives the function another name', '<script src=jquery.js></script><script>var g = $.get; g("part.html", show)</script>', { 'jquery.js': 'x.get = (n) => new XMLHttpRequest(); w.jQuery=w.$=x' }, 'unsure'],
  ['takes the function out', '<script src=jquery.js></script><script>const { get } = $; get("part.html", show)</script>', { 'jquery.js': 'x.get = (n) => new XMLHttpRequest(); w.jQuery=w.$=x' }, 'unsure'],
  ['an attribute names it, and a script of the site fetches', '<div data-page="part.html"></div><script src="l.js?v=2"></script>', { 'l.js': '$(x).load(y)' }, 'unsure'],
  ['a page of that name in a folder, where another folder is said', '<!--#include virtual="/other/part.html" --><i>', {}, 'unsure'],
  ['another name', '<script>fetch("apart.html2")</script>', {}, 'same'],
])('what another page holds, gathered: %s', (_shows, page, more, verdict) => {
  const [before, after] = states(page, more);
  const [proof] = proveSites(before!, after!).pages;
  expect([proof!.path, proof!.verdict]).toEqual(['a.html', verdict]);
  if (verdict === 'unsure') expect(proof!.doubts.at(-1)!.sentence).toMatch(/^What is in part\.html is shown in this page as well/);
}); // oxfmt-ignore

test('said of each state of a draft as it is, whatever was said before', () => {
  const [before, after] = states('<!--#include virtual="/part.html" -->');
  const prover = new SiteProver(before!);
  const verdicts = [before, after, before, after].map((state) => prover.prove(state!).pages[0]!.verdict);
  expect(verdicts).toEqual(['same', 'unsure', 'same', 'unsure']);
});

const styled = '<!DOCTYPE html><title>p</title><style>b{top:0}</style><p style="color:red">x</p>';

test('a plan leaves a page alone that others show, and says which', () => {
  const page = styled.replace('</p>', '</p><!--#include virtual="/parts/part.html" -->');
  const site = siteOf({ 'a.html': page, 'b.html': page, 'parts/part.html': styled });
  const plan = planWhole(site, 'site.css');
  if (!plan.ok) throw new Error(plan.problem.kind);
  const { proof, stays, site: after } = plan.value;
  expect(proof.pages.map(({ verdict }) => verdict)).toEqual(['same', 'same', 'same']);
  expect(after.files.get('parts/part.html')!.text).toBe(styled);
  expect(after.files.get('a.html')!.text).not.toMatch(/<style/);
  const reason = 'a.html and 1 more page show what is in this page, and may show it otherwise';
  expect(stays.filter(({ page }) => page === 'parts/part.html')).toEqual([
    { page: 'parts/part.html', line: 1, kind: 'block', code: 'shown-elsewhere', reason },
    { page: 'parts/part.html', line: 1, kind: 'attribute', code: 'shown-elsewhere', reason },
  ]);
});

test.each([
  ['fetch("parts/part.html")', true],
  ["$('#x').load('parts/part.html #p')", true],
  ['r.open("GET", "parts/part.html", true)', true],
  ['$.ajax({ type: "GET", url: "parts/part.html" })', true],
  ['fetch(list); go("parts/part.html")', false],
])('a plan knows what a script asks for by name: %s', (script, isLeft) => {
  const site = siteOf({
    'a.html': `<!DOCTYPE html><title>a</title><script>${script}</script>`,
    'parts/part.html': styled,
  });
  const plan = planWhole(site, 'site.css');
  expect(plan.ok && plan.value.stays.map(({ code }) => code)).toEqual(
    isLeft ? ['shown-elsewhere', 'shown-elsewhere'] : [],
  );
});

test('pages that show each other are all left alone', () => {
  const site = siteOf(
    Object.fromEntries(
      ['a', 'b'].map((name) => [`${name}.html`, `${styled}<!--#include file="${name === 'a' ? 'b' : 'a'}.html" -->`]),
    ),
  );
  const plan = planWhole(site, 'site.css');
  expect(plan.ok && [plan.value.operations, plan.value.stays.length]).toEqual([[], 4]);
});

test('marks that nobody closes take no time', () => {
  const [before, after] = states(
    ['<script ', '<?', '<%', '{%', '<!--#include ', ' onx="', '<x-y '].map((mark) => mark.repeat(20_000)).join(''),
  );
  expect(proveSites(before!, after!).pages).toHaveLength(2);
});
