import { expect, test } from '@jest/globals';
import fs from 'node:fs';
import { fileURLToPath } from 'node:url';
import { matchSelector } from '../selectors/matchSelector.ts';
import { parseSelectorList } from '../selectors/parseSelector.ts';
import { parseSheet } from '../sheet/parseSheet.ts';
import type { StyleRule } from '../sheet/sheet.ts';
import { makeSite, pagesOf, type Site } from '../source/site.ts';
import { siteOf } from '../testing/siteOf.ts';
import { KeptSite } from './keptSite.ts';
import { CascadeSession } from './pageCascade.ts';
import { differingSlots } from './stack.ts';

const folder = fileURLToPath(new URL('../../../../demo/', import.meta.url));
const demo = makeSite(
  fs.readdirSync(folder, { recursive: true, withFileTypes: true }).flatMap((entry): [string, Uint8Array][] => {
    const full = `${entry.parentPath}/${entry.name}`;
    return entry.isFile() ? [[full.slice(folder.length).replace(/^\//, ''), fs.readFileSync(full)]] : [];
  }),
);

const competing = siteOf({
  'a.css':
    '.x { color: red } p { top: 0 } .y { color: blue; margin: 1px } p { top: 1px; left: 0 } .z { color: red } @media print { .x { color: blue } } .x:hover { color: green } p.x { color: black }',
  'b.css': '.y { color: teal } #i { color: red !important } p { left: 2px !important }',
  '1.html': '<link rel=stylesheet href=a.css><link rel=stylesheet href=b.css><p class="x y">a<p class="y z" style="color: red">b<p id=i class=x>c<p>d', // prettier-ignore
  '2.html': '<!DOCTYPE html><link rel=stylesheet href=b.css><link rel=stylesheet href=a.css><style>.z { color: blue } p { top: 3px }</style><p class="x z">a<p class="x y z">b', // prettier-ignore
  '3.html': '<!DOCTYPE html><style>.x { color: red }</style><p class=x>a',
});

type Reached = Record<string, readonly number[]>;

/** The slow way: every page of both states read anew, element by element. */
function compared(before: Site, after: Site): Reached {
  const first = new CascadeSession();
  const second = new CascadeSession({ twin: first });
  const out: Record<string, number[]> = {};
  const answers = new Map<string, boolean>();
  const differ = (x: number, y: number): boolean => {
    let known = answers.get(`${x} ${y}`);
    if (known === undefined) answers.set(`${x} ${y}`, (known = differingSlots(first.slotsOfList(x), second.slotsOfList(y)).length > 0)); // prettier-ignore
    return known;
  };
  for (const file of pagesOf(before)) {
    if (file.text === undefined) continue;
    const [a, b] = [first.open(before, file), second.open(after, after.files.get(file.path)!)];
    a.tree.elements.forEach((element, i) => {
      const [x, y] = [a.listOf(element), b.listOf(b.tree.elements[i]!)];
      if (x !== y && differ(x, y)) (out[file.path] ??= []).push(i);
    });
  }
  return out;
}

function withText(site: Site, path: string, text: string): Site {
  return makeSite([...site.files.values()].map((f) => [f.path, f.path === path ? new TextEncoder().encode(text) : f.bytes])); // prettier-ignore
}

const rulesOf = (text: string): readonly StyleRule[] =>
  parseSheet(text).rules.filter((rule): rule is StyleRule => rule.kind === 'style');

const plain = (reached: ReadonlyMap<string, readonly number[]>): Reached => Object.fromEntries(reached);

const selectors = ['p', '*', 'nav a', 'nav > ul > li:first-child', '.notice', 'table td + td', 'h1 ~ p', ':root', 'a:hover', 'a[href$=".html"]', '[class]', '[style*=color]', 'p:empty', 'li:nth-child(2n+1 of .on)', ':has(> img)', 'body:not(.home) h2', 'p:not([class]):nth-last-of-type(2)', 'input:disabled, select', ':lang(cy) p', 'P.NOTICE', 'tr:nth-child(odd) > td:last-child', 'svg *', ':is(h1, h2) + p', 'a::before', ':dir(rtl)', 'font', 'center > table']; // prettier-ignore

test('selectors reach what they reach on trees parsed anew', () => {
  const all = [...selectors, ...rulesOf(demo.files.get('css/site.css')!.text!).map((rule) => rule.selector)];
  const kept = new KeptSite(demo);
  const session = new CascadeSession();
  const pages = pagesOf(demo).filter((file) => file.text !== undefined).map((file) => session.open(demo, file)); // prettier-ignore
  for (const text of all) {
    const list = parseSelectorList(text);
    const wanted: Record<string, number[]> = {};
    for (const page of pages) {
      const context = { quirks: page.quirks, state: 'any' } as const;
      for (const element of page.tree.elements)
        if (list?.some((selector) => matchSelector(element, selector, context) > 0)) (wanted[page.path] ??= []).push(element.index); // prettier-ignore
    }
    expect([text, list ? plain(kept.match(text)!) : undefined]).toEqual([text, list ? wanted : undefined]);
  }
  expect(kept.match('::')).toBeUndefined();
  expect(all.length).toBeGreaterThan(40);
});

test.each([
  ['demo', demo, ['css/site.css', 'css/base.css']],
  ['competing rules', competing, ['a.css', 'b.css']],
])(
  'an edit of any rule reaches what a full comparison finds: %s',
  (_name, site, sheets) => {
    const kept = new KeptSite(site);
    let answered = 0;
    for (const path of sheets) {
      const text = site.files.get(path)!.text!;
      for (const rule of rulesOf(text))
        for (const declarations of ['color: #123457; margin-left: 3px', 'color: red', '']) {
          const reached = kept.edit({ path, offset: rule.span.start }, declarations);
          if (!reached) continue;
          answered++;
          const after = withText(site, path, `${text.slice(0, rule.span.start)}${rule.selector} {${declarations}}${text.slice(rule.span.end)}`); // prettier-ignore
          expect([rule.selector, plain(reached)]).toEqual([rule.selector, compared(site, after)]);
        }
    }
    expect(answered).toBeGreaterThan(3);
  },
  60_000,
);

test.each([
  ['demo', demo, ['css/site.css'], 0],
  ['competing rules', competing, ['a.css', 'b.css'], 4],
])(
  'a move of any rule reaches what a full comparison finds: %s',
  (_name, site, sheets, changes) => {
    const kept = new KeptSite(site);
    let answered = 0;
    let changing = 0;
    for (const path of sheets) {
      const text = site.files.get(path)!.text!;
      const rules = rulesOf(text);
      const steps = rules.length > 12 ? 7 : 1;
      for (const [i, rule] of rules.entries())
        for (const [k, next] of [...rules, undefined].entries()) {
          if (next === rule || k % steps !== i % steps) continue;
          const place = next && { path, offset: next.span.start };
          const reached = kept.move({ path, offset: rule.span.start }, place);
          if (!reached) continue;
          answered++;
          const own = text.slice(rule.span.start, rule.span.end);
          const at = next?.span.start ?? text.length;
          const put = `${text.slice(0, at)} ${own} ${text.slice(at)}`;
          const from = at <= rule.span.start ? rule.span.start + own.length + 2 : rule.span.start;
          const after = withText(site, path, put.slice(0, from) + put.slice(from + own.length));
          const wanted = compared(site, after);
          if (Object.keys(wanted).length > 0) changing++;
          expect([rule.selector, next?.selector, plain(reached)]).toEqual([rule.selector, next?.selector, wanted]);
        }
    }
    expect(answered).toBeGreaterThan(3);
    expect(changing).toBeGreaterThanOrEqual(changes);
  },
  120_000,
);

test('what it cannot tell is left to a full comparison', () => {
  const site = siteOf({
    's.css':
      'p { color: red; &:hover { top: 0 } } .a { color: red } @scope (p) { b { top: 0 } } @layer x { .b { left: 0 } }',
    'v.css': 'p { background: var(--pic) }',
    'i.html': '<link rel=stylesheet href=s.css><p class="a b"><b>x</b>',
  });
  const kept = new KeptSite(site);
  const text = site.files.get('s.css')!.text!;
  const at = (part: string): { path: string; offset: number } => ({ path: 's.css', offset: text.indexOf(part) });
  expect(kept.edit(at('p {'), 'top: 0')).toBeUndefined();
  expect(kept.edit({ path: 's.css', offset: 3 }, 'top: 0')).toBeUndefined();
  expect(kept.edit(at('.a'), '--pic: url(x.png)')).toBeUndefined();
  expect(kept.move(at('.b'), undefined)).toBeUndefined();
  expect(kept.move(at('.a'), { path: 'v.css', offset: 0 })).toBeUndefined();
  expect(kept.edit(at('.a'), 'color: blue')!.get('i.html')).toEqual([4]);
});

test('an update reads only what changed, and knows it', () => {
  const first = new KeptSite(competing);
  const changed = withText(
    competing,
    '3.html',
    '<!DOCTYPE html><style>.x { color: red }</style><p class=x>a<p class=x>b',
  );
  const second = first.update(changed);
  expect(second.reread).toEqual(['3.html']);
  expect(plain(second.match('.x')!)).toEqual(plain(new KeptSite(changed).match('.x')!));
  const sheet = withText(changed, 'b.css', '.x { color: blue }');
  expect(second.update(sheet).reread).toEqual(['1.html', '2.html', '3.html']);
  expect(first.update(competing).reread).toEqual([]);
});
