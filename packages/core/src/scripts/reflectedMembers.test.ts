import { expect, test } from '@jest/globals';
import { askChromium } from '../testing/chromium.ts';
import { readScript } from './readScript.ts';

const tags = ['body', 'table', 'caption', 'tbody', 'tr', 'td', 'th', 'col', 'img', 'hr', 'font', 'br', 'div', 'p', 'h1', 'pre', 'iframe', 'object', 'embed', 'input', 'legend', 'marquee']; // oxfmt-ignore
/** Attributes that carry styling, which gathering may take away. */
const attributes = ['align', 'alink', 'background', 'bgcolor', 'border', 'cellpadding', 'cellspacing', 'clear', 'color', 'face', 'frame', 'height', 'hspace', 'link', 'marginheight', 'marginwidth', 'noshade', 'nowrap', 'rules', 'size', 'text', 'valign', 'vlink', 'vspace', 'width']; // oxfmt-ignore

/** Every member of every such element, and of the document, that Chromium lets set one of these. */
const ask = `(() => {
  const found = new Set();
  const tryAll = (of, said) => {
    for (let at = of; at && at !== Element.prototype && at !== Node.prototype; at = Object.getPrototypeOf(at))
      for (const name of Object.getOwnPropertyNames(at)) {
        for (const attribute of ${JSON.stringify(attributes)}) of.removeAttribute(attribute);
        try { of[name] = name === 'noShade' || name === 'noWrap' ? true : '7'; } catch { continue; }
        for (const attribute of ${JSON.stringify(attributes)}) if (of.hasAttribute(attribute)) found.add(said + name + ' ' + attribute);
      }
  };
  for (const tag of ${JSON.stringify(tags)}) { const one = document.createElement(tag); tryAll(one, 'm.'); }
  for (const name of ['alinkColor', 'bgColor', 'fgColor', 'linkColor', 'vlinkColor']) {
    for (const attribute of ${JSON.stringify(attributes)}) document.body.removeAttribute(attribute);
    document[name] = 'red';
    for (const attribute of ${JSON.stringify(attributes)}) if (document.body.hasAttribute(attribute)) found.add('document.' + name + ' ' + attribute);
  }
  return [...found].sort();
})()`;

test('every member by which Chromium sets a presentational attribute is one', async () => {
  const [answer] = await askChromium([{ html: '<!DOCTYPE html><body>', ask }]);
  const members = (answer as readonly string[]).map((line) => line.split(' ') as [member: string, attribute: string]);
  const missed = members.filter(([member, attribute]) => {
    const { touches } = readScript(`${member} = x`, 'script');
    return !touches.some(({ what }) => what.kind === 'attribute' && what.name === attribute);
  });
  expect(missed).toEqual([]);
  expect(members.length).toBeGreaterThan(20);
});
