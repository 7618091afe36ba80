import { describe } from '@jest/globals';
import { link, pages, style, type CheckCase } from '../testing/checkCases.ts';
import { checkCases } from '../testing/runCheckCases.ts';
import { pageOf } from '../testing/siteOf.ts';

const linked = (css: string) => ({ 'a.html': pageOf(link('s.css'), '<p>x'), 's.css': css });

const cases: Readonly<Record<string, readonly CheckCase[]>> = {
  brace: [
    [
      'one missing; a nested rule lacks none',
      linked('h2 {\n  color: red;\n\np { top: 0 }\n'),
      '`s.css`: The closing brace of `h2` is missing, so `p` counts as a part of it',
      linked('h2 {\n  color: red;\n  & p { top: 0 }\n}\n'),
    ],
    [
      'one too many, in blocks; in a comment it is none',
      pages(2, style('p { top: 0 } }\nb { top: 0 }')),
      '`a` and `b`: This brace closes nothing; the rule after it is lost',
      pages(2, style('p { top: 0 } /* } */ b { top: 0 }')),
    ],
  ],
  unclosed: [
    [
      'a comment; a closed one',
      linked('b { top: 0 }\n/* p { top: 0 }\n'),
      '`s.css`: This comment is never closed, so all that follows is lost',
      linked('b { top: 0 }\n/* p { top: 0 } */\n'),
    ],
  ],
  'refused-selector': [
    [
      'a comma at the end; one inside a function',
      linked('h1, p, { top: 0 }'),
      '`s.css`: Browsers cannot read the selector `h1, p,`, so they drop the whole rule',
      linked('h1, p { top: 0 } :is(h1, p) { top: 0 } p::-moz-selection { color: red }'),
    ],
  ],
  'media-query': [
    [
      'in a sheet; a range is read',
      linked('@media (max-widht: 30em) { p { top: 0 } }'),
      '`s.css`: Browsers do not know `max-widht` with this value, so `(max-widht: 30em)` never holds',
      linked('@media (width <= 30em), not print { p { top: 0 } }'),
    ],
    [
      'of a link; an old medium',
      { 'a.html': pageOf(link('s.css', ' media="screen (max-width: 30em)"'), '<p>x'), 's.css': 'p{top:0}' },
      '`a`: Browsers cannot read the media query `screen (max-width: 30em)`, so it never holds',
      { 'a.html': pageOf(link('s.css', ' media="handheld, screen"'), '<p>x'), 's.css': 'p{top:0}' },
    ],
  ],
  'misplaced-rule': [
    [
      'an import after a rule; after names of layers',
      { ...linked('p { top: 0 }\n@import "t.css";'), 't.css': 'b{top:0}' },
      '`s.css`: Browsers drop an `@import` that comes after `p`',
      { ...linked('@layer a;\n@import "t.css";\np { top: 0 }'), 't.css': 'b{top:0}' },
    ],
  ],
  'lost-declaration': [
    [
      'a colon forgotten; what only old browsers read',
      linked('p { color red }\n'),
      '`s.css`: `color red` has no colon, so browsers pass over it',
      linked('p { *color: red }\n'),
    ],
  ],
  'strange-space': [
    [
      'pasted with no-break spaces; in a string it is meant',
      linked('p { color:\u00a0red }\n'),
      '`s.css`: A no-break space is no space to browsers, so what it stands at does not count',
      linked('\ufeffp::after { content: "\u00a0" /*\u00a0*/ }\n'),
    ],
  ],
  'duplicate-rule': [
    [
      'said again; in another medium it is another',
      linked('p { top: 0 }\nb { top: 0 }\np { top: 0 }\n'),
      '`s.css`: `p` says the same again; this one never counts',
      linked('p { top: 0 }\n@media print { p { top: 0 } }\n'),
    ],
  ],
};

describe('texts of sheets and blocks', () => checkCases(cases));
