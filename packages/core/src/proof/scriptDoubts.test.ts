import type { Site } from '../source/site.ts';
import { expect, test } from '@jest/globals';
import { pageOf, siteOf } from '../testing/siteOf.ts';
import { planWhole } from '../plan/planWhole.ts';
import type { Verdict } from './proof.ts';
import { proveSites } from './proveSites.ts';

const page = (body: string, head = ''): string =>
  `<!DOCTYPE html><html><head><meta charset="utf-8"><title>t</title>${head}</head><body>${body}</body></html>`;
const sheet = '<link rel=stylesheet href=s.css>';
const styled = (script: string, attribute = 'color:red'): string => page(`<p id=m style="${attribute}">x</p>${script}`);
const classed = (script: string, attribute = 'color:red'): string =>
  page(`<p id=m class=r>x</p>${script}`, `<style>.r{${attribute}}</style>`);

test.each<readonly [shows: string, script: string, verdict: Verdict]>([
  ['a roll-over that wipes the class', '<a href="#" onmouseover="document.getElementById(\'m\').className=\'on\'">o</a>', 'unsure'],
  ['a roll-over of another element', '<a href="#" onmouseover="this.className=\'on\'">o</a>', 'same'],
  ['a class added beside it', '<script>m.classList.add("on")</script>', 'same'],
  ['a style that is taken back', '<script>m.style.color = ""</script>', 'unsure'],
  ['another style', '<script>m.style.display = ""</script>', 'same'],
  ['a style by a computed name', '<script>for (const k in o) m.style[k] = o[k]</script>', 'unsure'],
  ['elements asked for by their style attribute', '<script>document.querySelectorAll("[style]").length</script>', 'unsure'],
  ['a library that touches no styles', '<script>function f(a){return a.map(function(b){return b*2})}</script>', 'same'],
  ['a script of another site is taken as given', '<script src="http://stats.test/s.js"></script>', 'same'],
  ['data is no script', '<script type="application/ld+json">{"style": "x"}</script>', 'same'],
  ['an old script in another language', '<script type="text/vbscript">x.className = 1</script>', 'same'],
])('a style attribute became a class: %s', (_shows, script, verdict) => {
  const proof = proveSites(siteOf({ 'p.html': styled(script) }), siteOf({ 'p.html': classed(script) }));
  expect(proof.verdict).toBe(verdict);
  if (verdict === 'unsure') expect(proof.pages[0]!.doubts[0]!.sentence).toMatch(/^p\.html, line 1: /);
}); // oxfmt-ignore

const block = (script: string): string => page(`<p>x</p>${script}`, '<style id=own>p{color:red}</style>');
const linked = (script: string): string => page(`<p>x</p>${script}`, sheet);

test.each<readonly [shows: string, script: string, verdict: Verdict]>([
  ['a script that counts sheets', '<script>document.styleSheets[0].disabled = true</script>', 'unsure'],
  ['a script that has the ID of the block', '<script>document.getElementById("own").remove()</script>', 'unsure'],
  ['a script that writes a block', '<script>document.write("<style>p{top:0}</style>")</script>', 'unsure'],
  ['a script that counts from the head', '<script>document.head.lastElementChild.remove()</script>', 'unsure'],
  ['a script that goes by place in the body', '<script>document.body.firstChild.nodeName</script>', 'same'],
  ['a script that writes a paragraph', '<script>document.write("<p>y</p>")</script>', 'same'],
])('a block became a link: %s', (_shows, script, verdict) => {
  const before = siteOf({ 'p.html': block(script) });
  expect(proveSites(before, siteOf({ 'p.html': linked(script), 's.css': 'p{color:red}' })).verdict).toBe(verdict);
});

test('a script that gives a class whose rule nothing let win before', () => {
  const script = '<script>document.getElementById("m").classList.add("on")</script>';
  const state = (attribute: string, rules: string): string =>
    page(`<p id=m ${attribute}>x</p>${script}`, `<style>${rules}</style>`);
  const prove = (rule: string): Verdict =>
    proveSites(
      siteOf({ 'p.html': state('style="color:red"', rule) }),
      siteOf({ 'p.html': state('class=r', `${rule} .r{color:red}`) }),
    ).verdict;
  expect(prove('p.on{color:blue}')).toBe('unsure');
  expect(prove('.on{color:blue}')).toBe('same');
  expect(prove('p.on{top:0}')).toBe('same');
  expect(prove('p.off{color:blue}')).toBe('same');
});

test('a script that gives an attribute a rule asks for', () => {
  const body = (attribute: string): string =>
    `<p ${attribute}>x</p><script>document.querySelector("p").dataset.late = 1</script>`;
  const rule = 'p[data-late]{color:blue}';
  const before = siteOf({ 'p.html': page(body('style="color:red"'), `<style>${rule}</style>`) });
  expect(
    proveSites(before, siteOf({ 'p.html': page(body('class=r'), `<style>${rule} .r{color:red}</style>`) })).verdict,
  ).toBe('unsure');
});

test('a rule that comes to reach what a script makes', () => {
  const script = '<script>document.body.insertAdjacentHTML("beforeend", "<b class=hint>!</b>")</script>';
  const before = siteOf({ 'p.html': page(script, sheet), 's.css': 'p{color:red}' });
  const prove = (text: string): Verdict =>
    proveSites(before, siteOf({ 'p.html': page(script, sheet), 's.css': text })).verdict;
  expect(prove('p{color:red} .hint{color:blue}')).toBe('unsure');
  const proof = proveSites(
    before,
    siteOf({ 'p.html': page(script, sheet), 's.css': 'p{color:red} .hint{color:blue}' }),
  );
  expect(proof.pages[0]!.doubts[0]!.sentence).toMatch(/^p\.html, line 1: .*\(\.hint\)\.$/);
  expect(prove('p{color:red} .other{color:blue}')).toBe('same');
  expect(prove('p{color:red} .hint i{color:blue}')).toBe('same');
});

test('a plan leaves what a script may miss, says why, and takes the rest', () => {
  const script = '<a href="#" onclick="document.getElementById(\'m\').className=\'on\'">o</a>';
  const site = siteOf({ 'p.html': page(`<p id=m style="color:red">x</p><p style="top:0">y</p>${script}`) });
  const plan = planWhole(site, 'css/site.css');
  if (!plan.ok) throw new Error(plan.problem.kind);
  const text = plan.value.site.files.get('p.html')!.text!;
  expect(text).toContain('<p id=m style="color:red">');
  expect(text).not.toContain('style="top:0"');
  expect(plan.value.proof.verdict).toBe('same');
  expect(plan.value.stays.map(({ line, kind }) => `${kind} ${line}`)).toEqual(['attribute 2']);
});

test('a rule that a script may bring is seen where no class took the place of a style attribute', () => {
  const page = (attribute: string): Site =>
    siteOf({
      'a.html': pageOf(
        '<style>p { color: red } .hot p { color: blue }</style>',
        `<p${attribute}>a</p><script>document.body.classList.add('hot')</script>`,
      ),
    });
  expect(proveSites(page(' style="color: red"'), page('')).verdict).toBe('unsure');
});

const cell = (script: string, said: string, head = ''): string =>
  page(`<table><tr><td id=m ${said}>x</td></tr></table>${script}`, head);
const asRule = '<style>:where(.w){width:80px;background-color:red}</style>';

test.each<readonly [shows: string, script: string, verdict: Verdict]>([
  ['a width read as a member', '<script>var w = m.width; m.title = w</script>', 'unsure'],
  ['a colour put back as a member', '<script>m.bgColor = "blue"</script>', 'unsure'],
  ['a selector that asks for it', '<script>document.querySelector("td[bgcolor]").title = 1</script>', 'unsure'],
  ['all attributes gone through', '<script>for (var i = 0; i < m.attributes.length; i++) go()</script>', 'unsure'],
  ['a member that cannot be told', '<script>m[name] = 1</script>', 'unsure'],
  ['the width of the screen', '<script>if (screen.width > 800) go()</script>', 'same'],
  ['the colour of the page', '<script>document.bgColor = "blue"</script>', 'same'],
])('presentational attributes became a rule: %s', (_shows, script, verdict) => {
  const before = siteOf({ 'p.html': cell(script, 'width=80 bgcolor=red') });
  const after = siteOf({ 'p.html': cell(script, 'class=w', asRule) });
  expect(proveSites(before, after).verdict).toBe(verdict);
});
