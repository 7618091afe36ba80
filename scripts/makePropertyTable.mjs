// Writes packages/core/src/values/propertyTable.ts: what Debian's Chromium says of every property it knows.
// Run by hand when Chromium changes: node scripts/makePropertyTable.mjs
import css from '@webref/css';
import * as csstree from 'css-tree';
import fs from 'node:fs';
import { launchChromium } from './chromium.mjs';

const webref = (await css.listAll()).properties;
const lexer = csstree.lexer;
// vendor keywords are never "sure" in declarationValidity.ts, so the table leaves them out
const names = new Set(
  [...webref.map((p) => p.name), ...Object.keys(lexer.properties)].filter((n) => !n.startsWith('--')),
);

function keywordsOf(syntax, seen = new Set(), out = new Set()) {
  csstree.definitionSyntax.walk(syntax, (node) => {
    if (node.type === 'Keyword') out.add(node.name.toLowerCase());
    if (node.type === 'Type' && !seen.has('<' + node.name) && lexer.types[node.name]?.syntax) {
      seen.add('<' + node.name);
      keywordsOf(lexer.types[node.name].syntax, seen, out);
    }
    if (node.type === 'Property' && !seen.has(node.name) && lexer.properties[node.name]?.syntax) {
      seen.add(node.name);
      keywordsOf(lexer.properties[node.name].syntax, seen, out);
    }
  });
  return out;
}
const keywords = {};
for (const name of names) {
  const syntax = lexer.properties[name]?.syntax;
  if (syntax) keywords[name] = [...keywordsOf(syntax)].filter((k) => /^-?[a-z]/.test(k));
}
const browser = await launchChromium();
const page = await browser.newPage();
await page.setContent('<!doctype html><body><p id=p>');
const found = await page.evaluate(
  ({ names, keywords }) => {
    const element = document.getElementById('p');
    const out = { longhands: {}, refused: {}, computed: [...getComputedStyle(element)] };
    // every name the style object has, `webkitMarginStart` for -webkit-margin-start
    const own = Object.keys(Object.getOwnPropertyDescriptors(Object.getPrototypeOf(element.style)));
    for (const key in element.style) own.push(key);
    const spelled = own.map((key) =>
      key.replace(/[A-Z]/g, (c) => `-${c.toLowerCase()}`).replace(/^webkit-/, '-webkit-'),
    );
    const all = new Set([...names, ...out.computed, ...spelled.filter((name) => /^-?[a-z][-a-z]*$/.test(name))]);
    for (const name of all) {
      element.style.cssText = '';
      element.style.setProperty(name, 'initial');
      const set = [...element.style];
      if (set.length === 0) continue;
      out.longhands[name] = set;
      const bad = (keywords[name] ?? []).filter((k) => !CSS.supports(name, k));
      if (bad.length) out.refused[name] = bad;
    }
    return out;
  },
  { names: [...names], keywords },
);
await browser.close();

// keywords that css-tree takes alone for the property and Chromium does not
const refused = {};
for (const [name, list] of Object.entries(found.refused)) {
  const wrong = list.filter(
    (k) =>
      !/^-(moz|ms|o|apple|epub|internal)-/.test(k) &&
      lexer.matchProperty(name, csstree.parse(k, { context: 'value' })).error === null,
  );
  if (wrong.length) refused[name] = wrong.sort();
}
const inherits = new Set();
for (const p of webref) if (/^yes\b/i.test(p.inherited ?? '')) inherits.add(p.name);
// Chromium's own, and where it and the standard part: propertyFacts.test.ts asks it again
for (const n of '-webkit-border-horizontal-spacing -webkit-border-vertical-spacing -webkit-font-smoothing -webkit-line-break -webkit-locale -webkit-tap-highlight-color -webkit-text-orientation -webkit-text-security -webkit-user-modify -webkit-writing-mode app-region color-rendering font-stretch'.split(
  ' ',
))
  inherits.add(n);
inherits.add('user-select'); // inherits in Chromium, not by the standard
inherits.add('-webkit-user-select');
for (const n of ['interest-delay-start', 'interest-delay-end']) inherits.delete(n);

const longhandRows = {};
for (const [name, set] of Object.entries(found.longhands).sort())
  if (set.length !== 1 || set[0] !== name) longhandRows[name] = set;
const longhands = [...new Set(Object.values(found.longhands).flat())].filter((n) => n !== 'all').sort();
const q = (s) => JSON.stringify(s);
const text = `// Made by scripts/makePropertyTable.mjs from Chromium (longhand sets, refused keywords) and @webref/css (inheritance).
// Do not edit by hand.

/** Every longhand Chromium knows. */
export const longhandNames: readonly string[] = (
  ${q(longhands.join(' '))}
).split(' ');

/** Shorthands and legacy names, each with the longhands it sets, reset-only ones included. \`all\` is told apart by name. */
export const longhandsOfShorthand: Readonly<Record<string, string>> = {
${Object.entries(longhandRows)
  .filter(([n]) => n !== 'all')
  .map(([n, s]) => `  ${q(n)}: ${q(s.join(' '))},`)
  .join('\n')}
};

/** Longhands whose value passes from parent to child. */
export const inheritedLonghands: ReadonlySet<string> = new Set(
  ${q(longhands.filter((n) => inherits.has(n)).join(' '))}.split(' '),
);

/** Keywords that css-tree's lexer takes for a property and Chromium does not. */
export const refusedKeywords: Readonly<Record<string, string>> = {
${Object.entries(refused)
  .sort()
  .map(([n, s]) => `  ${q(n)}: ${q(s.join(' '))},`)
  .join('\n')}
};
`;
fs.mkdirSync('packages/core/src/values', { recursive: true });
fs.writeFileSync('packages/core/src/values/propertyTable.ts', text);
console.log(
  longhands.length,
  'longhands',
  Object.keys(longhandRows).length,
  'shorthands and aliases',
  Object.keys(refused).length,
  'with refused keywords',
);
