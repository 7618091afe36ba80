import { expect, test } from '@jest/globals';
import { askChromium } from '../../testing/chromium.ts';
import { textFindings } from './textFindings.ts';

/** What stands in a rule, and what Chromium takes of it. */
const rows: readonly (readonly [written: string, taken: string])[] = [
  ['color red; top: 1px', 'top: 1px;'],
  ['color = red; top: 1px', 'top: 1px;'],
  ['top: 1px; 1', 'top: 1px;'],
  ['top: 1px; "x"; left: 2px', 'top: 1px; left: 2px;'],
  ['foo; top: 1px', 'top: 1px;'],
  ['// color: red;\n top: 1px', 'top: 1px;'],
  ['// gone\n color: red; top: 1px', 'top: 1px;'],
  ['color: red\n top: 1px; left: 2px', 'left: 2px;'],
];

test('what is said to be lost, Chromium passes over; the rest it takes', async () => {
  const ask = 'document.styleSheets[0].cssRules[0].style.cssText';
  const answers = await askChromium(
    rows.map(([written]) => ({ html: `<!DOCTYPE html><style>p{${written}}</style>`, ask })),
  );
  expect(answers).toEqual(rows.map(([, taken]) => taken));
  for (const [written] of rows) expect(textFindings(`p{${written}}`)).toHaveLength(1);
});
