import { expect, test } from '@jest/globals';
import { askChromium } from '../testing/chromium.ts';
import { backgroundAttributes, inherited, notInherited, plainTags } from './silentInitials.ts';

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

/** Attributes that make browsers style an element, or may: HTML Standard, "Rendering"; ARIA and others that could. */
const attributes = {
  align: 'center', background: 'x.png', bgcolor: 'red', border: '1', char: '.', clear: 'all', color: 'red', cols: '2', compact: '',
  contenteditable: '', dir: 'rtl', disabled: '', draggable: 'true', face: 'serif', frame: 'box', headers: 'x', hidden: '', href: 'x',
  inert: '', lang: 'ar', link: 'red', noshade: '', nowrap: '', open: '', popover: '', reversed: '', role: 'button', rules: 'all',
  size: '7', start: '2', summary: 'x', tabindex: '0', text: 'red', title: 'x', type: 'a', valign: 'top', value: '2', width: '9',
}; // oxfmt-ignore

test('Chromium gives plain elements a background, a border image or a decoration only by attributes that are asked about', async () => {
  const ask = `Object.entries(${JSON.stringify(attributes)}).flatMap(([attribute, value]) =>
    ${JSON.stringify([...plainTags])}.flatMap((tag) => {
      const make = (as) => {
        const one = tag === 'html' || tag === 'body' ? document.querySelector(tag) : document.body.appendChild(document.createElement(tag));
        for (const [name, text] of as) one.setAttribute(name, text);
        const style = getComputedStyle(one);
        const said = ${JSON.stringify(Object.keys(notInherited).filter((name) => name !== 'text-decoration-color'))}.map((name) => style.getPropertyValue(name)).join();
        for (const [name] of as) one.removeAttribute(name);
        return said;
      };
      return make([]) === make([[attribute, value]]) ? [] : [attribute];
    }))`;
  const [found] = await askChromium([{ html: '<!DOCTYPE html><html><body>', ask }]);
  expect([...new Set(found as string[])]).toEqual([...backgroundAttributes].sort());
});

/** HTML Standard, "Elements", from memory, with MathML and SVG roots. */
const containers =
  'a abbr address article aside audio b bdi bdo blockquote button canvas caption center cite code data datalist dd del details dfn dialog dir div dl dt em fieldset figcaption figure font footer form h1 h2 h3 h4 h5 h6 header hgroup i ins kbd label legend li main map mark marquee menu meter nav nobr noscript object ol optgroup option output p pre progress q rp rt ruby s samp search section select small span strike strong sub summary sup table tbody td textarea tfoot th thead time tr tt u ul var video'.split(
    ' ',
  );

test('Chromium lets elements inherit something else than initial values from a summary alone', async () => {
  const ask = `${JSON.stringify(containers)}.filter((tag) => {
    const around = document.body.appendChild(document.createElement(tag === 'summary' ? 'details' : 'div'));
    const style = getComputedStyle(around.appendChild(document.createElement(tag)).appendChild(document.createElement('span')));
    // what stands in a control or a player is not shown, and has no style
    if (style.color === '') return false;
    const said = document.body.appendChild(document.createElement('div'));
    return ${JSON.stringify(Object.keys(inherited))}.some((name) => {
      said.style.setProperty(name, 'initial');
      return style.getPropertyValue(name) !== getComputedStyle(said).getPropertyValue(name);
    });
  })`;
  const [found] = await askChromium([{ html: '<!DOCTYPE html><html><body>', ask }]);
  expect(found).toEqual(['summary']);
});
