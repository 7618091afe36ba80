import { expect, test } from '@jest/globals';
import { proveSites } from '../proof/proveSites.ts';
import { askChromium } from '../testing/chromium.ts';
import { pageOf, siteOf } from '../testing/siteOf.ts';

const verdict = (before: string, after: string): string =>
  proveSites(siteOf({ 'a.html': before }), siteOf({ 'a.html': after })).verdict;
const styled = (id: string, body: string) => pageOf(`<style>#${id} { color: red }</style>`, body);

test.each([
  ['an ID renamed with its rule', styled('a', '<p id="a">x'), styled('b', '<p id="b">x'), 'same'],
  ['renamed in the rule only', styled('a', '<p id="a">x'), styled('b', '<p id="a">x'), 'differs'],
  ['renamed on the element only', styled('a', '<p id="a">x'), styled('a', '<p id="b">x'), 'differs'],
  ['with a label', styled('a', '<i id="a">x</i><label for="a">l'), styled('b', '<i id="b">x</i><label for="b">l'), 'same'],
  ['a label that names nobody now', styled('a', '<i id="a">x</i><label for="a">l'), styled('b', '<i id="b">x</i><label for="a">l'), 'differs'],
  ['two IDs change places', pageOf('', '<i id="a">x</i><i id="b">y</i><a href="#a">z'), pageOf('', '<i id="b">x</i><i id="a">y</i><a href="#a">z'), 'differs'],
  ['two IDs change places with what refers to them', pageOf('', '<i id="a">x</i><i id="b">y</i><a href="#a">z'), pageOf('', '<i id="b">x</i><i id="a">y</i><a href="#b">z'), 'same'],
  ['an ID more', pageOf('', '<i>x</i>'), pageOf('', '<i id="a">x</i>'), 'differs'],
  ['one ID becomes two elements’', pageOf('', '<i id="a">x</i><i id="b">y</i>'), pageOf('', '<i id="a">x</i><i id="a">y</i>'), 'differs'],
  ['a drawing refers to it', pageOf('', '<svg><g id="a"/><use href="#a"/></svg>'), pageOf('', '<svg><g id="b"/><use href="#a"/></svg>'), 'differs'],
  ['a drawing is painted by it', pageOf('', '<svg><linearGradient id="a"/><rect fill="url(#a)"/></svg>'), pageOf('', '<svg><linearGradient id="b"/><rect fill="url(#a)"/></svg>'), 'differs'],
  ['a drawing is painted by it still', pageOf('', '<svg><linearGradient id="a"/><rect fill="url(#a)"/></svg>'), pageOf('', '<svg><linearGradient id="b"/><rect fill="url(#b)"/></svg>'), 'same'],
  ['an animation waits for it', pageOf('', '<svg><rect id="a"><set begin="a.click" attributeName="x" to="1"/></rect></svg>'), pageOf('', '<svg><rect id="b"><set begin="a.click" attributeName="x" to="1"/></rect></svg>'), 'differs'],
  ['a style attribute refers to it', pageOf('', '<svg><filter id="a"/></svg><p style="filter: url(#a)">x'), pageOf('', '<svg><filter id="b"/></svg><p style="filter: url(#a)">x'), 'differs'],
  ['a rule refers to it', pageOf('<style>p { clip-path: url(#a) }</style>', '<svg><clipPath id="a"/></svg><p>x'), pageOf('<style>p { clip-path: url(#a) }</style>', '<svg><clipPath id="b"/></svg><p>x'), 'unsure'],
  ['a rule for the target of an address', pageOf('<style>p:target { color: red }</style>', '<p id="a">x'), pageOf('<style>p:target { color: red }</style>', '<p id="b">x'), 'unsure'],
  ['shown as text', pageOf('<style>p::before { content: attr(id) }</style>', '<p id="a">x'), pageOf('<style>p::before { content: attr(id) }</style>', '<p id="b">x'), 'differs'],
  ['a shadow tree asks for its host', pageOf('', '<div id="a"><template shadowrootmode="open"><style>:host(#a) { color: red }</style>x</template></div>'), pageOf('', '<div id="b"><template shadowrootmode="open"><style>:host(#a) { color: red }</style>x</template></div>'), 'unsure'],
  ['a fragment of another page', pageOf('', '<a href="b.html#x">y'), pageOf('', '<a href="b.html#z">y'), 'same'],
  ['another page', pageOf('', '<a href="b.html#x">y'), pageOf('', '<a href="c.html#x">y'), 'differs'],
  ['a script looks for it', styled('a', '<p id="note">x<script>document.getElementById("note").hidden = true</script>'), styled('a', '<p id="memo">x<script>document.getElementById("note").hidden = true</script>'), 'unsure'],
  ['a script puts the name together', styled('a', '<p id="note1">x<script>for (var i = 0; i < 9; i++) f("note" + i)</script>'), styled('a', '<p id="memo1">x<script>for (var i = 0; i < 9; i++) f("note" + i)</script>'), 'unsure'],
  ['a drawing refers to it with a space before', pageOf('', '<svg><g id="a"><rect width="9" height="9"/></g><use href=" #a"/></svg>'), pageOf('', '<svg><g id="b"><rect width="9" height="9"/></g><use href=" #a"/></svg>'), 'unsure'],
  ['a drawing refers to it by the address of the page', pageOf('', '<svg><g id="a"><rect width="9" height="9"/></g><use href="a.html#a"/></svg>'), pageOf('', '<svg><g id="b"><rect width="9" height="9"/></g><use href="a.html#a"/></svg>'), 'unsure'],
  ['an attribute refers to it with an escape', pageOf('', '<svg><g id="a"><rect width="9" height="9"/></g><rect mask="url(#\\61 )"/></svg>'), pageOf('', '<svg><g id="b"><rect width="9" height="9"/></g><rect mask="url(#\\61 )"/></svg>'), 'unsure'],
  ['a rule refers to it with an escape', pageOf('<style>p { clip-path: url("#\\61") }</style>', '<svg><clipPath id="a"/></svg><p>x'), pageOf('<style>p { clip-path: url("#\\61") }</style>', '<svg><clipPath id="b"/></svg><p>x'), 'unsure'],
  ['a script looks for a name of one letter', pageOf('', '<p id="a">x<script>document.getElementById("a").hidden = true</script>'), pageOf('', '<p id="b">x<script>document.getElementById("a").hidden = true</script>'), 'unsure'],
])('%s', (_shows, before, after, wanted) => {
  expect(verdict(before, after)).toBe(wanted);
}); // oxfmt-ignore

test('in Chromium a space before an address and an escape in one still find the ID', async () => {
  const drawing = (id: string) =>
    pageOf('', `<svg><g id="${id}"><rect width="9" height="9"/></g><use href=" #a"/></svg>`);
  const cut = (id: string) =>
    pageOf(
      '<style>p { clip-path: url("#\\61") }</style>',
      `<svg width="0" height="0"><clipPath id="${id}"><path d=""/></clipPath></svg><p>x`,
    );
  const width = `document.querySelector('use').getBBox().width`;
  const isHit = `(() => { const p = document.querySelector('p'), r = p.getBoundingClientRect(); return document.elementFromPoint(r.x + 2, r.y + 2) === p; })()`;
  const answers = await askChromium([
    { html: drawing('a'), ask: width },
    { html: drawing('b'), ask: width },
    { html: cut('a'), ask: isHit },
    { html: cut('b'), ask: isHit },
  ]);
  expect(answers).toEqual([9, 0, false, true]);
});
