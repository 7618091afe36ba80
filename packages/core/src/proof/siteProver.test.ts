import { expect, test } from '@jest/globals';
import { Interner } from '../cascade/interner.ts';
import { CascadeSession } from '../cascade/pageCascade.ts';
import type { PageTree } from '../page/parsePage.ts';
import { parseSheet } from '../sheet/parseSheet.ts';
import { makeSiteFile, sheetsOf, type Site } from '../source/site.ts';
import { NameSet } from '../survey/nameSet.ts';
import { readingOf, rememberReading } from '../survey/pageReading.ts';
import { hostileSite } from '../testing/hostileSite.ts';
import { pageOf, siteOf } from '../testing/siteOf.ts';
import { provePage } from './provePage.ts';
import { proveSites } from './proveSites.ts';
import { SiteProver } from './siteProver.ts';

const link = (name: string): string => pageOf(`<link rel=stylesheet href=${name}>`, '<p>a');
const before = siteOf({ 'a.html': pageOf('<style>p{top:0}</style>', '<p>a'), 'b.html': pageOf('<style>p{top:1px}</style>', '<p>a'), 'c.html': pageOf('', '<p>a') }); // oxfmt-ignore
const after = (a: string, b: string) =>
  siteOf({
    'a.html': link('a.css'),
    'b.html': link('b.css'),
    'c.html': pageOf('', '<p>a'),
    'a.css': a,
    'b.css': '@import "x.css";',
    'x.css': b,
  });

test('a second proof of the same beginning says what a first one would, page by page', () => {
  const prover = new SiteProver(before);
  for (const [a, b] of [
    ['p{top:0}', 'p{top:1px}'],
    ['p{top:0}', 'p{top:1px}'],
    ['p{top:9px}', 'p{top:1px}'],
    ['p{top:0}', 'p{top:9px}'],
    ['p{top:9px}', 'p{top:9px}'],
    ['p{top:0}', 'p{top:1px}'],
  ] as const) {
    const now = after(a, b);
    const proof = prover.prove(now);
    expect(proof).toEqual(proveSites(before, now));
    expect(proof.pages.map((page) => page.verdict)).toEqual([
      a === 'p{top:0}' ? 'same' : 'differs',
      b === 'p{top:1px}' ? 'same' : 'differs',
      'same',
    ]);
  }
});

test('pages that nothing new can reach are not read again', () => {
  const prover = new SiteProver(before);
  const read: string[] = [];
  const { session } = prover;
  const open = session.openTree.bind(session);
  session.openTree = (site, file, tree) => {
    if (site !== before) read.push(file.path);
    return open(site, file, tree);
  };
  prover.prove(after('p{top:0}', 'p{top:1px}'));
  expect(read).toEqual(['a.html', 'b.html']);
  prover.prove(after('p{top:0}', 'p{top:1px}'));
  expect(read).toEqual(['a.html', 'b.html']);
  prover.prove(after('p{top:0;}', 'p{top:1px}'));
  expect(read).toEqual(['a.html', 'b.html', 'a.html']);
  prover.prove(after('p{top:0;}', 'p{top:1px;}'));
  expect(read).toEqual(['a.html', 'b.html', 'a.html', 'b.html']);
});

test.each([
  ['an escape in an import', '<link rel=stylesheet href=main.css>', '@import "s\\69te.css";'],
  ['an escape of the address', '<link rel=stylesheet href=s%69te.css>', ''],
  ['a reference in the markup', '<link rel=stylesheet href="s&#105;te.css">', ''],
  ['a line end, which browsers take out of addresses', '<link rel=stylesheet href="si\nte.css">', ''],
  ['a tab in an import of a block', '<style>@import url("si\tte.css");</style>', ''],
])('a page that reaches a changed sheet only by %s is read', (_shows, head, main) => {
  const state = (rule: string) => siteOf({ 'a.html': pageOf(head, '<p>a'), 'main.css': main, 'site.css': rule });
  expect(proveSites(state('p{top:0}'), state('p{top:1px}')).pages[0]).toMatchObject({
    path: 'a.html',
    verdict: 'differs',
  });
});

test('where only a sheet changed, a page is parsed once for both states', () => {
  const page = '<!DOCTYPE html><link rel=stylesheet href=s.css><p>text';
  const [then, now] = ['p { top: 0 }', 'p { top: 1px }'].map((css) => siteOf({ 'a.html': page, 's.css': css }));
  const prover = new SiteProver(then!);
  const trees: PageTree[] = [];
  const open = prover.session.openTree.bind(prover.session);
  prover.session.openTree = (site, file, tree) => {
    trees.push(tree);
    return open(site, file, tree);
  };
  expect(prover.prove(now!)).toMatchObject({ verdict: 'differs', pages: [{ differingElements: 1 }] });
  expect([trees.length, new Set(trees).size]).toEqual([2, 1]);
});

/** The pages that are read for a proof from one state to another. */
function pagesRead(then: Readonly<Record<string, string>>, now: Readonly<Record<string, string>>): readonly string[] {
  const [one, two] = [siteOf(then), siteOf(now)];
  const read: string[] = [];
  const prover = new SiteProver(one);
  const open = prover.session.openTree.bind(prover.session);
  prover.session.openTree = (site, file, tree) => {
    if (site === two) read.push(file.path);
    return open(site, file, tree);
  };
  prover.prove(two);
  return [...new Set(read)];
}

test.each([
  ['a rule for a class', '.x { top: 0 } u { top: 1px }', '.x { top: 2px } u { top: 1px }', ['x.html']],
  ['a rule in a medium', '@media print { .x { top: 0 } }', '@media print { .x { top: 1px } }', ['x.html']],
  ['a rule that comes', 'u { top: 1px }', 'u { top: 1px } b .x:hover { top: 2px }', ['x.html']],
  ['a class in another case, which counts in quirks mode', 'u { top: 1px }', 'u { top: 1px } .X { top: 2px }', ['x.html']],
  ['rules that change places', '.x { top: 0 } i { top: 1px }', 'i { top: 1px } .x { top: 0 }', ['i.html', 'x.html']],
  ['a rule for anything', '* { top: 0 }', '* { top: 1px }', ['i.html', 'none.html', 'noscript.html', 'x.html']],
  ['any of several', ':is(.x, .none) { top: 0 }', ':is(.x, .none) { top: 1px }', ['i.html', 'none.html', 'noscript.html', 'x.html']],
  ['an element that is there without scripts only', 'em { top: 0 }', 'em { top: 1px }', ['noscript.html']],
  ['nested rules', '.x { & i { top: 0 } }', '.x { & i { top: 1px } }', ['i.html', 'none.html', 'noscript.html', 'x.html']],
  ['a definition', '@keyframes k { to { top: 0 } }', '@keyframes k { to { top: 1px } }', ['i.html', 'none.html', 'noscript.html', 'x.html']],
  ['a layer', '@layer a { .x { top: 0 } }', '@layer a { .x { top: 1px } }', ['i.html', 'none.html', 'noscript.html', 'x.html']],
  ['an import that is not first any more', '@import "b.css";', '.x { top: 0 } @import "b.css";', ['i.html', 'none.html', 'noscript.html', 'x.html']],
  ['an address in a custom property', '.x { --a: url(a.png) }', '.x { --a: url(b.png) }', ['i.html', 'none.html', 'noscript.html', 'x.html']],
])('of pages that link a changed sheet those are read that the changed rules may reach: %s', (_shows, old, now, expected) => {
  const link = '<link rel=stylesheet href=s.css>';
  const pages = {
    'i.html': pageOf(link, '<i>i</i>'),
    'none.html': pageOf(link, '<p>p'),
    'noscript.html': pageOf(link, '<noscript><em>e</em></noscript>'),
    'x.html': pageOf(link, '<b><u class=x>x</u></b>'),
    'b.css': 'p { left: 0 }',
  };
  const read = pagesRead({ ...pages, 's.css': old }, { ...pages, 's.css': now });
  expect(read.filter((path) => path !== 'noscript.html' || expected.includes(path))).toEqual(expected);
}); // oxfmt-ignore

const hostile = Number(process.env['HOSTILE_SITES'] ?? 8);

test('rules of hostile sites taken out and moved about: each page gets the verdict that comparing its trees gives', () => {
  let apart = 0;
  let same = 0;
  for (let seed = 1; seed <= hostile; seed++) {
    const then = siteOf(hostileSite(seed));
    const prover = new SiteProver(then);
    for (let step = 0; step < 3; step++) {
      const now = withSheets(then, (rules) => {
        const at = (seed * 7 + step * 3) % Math.max(rules.length, 1);
        const rest = rules.filter((_, i) => i !== at);
        return step === 0
          ? rest
          : step === 1
            ? [...rest, rules[at]!]
            : [...rules, rules[at]!.replace('{', ', .late {')];
      });
      const session = new CascadeSession();
      for (const { path, verdict } of prover.prove(now).pages) {
        const [one, two] = [then, now].map((site) => ({ site, cascade: session.open(site, site.files.get(path)!) }));
        const { verdict: expected } = provePage(one!, two!);
        expect([seed, step, path, verdict]).toEqual([seed, step, path, expected]);
        if (verdict === 'same') same++;
        else apart++;
      }
    }
  }
  expect([same > hostile * 2, apart > hostile]).toEqual([true, true]);
});

/** The site with the rules of each of its sheets changed. */
function withSheets(site: Site, change: (rules: readonly string[]) => readonly string[]): Site {
  const files = new Map(site.files);
  for (const { path, text } of sheetsOf(site)) {
    const rules = parseSheet(text ?? '').rules.map(({ span }) => text!.slice(span.start, span.end));
    if (rules.length > 0) files.set(path, makeSiteFile(path, new TextEncoder().encode(change(rules).join('\n'))));
  }
  return { files };
}

test('what an operation carries along of a page is not trusted', () => {
  const page = pageOf('<link rel=stylesheet href=s.css>', '<u class=x>x</u>');
  const state = (text: string, rule: string) => siteOf({ 'a.html': text, 's.css': rule });
  const then = state(page, 'i { top: 0 }');
  const first = state(`${page} `, 'i { top: 0 }');
  const prover = new SiteProver(then);
  prover.prove(first);
  const file = first.files.get('a.html')!;
  rememberReading({ ...readingOf(file)!, names: new NameSet(new Interner(), []) });
  const second = {
    files: new Map(
      [...first.files, ...state(`${page} `, 'i { top: 0 } .x { top: 1px }').files].map(([path, one]) => [
        path,
        path === 'a.html' ? file : one,
      ]),
    ),
  };
  expect(prover.prove(second).pages[0]?.verdict).toBe('differs');
});

/** Sheets that import the next one, each so many times. */
const chain = (length: number, times: number, last: string): Record<string, string> =>
  Object.fromEntries([
    ...Array.from({ length }, (_, i) => [`s${i}.css`, `@import "s${i + 1}.css";`.repeat(times)]),
    [`s${length}.css`, last],
    ['a.html', '<!DOCTYPE html><link rel=stylesheet href=s0.css><p>a'],
  ]);

test.each([
  ['deeper than imports are followed', 40, 1],
  ['behind more imports than are followed', 14, 2],
])('a sheet changed %s: never said to be the same', (_shows, length, times) => {
  const before = siteOf(chain(length, times, 'p { color: red }'));
  const after = siteOf(chain(length, times, 'p { color: blue }'));
  expect(proveSites(before, siteOf(chain(length, times, 'p { color: red }'))).verdict).toBe('same');
  expect(proveSites(before, after).verdict).toBe('differs');
});
