import { expect, test } from '@jest/globals';
import { askChromium } from '../testing/chromium.ts';
import { inherited, notInherited, plainTags } from './silentInitials.ts';

test.each(['<!DOCTYPE html>', ''])(
  'Chromium declares none of these longhands for plain elements, doctype "%s"',
  async (doctype) => {
    const names = [...Object.keys(notInherited), ...Object.keys(inherited)];
    const ask = `${JSON.stringify([...plainTags])}.flatMap((tag) => {
    const bare = tag === 'html' || tag === 'body' ? document.querySelector(tag) : document.body.appendChild(document.createElement(tag));
    const said = document.createElement('div');
    document.body.append(said);
    const read = (e, name) => getComputedStyle(e).getPropertyValue(name);
    return ${JSON.stringify(names)}.filter((name) => {
      said.style.setProperty(name, 'initial');
      // the colour of a line is the element's own
      said.style.color = read(bare, 'color');
      return read(bare, name) !== read(said, name);
    }).map((name) => tag + ' ' + name);
  })`;
    const [found] = await askChromium([{ html: `${doctype}<html><body>`, ask }]);
    // what is left out of the comparison in quirks mode
    expect(found).toEqual(doctype === '' ? ['li list-style-position'] : []);
  },
);
