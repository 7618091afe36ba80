import { expect, test } from '@jest/globals';
import fs from 'node:fs';
import { parsePage } from '../page/parsePage.ts';
import { askChromium } from '../testing/chromium.ts';
import { matchList } from './matchSelector.ts';
import { selectorForms } from '../testing/selectorForms.ts';
import { parseSelectorList } from './parseSelector.ts';

const read = (name: string): string => fs.readFileSync(new URL(`../testing/fixtures/${name}`, import.meta.url), 'utf8');

// Selectors 4, all of its chapters; HTML Standard, "Pseudo-classes". The browser answers by element.matches.
const selectors = read('selectors.txt').trim().split('\n');

test.each([
  ['standards', '<!DOCTYPE html>'],
  ['quirks', ''],
])('every selector on every element in %s mode, as Chromium matches', async (mode, doctype) => {
  const html = doctype + read('selectorsPage.html');
  // :scope stands for the element itself in matches(), for the root in a sheet
  const ask = `${JSON.stringify(selectors)}.map((s) => {
    let found;
    try {
      found = new Set(document.documentElement.querySelectorAll(s));
    } catch {
      return 'refused';
    }
    return [...document.querySelectorAll('*')].map((e) => ((s.includes(':scope') ? found.has(e) || (s === ':scope' && e === document.documentElement) : e.matches(s)) ? 1 : 0)).join('');
  })`;
  const [answers] = (await askChromium([{ html, ask }])) as [readonly string[]];
  const page = parsePage(html);
  expect(page.mode === 'quirks').toBe(mode === 'quirks');
  const said = selectors.map((selector) => {
    const list = parseSelectorList(selector);
    if (!list) return 'refused';
    return page.elements
      .map((e) => (matchList(e, list, { quirks: page.mode === 'quirks', state: 'rest' }) === 2 ? 1 : 0))
      .join('');
  });
  const parted = selectors.flatMap((selector, i) => {
    if (said[i] === answers[i]) return [];
    if (said[i] === 'refused' || answers[i] === 'refused')
      return [`${selector}: ${said[i]!.slice(0, 9)} ${answers[i]!.slice(0, 9)}`];
    const at = page.elements.flatMap((e, k) =>
      said[i]![k] === answers[i]![k] ? [] : [`${e.tag}${e.id ? `#${e.id}` : ''} ${k} ${said[i]![k]}`],
    );
    return [`${selector}: ${at.join(', ')}`];
  });
  expect(parted).toEqual([]);
  expect(selectors.length).toBeGreaterThanOrEqual(300);
  expect(page.elements.length).toBeGreaterThanOrEqual(100);
});

// Selectors 4, "Pseudo-elements" and "Functional Pseudo-Classes": the browser reads each as a rule's selector
test('what follows a pseudo-element and what stands in brackets is taken where Chromium takes it', async () => {
  const forms = selectorForms();
  const ask = `(${JSON.stringify(forms)}).map((selector) => {
    const sheet = new CSSStyleSheet();
    sheet.replaceSync(selector + '{color:red}');
    return sheet.cssRules.length > 0 ? 1 : 0;
  }).join('')`;
  const [answers] = (await askChromium([{ html: '<!DOCTYPE html>', ask }])) as [string];
  const parted = forms.filter((selector, i) => (parseSelectorList(selector) !== undefined) !== (answers[i] === '1'));
  expect(parted).toEqual([]);
  expect(forms.length).toBeGreaterThan(4000);
});
