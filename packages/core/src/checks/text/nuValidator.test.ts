import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { expect, test } from '@jest/globals';
import { declarationValidity } from '../../values/declarationValidity.ts';
import { longhandNames, longhandsOfShorthand } from '../../values/propertyTable.ts';
import { askChromium } from '../../testing/chromium.ts';
import { textFindings } from './textFindings.ts';
import { LineIndex } from '../../source/span.ts';

/*
 * A second opinion: the Nu validator's CSS checker (W3C CSS Validation Service, in the registry's Java archive). Where it and
 * we do not agree on a line, the difference is one of those explained below.
 */
const archive = path.join(import.meta.dirname, '../../../../../node_modules/vnu-jar/build/dist/vnu.jar');
const demo = path.join(import.meta.dirname, '../../../../../demo/css');

/** Words of values by kind; each property meets all of them. */
const words = ['0', '1', '10px', '1.5em', '50%', '-2px', '#0b5563', '#fff', '#12345', 'red', 'rde', 'none', 'auto', 'normal', 'inherit', 'bold', 'blok', 'block', 'left', 'center', 'underline', 'solid', '1px solid red', 'Georgia, serif', 'url(a.png)', '10', 'italic', 'hidden', 'visible', 'collapse', 'uppercase', 'pointer', 'disc', 'both', 'top', 'middle', 'absolute', 'pre', 'repeat-x', 'thin', '2s', 'ease']; // oxfmt-ignore

/** What hand-written pages say: the properties of CSS 2.1 and the most used since. */
const old =
  /^(background(-(attachment|color|image|position|repeat))?|border(-(top|right|bottom|left))?(-(color|style|width))?|border-(collapse|spacing|radius)|bottom|caption-side|clear|color|cursor|direction|display|empty-cells|float|font(-(family|size|style|variant|weight))?|height|left|letter-spacing|line-height|list-style(-(image|position|type))?|margin(-(top|right|bottom|left))?|max-(height|width)|min-(height|width)|opacity|orphans|outline(-(color|style|width))?|overflow|padding(-(top|right|bottom|left))?|position|right|table-layout|text-(align|decoration|indent|transform)|top|vertical-align|visibility|white-space|widows|width|word-spacing|z-index)$/;
const properties = [...longhandNames, ...Object.keys(longhandsOfShorthand)].filter((name) => old.test(name)).sort();

/** Lines where the two may part, and why. */
const explained: readonly (readonly [line: RegExp, why: string])[] = [
  [/\{ font-style: left \}/, 'CSS Fonts 4 has it; no browser takes it yet'],
  [/\{ outline: hidden \}/, 'CSS UI 4, "outline-style": hidden is not a value of it; theirs is the style of borders'],
  [/\{ font: (normal|left|italic|bold|[\d.]+(%|px|em)?) \}/, 'CSS Fonts 4, "font": a size and a family must be there'],
  [/\{ text-decoration: -2px \}/, 'CSS Text Decoration 4: a thickness may be written below zero'],
  [/\{ outline-color: auto \}/, 'CSS UI 4, "outline-color": auto; Chromium does not take it, so we claim nothing'],
  [/\{ letter-spacing: 50% \}/, 'CSS Text 4, "letter-spacing": percentages'],
];

interface Message {
  readonly url: string;
  readonly lastLine?: number;
  readonly type: string;
}

function nuLines(files: readonly string[]): ReadonlyMap<string, ReadonlySet<number>> {
  let output: string;
  try {
    output = execFileSync(
      'java',
      ['-jar', archive, '--format', 'json', '--stdout', '--exit-zero-always', '--css', ...files],
      { encoding: 'utf8', maxBuffer: 1e9 },
    );
  } catch (error) {
    throw new Error('The Nu validator needs a Java runtime: as root, apt-get install default-jre-headless', {
      cause: error,
    });
  }
  const out = new Map<string, Set<number>>(files.map((file) => [path.basename(file), new Set()]));
  const { messages } = JSON.parse(output) as { messages: readonly Message[] };
  for (const { url, lastLine = 0, type } of messages) if (type === 'error') out.get(path.basename(url))!.add(lastLine);
  return out;
}

const ourLines = (text: string): ReadonlySet<number> => {
  const lines = new LineIndex(text);
  return new Set(
    textFindings(text).flatMap(({ kind, span }) =>
      kind === 'hidden-declaration' || kind === 'duplicate-rule' ? [] : [lines.placeOf(span.start).line],
    ),
  );
};

test('the demo and 50 sheets: the same lines are wrong, but for differences that are explained', async () => {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'syndeton-nu-'));
  try {
    const all = properties.flatMap((property) => words.map((word) => `${property}: ${word}`));
    const per = Math.ceil(all.length / 50);
    const files = Array.from({ length: 50 }, (_, i) => {
      const file = path.join(folder, `${i}.css`);
      // a rule a line: none beats another, none is another's fallback
      fs.writeFileSync(
        file,
        all
          .slice(i * per, (i + 1) * per)
          .map((said, n) => `.r${n} { ${said} }`)
          .join('\n'),
      );
      return file;
    });
    for (const name of fs.readdirSync(demo)) files.push(path.join(demo, name));
    const theirs = nuLines(files);
    const differences: string[] = [];
    const parted: { readonly line: string; readonly we: boolean }[] = [];
    for (const file of files) {
      const text = fs.readFileSync(file, 'utf8');
      const ours = ourLines(text);
      text.split('\n').forEach((line, i) => {
        const [we, they] = [ours.has(i + 1), theirs.get(path.basename(file))!.has(i + 1)];
        if (we !== they) parted.push({ line, we });
        if (we !== they && !explained.some(([pattern]) => pattern.test(line)))
          differences.push(`${we ? 'only we' : 'only Nu'}: ${line.trim()}`);
      });
    }
    expect(differences).toEqual([]);
    // an explanation that nothing needs any more goes
    expect(explained.filter(([pattern]) => !parted.some(({ line }) => pattern.test(line)))).toEqual([]);
    // where only we find fault the browser drops the line; where only Nu does, it takes it or we claim nothing
    const [taken] = await askChromium([
      {
        html: '<p>',
        ask: `${JSON.stringify(parted.map(({ line }) => line))}.map((line) => { const s = new CSSStyleSheet(); s.replaceSync(line); return s.cssRules[0].style.length > 0; })`,
      },
    ]);
    const wrong = parted.filter(({ line, we }, i) => {
      const [, property, value] = /\{ ([\w-]+): (.*) \}/.exec(line)!;
      return (taken as boolean[])[i] ? we : !we && declarationValidity(property!, value!) === 'valid';
    });
    expect(wrong).toEqual([]);
  } finally {
    fs.rmSync(folder, { recursive: true });
  }
});
