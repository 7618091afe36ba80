import { expect, test } from '@jest/globals';
import { askChromium } from '../testing/chromium.ts';
import { parseAnPlusB } from './anPlusB.ts';

// CSS Syntax 3, "The An+B microsyntax": comments part tokens, escapes spell names, a sign stands with its number
const formulas = [
  ...[
    '2/**/n',
    'n/**/+1',
    'n/**/-1',
    'n-/**/1',
    'n+/**/1',
    'n + /**/ 1',
    '+/**/1',
    '-/**/n',
    '+/**/n',
    'o/**/dd',
    '1/**/',
  ],
  ...[
    '/**/1',
    '2n of/**/p',
    '2n/**/of p',
    '2n /**/of p',
    '1/**/1',
    '2n/**/ - /**/1',
    '-/**/1',
    '-n/**/+/**/2',
    'ev\\65n',
  ],
  ...[
    'n-\\31',
    '\\6e',
    'o\\64 d',
    'e\u212an',
    '-n-',
    '+ n',
    '+ 1',
    '2n+ 1',
    '2n +1',
    '2n + 1',
    '2n + +1',
    '2n 1',
    '1.0',
    'N',
    'ODD',
  ],
  ...[
    '-0n+1',
    '1e3',
    '\u0661',
    '+n',
    '-n+2',
    '2N-1',
    '2n-1 of p',
    '2n of',
    'of p',
    '',
    '2n of p,b',
    '0n+2',
    '3 of p',
    '2n\u00a0+1',
  ],
];

test('which are taken, and whom they mean: Chromium says the same', async () => {
  const html = '<!DOCTYPE html><title>t</title><body><p>1<p>2<b>3</b><p>4<p>5';
  const ask = `${JSON.stringify(formulas)}.map((one) => { try { return [...document.querySelectorAll('body > :nth-child(' + one + ')')].map((e) => [...document.body.children].indexOf(e) + 1) } catch { return 'refused' } })`;
  const [answer] = (await askChromium([{ html: html.replace('<b>', '</p><b>'), ask }])) as [(number[] | 'refused')[]];
  const tags = ['p', 'p', 'b', 'p', 'p'];
  const own = formulas.map((text) => {
    const found = parseAnPlusB(text);
    if (!found || found.of?.trim() === '') return 'refused';
    const among = (tag: string): boolean => found.of === undefined || found.of.includes(tag);
    return tags.flatMap((tag, i) => {
      const place = tags.slice(0, i + 1).filter(among).length;
      const n = found.step === 0 ? 0 : (place - found.offset) / found.step;
      return among(tag) && n >= 0 && Number.isInteger(n) && place === n * found.step + found.offset ? [i + 1] : [];
    });
  });
  expect(formulas.map((text, i) => [text, own[i]])).toEqual(formulas.map((text, i) => [text, answer[i]]));
});
