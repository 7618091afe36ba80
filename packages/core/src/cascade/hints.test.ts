import { expect, test } from '@jest/globals';
import { parsePage } from '../page/parsePage.ts';
import { presentationalParts } from '../page/presentational.ts';
import { askChromium } from '../testing/chromium.ts';
import { hintDeclarations } from './hints.ts';

// HTML Standard, "Rendering": "Tables", "The page", "Phrasing content"; values as in Chromium
const rows = [
  ['<td bgcolor="#f00">', 'td', 'background-color'],
  ['<td valign=top>', 'td', 'vertical-align'],
  ['<td nowrap>', 'td', 'white-space'],
  ['<td width=40>', 'td', 'width'],
  ['<td align=right>', 'td', 'text-align'],
  ['<font color=green>', 'font', 'color'],
  ['<font face="Georgia">', 'font', 'font-family'],
  ['<div align=center>', 'div', 'text-align'],
  ['<p align=right>', 'p', 'text-align'],
  ['<h2 align=center>', 'h2', 'text-align'],
  ['<table width="80%">', 'table', 'width'],
] as const;
const page = (markup: string): string =>
  `<!DOCTYPE html><body>${markup.startsWith('<td') ? `<table><tr>${markup}x</table>` : `${markup}x`}`;

test.each(rows)('%s carries styling on %s: %s', (markup, tag, property) => {
  const element = parsePage(page(markup)).elements.find((e) => e.tag === tag)!;
  expect(presentationalParts(element).length).toBeGreaterThan(0);
  expect(hintDeclarations(element).some((text) => text.startsWith(`${property}:`))).toBe(true);
});

test('as a style attribute the declarations do what the attributes do, in Chromium', async () => {
  const asStyle = rows.map(([markup, tag]) => {
    const element = parsePage(page(markup)).elements.find((e) => e.tag === tag)!;
    return page(`<${tag} style='${hintDeclarations(element).join(';')}'>`);
  });
  const ask = (tag: string, property: string): string =>
    `getComputedStyle(document.querySelector('${tag}')).getPropertyValue('${property}')`;
  const answers = await askChromium(
    rows.flatMap(([markup, tag, property], i) => [
      { html: page(markup), ask: ask(tag, property) },
      { html: asStyle[i]!, ask: ask(tag, property) },
    ]),
  );
  expect(rows.map(([markup], i) => `${markup} ${String(answers[2 * i + 1])}`)).toEqual(
    rows.map(([markup], i) => `${markup} ${String(answers[2 * i])}`),
  );
});

test.each([
  ['<p class=x style="color:red" title=t>', []],
  ['<font size=2>', ['<font>', 'size']],
  ['<center>', ['<center>']],
  ['<img width=3 height=4 hspace=2>', ['hspace']],
  ['<table border=0 cellpadding=2>', ['border', 'cellpadding']],
  ['<svg width=3 color=red>', []],
])('%s has %j', (markup, parts) => {
  const element = parsePage(`<!DOCTYPE html>${markup}`).elements.find((e) => !/^(html|head|body)$/.test(e.tag))!;
  expect(presentationalParts(element)).toEqual(parts);
});
