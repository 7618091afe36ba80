import { expect, test } from '@jest/globals';
import fs from 'node:fs';
import { fileURLToPath } from 'node:url';
import { CascadeSession } from '../cascade/pageCascade.ts';
import { matchSelector } from '../selectors/matchSelector.ts';
import { parseSelectorList } from '../selectors/parseSelector.ts';
import { parseSheet } from '../sheet/parseSheet.ts';
import { makeSite, pagesOf } from '../source/site.ts';
import { KeptOutcomes } from './keptOutcomes.ts';

const folder = fileURLToPath(new URL('../../../../demo/', import.meta.url));
const demo = makeSite(
  fs.readdirSync(folder, { recursive: true, withFileTypes: true }).flatMap((entry): [string, Uint8Array][] => {
    const full = `${entry.parentPath}/${entry.name}`;
    return entry.isFile() ? [[full.slice(folder.length).replace(/^\//, ''), fs.readFileSync(full)]] : [];
  }),
);

type Reached = Record<string, readonly number[]>;

/** Elements by page, by their number. */
function reached(kept: KeptOutcomes, selector: string): Reached | undefined {
  const reaching = kept.reach(selector);
  if (!reaching) return undefined;
  if (reaching.by === 'element') return Object.fromEntries(reaching.elements);
  const out: Reached = {};
  for (const { path, cells } of kept.pages) {
    const own = [...cells].flatMap((cell, i) => (reaching.cells[cell] ? [i] : []));
    if (own.length > 0) out[path] = own;
  }
  return out;
}

const selectors = ['p', '*', 'nav a', 'nav > ul > li:first-child', '.notice', 'table td + td', 'h1 ~ p', ':root', 'a:hover', 'a[href$=".html"]', '[class]', '[style*=color]', 'p:empty', 'li:nth-child(2n+1 of .on)', ':has(> img)', 'body:not(.home) h2', 'p:not([class]):nth-last-of-type(2)', 'input:disabled, select', ':lang(cy) p', 'P.NOTICE', 'tr:nth-child(odd) > td:last-child', 'svg *', ':is(h1, h2) + p', 'a::before', ':dir(rtl)', 'font', 'center > table']; // oxfmt-ignore

test('selectors reach what they reach on trees parsed anew', () => {
  const rules = parseSheet(demo.files.get('css/site.css')!.text!).rules;
  const all = [...selectors, ...rules.flatMap((rule) => (rule.kind === 'style' ? [rule.selector] : []))];
  const kept = new KeptOutcomes(demo);
  const session = new CascadeSession();
  const pages = pagesOf(demo)
    .filter((file) => file.text !== undefined)
    .map((file) => session.open(demo, file));
  for (const text of all) {
    const list = parseSelectorList(text);
    const wanted: Record<string, number[]> = {};
    for (const page of pages) {
      const context = { quirks: page.quirks, state: 'any' } as const;
      for (const element of page.tree.elements)
        if (list?.some((selector) => matchSelector(element, selector, context) > 0))
          (wanted[page.path] ??= []).push(element.index);
    }
    expect([text, reached(kept, text)]).toEqual([text, list ? wanted : undefined]);
  }
  expect(kept.reach('::')).toBeUndefined();
  expect(all.length).toBeGreaterThan(40);
});
