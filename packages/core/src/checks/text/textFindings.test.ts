import { describe, expect, test } from '@jest/globals';
import { applyEdits } from '../../source/applyEdits.ts';
import { placeOf } from '../../source/span.ts';
import { textFindings } from './textFindings.ts';

const told = (text: string): readonly string[] =>
  textFindings(text).map(({ kind, span }) => {
    const { line, column } = placeOf(text, span.start);
    return `${kind} ${line}:${column}`;
  });

const mended = (text: string): string => {
  const [first] = textFindings(text);
  const result = applyEdits(text, first?.mend?.edits ?? []);
  return result.ok ? result.value : 'edits overlap';
};

describe('where it begins, and the text after the mend', () => {
  test.each([
    // what it shows, text, found, after the first mend
    ['nothing wrong', 'a { color: red }\n', [], 'a { color: red }\n'],
    ['a no-break space', '\u00a0p { top: 0 }\n', ['strange-space 1:1'], ' p { top: 0 }\n'],
    [
      'files that were joined',
      'p { top: 0 }\n\ufeffb { top: 0 }\n',
      ['strange-space 2:1'],
      'p { top: 0 }\nb { top: 0 }\n',
    ],
    ['a colon forgotten', 'p { color red; top: 0 }\n', ['lost-declaration 1:5'], 'p { color: red; top: 0 }\n'],
    ['an equals sign for a colon', 'p { color = red }\n', ['lost-declaration 1:5'], 'p { color: red }\n'],
    ['a stray sign', 'p { color: red; 1 }\n', ['lost-declaration 1:17'], 'p { color: red;  }\n'],
    ['a stray word on its line', 'p {\n  top: 0;\n  foo;\n}\n', ['lost-declaration 3:3'], 'p {\n  top: 0;\n}\n'],
    [
      'a comment of another language',
      'p {\n  // red\n  top: 0;\n}\n',
      ['lost-declaration 2:3'],
      'p {\n  /* red */\n  top: 0;\n}\n',
    ],
    [
      'a semicolon missing',
      'p {\n  color: red\n  top: 0;\n}\n',
      ['invalid-value 2:10'],
      'p {\n  color: red;\n  top: 0;\n}\n',
    ],
    ['names that only old browsers read', 'p { *zoom: 1; top: 0 }\n', [], 'p { *zoom: 1; top: 0 }\n'],
    [
      'a brace missing before the next rule',
      'h2 {\n  color: red;\n\n.notice {\n  margin: 0;\n}\n',
      ['brace 1:1'],
      'h2 {\n  color: red;\n}\n\n.notice {\n  margin: 0;\n}\n',
    ],
    [
      'a brace missing, comment and rule after it',
      'p { color: red }\nh2 {\n  color: red\n/* next */\nb { top: 0 }\ni { top: 0 }',
      ['brace 2:1'],
      'p { color: red }\nh2 {\n  color: red;\n}\n/* next */\nb { top: 0 }\ni { top: 0 }',
    ],
    [
      'a brace missing in the last rule',
      'p { color: red }\nh2 {\n  color: red;\n',
      ['brace 2:1'],
      'p { color: red }\nh2 {\n  color: red;\n}\n',
    ],
    [
      'a brace missing in one line',
      'p { color: red\nh2 { top: 0 }\n',
      ['brace 1:1'],
      'p { color: red; }\nh2 { top: 0 }\n',
    ],
    [
      'a brace missing inside @media',
      '@media print {\n  p {\n    top: 0;\n  b { top: 0 }\n}\n',
      ['brace 2:3'],
      '@media print {\n  p {\n    top: 0;\n  }\n  b { top: 0 }\n}\n',
    ],
    [
      'the brace of @media missing',
      '@media print {\n  p { top: 0 }\n\nb {\n  top: 0;\n}\n',
      ['brace 1:1'],
      '@media print {\n  p { top: 0 }\n}\n\nb {\n  top: 0;\n}\n',
    ],
    [
      'a rule nested on purpose',
      '.card {\n  color: red;\n  & b { top: 0 }\n}\n',
      [],
      '.card {\n  color: red;\n  & b { top: 0 }\n}\n',
    ],
    ['a brace too many', 'p { top: 0 }\n}\nb { top: 0 }\n', ['brace 2:1'], 'p { top: 0 }\nb { top: 0 }\n'],
    [
      'a rule closed too early',
      'p {\n  top: 0;\n}\n  left: 0;\n}\nb { top: 0 }\n',
      ['brace 3:1'],
      'p {\n  top: 0;\n  left: 0;\n}\nb { top: 0 }\n',
    ],
    ['braces in comments and strings', 'p { /* } */ content: "{" }\n', [], 'p { /* } */ content: "{" }\n'],
    [
      'CRLF stays',
      'h2 {\r\n  top: 0\r\n\r\nb { top: 0 }\r\n',
      ['brace 1:1'],
      'h2 {\r\n  top: 0;\r\n}\r\n\r\nb { top: 0 }\r\n',
    ],
    ['a misspelt property', 'p { backgroud: red }', ['unknown-property 1:5'], 'p { background: red }'],
    ['a misspelt value', 'p { display: blok }', ['invalid-value 1:14'], 'p { display: block }'],
    ['a length without its unit', 'p { width: 10 }', ['invalid-value 1:12'], 'p { width: 10px }'],
    [
      'a fallback is none',
      'p { display: -webkit-box; display: flex; color: red; color: oklch(0.5 0.1 20) }',
      [],
      'p { display: -webkit-box; display: flex; color: red; color: oklch(0.5 0.1 20) }',
    ],
    [
      'said twice in one rule',
      'p {\n  color: red;\n  color: blue;\n}\n',
      ['hidden-declaration 2:3'],
      'p {\n  color: blue;\n}\n',
    ],
    [
      'a rule said again',
      'p { top: 0 }\nb { top: 0 }\np { top: 0 }\n',
      ['duplicate-rule 1:1'],
      'b { top: 0 }\np { top: 0 }\n',
    ],
    [
      'a rule said again in print only is another',
      '@media print { p { top: 0 } }\np { top: 0 }\n',
      [],
      '@media print { p { top: 0 } }\np { top: 0 }\n',
    ],
    ['page markup', '<style>\np { top: 0 }\n', ['markup-in-sheet 1:1'], 'p { top: 0 }\n'],
    [
      'an import after a rule',
      'p { top: 0 }\n@import "a.css";\n',
      ['misplaced-rule 2:1'],
      '@import "a.css";\np { top: 0 }\n',
    ],
    [
      'imports after layer names and charset',
      '@charset "utf-8";\n@layer a, b;\n@import "a.css";\n',
      [],
      '@charset "utf-8";\n@layer a, b;\n@import "a.css";\n',
    ],
    ['charset not first', '\n@charset "utf-8";\np { top: 0 }\n', ['misplaced-rule 2:1'], '\np { top: 0 }\n'],
    [
      'a comment as other languages write them',
      '// heads\nh2 { top: 0 }\n',
      ['refused-selector 1:1'],
      '/* heads */\nh2 { top: 0 }\n',
    ],
    ['a space after the dot', '. note { top: 0 }', ['refused-selector 1:1'], '.note { top: 0 }'],
    ['a comma too many', 'h1, h2, { top: 0 }', ['refused-selector 1:1'], 'h1, h2 { top: 0 }'],
    [
      'a comment never closed',
      'p { top: 0 }\n/* heads\nb { top: 0 }\n',
      ['unclosed 2:1'],
      'p { top: 0 }\n/* heads */\nb { top: 0 }\n',
    ],
    [
      'a media query without parentheses',
      '@media max-width: 600px { p { top: 0 } }',
      ['media-query 1:8'],
      '@media (max-width: 600px) { p { top: 0 } }',
    ],
    [
      'a media query without its colon',
      '@media (max-width 600px) { p { top: 0 } }',
      ['media-query 1:8'],
      '@media (max-width: 600px) { p { top: 0 } }',
    ],
    [
      'a media query without a unit',
      '@media (max-width: 600) { p { top: 0 } }',
      ['media-query 1:8'],
      '@media (max-width: 600px) { p { top: 0 } }',
    ],
    [
      'a media query without and',
      '@media screen (min-width: 20em) { p { top: 0 } }',
      ['media-query 1:8'],
      '@media screen and (min-width: 20em) { p { top: 0 } }',
    ],
    [
      'a misspelt feature',
      '@media (max-widht: 600px) { p { top: 0 } }',
      ['media-query 1:8'],
      '@media (max-width: 600px) { p { top: 0 } }',
    ],
    ['a misspelt medium', '@media pint { p { top: 0 } }', ['media-query 1:8'], '@media print { p { top: 0 } }'],
    ['an old medium is known', '@media handheld { p { top: 0 } }', [], '@media handheld { p { top: 0 } }'],
  ])('%s', (_shows, text, found, after) => {
    expect(told(text)).toEqual(found);
    expect(mended(text)).toBe(after);
    // one act, and nothing is wrong any more
    expect(told(after)).toEqual([]);
  });
});
