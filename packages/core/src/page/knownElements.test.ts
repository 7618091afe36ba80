import { expect, test } from '@jest/globals';
import { askChromium } from '../testing/chromium.ts';
import { isKnownElement } from './knownElements.ts';

/** Elements of old browsers that Chromium no longer knows, and that hand-coded pages still style. */
const gone =
  'applet basefont bgsound blink image isindex keygen menuitem multicol nextid spacer math mi mo mn ms mtext slot selectedcontent search command'.split(
    ' ',
  );
const names =
  'a abbr acronym address area article aside audio b base bdi bdo big blockquote body br button canvas caption center cite code col colgroup data datalist dd del details dfn dialog dir div dl dt em embed fieldset figcaption figure font footer form frame frameset h1 h2 h3 h4 h5 h6 head header hgroup hr html i iframe img input ins kbd label legend li link listing main map mark marquee menu meta meter nav nobr noembed noframes noscript object ol optgroup option output p param picture plaintext pre progress q rb rp rt rtc ruby s samp script section select small source span strike strong style sub summary sup table tbody td template textarea tfoot th thead time title tr track tt u ul var video wbr xmp';
const slips = [
  'card',
  'container',
  'wrapper',
  'content',
  'element',
  'headline',
  'picture2',
  'box',
  'menu2',
  'h7',
  'sidebar',
];

test('what Chromium knows as an element of HTML, a selector may name; what it does not, is a slip', async () => {
  const all = [...names.split(' '), ...slips];
  const ask = `${JSON.stringify(all)}.filter((name) => !(document.createElement(name) instanceof HTMLUnknownElement)).join(' ')`;
  const [known] = await askChromium([{ html: '<p>', ask }]);
  expect(all.filter((name) => isKnownElement(name)).join(' ')).toBe(known);
});

test('elements of old browsers, drawings, formulas and custom ones are no slips', () => {
  const drawn = ['path', 'lineargradient', 'feblend', 'x-card', 'mrow'];
  expect([...gone.filter((name) => name !== 'command'), ...drawn].filter((name) => !isKnownElement(name))).toEqual([]);
});
