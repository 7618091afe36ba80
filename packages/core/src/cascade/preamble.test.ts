import { expect, test } from '@jest/globals';
import { askChromium } from '../testing/chromium.ts';
import { siteOf } from '../testing/siteOf.ts';
import { allContenders, touches } from './contenders.ts';
import { desktop } from './environment.ts';
import { CascadeSession } from './pageCascade.ts';

/** What stands before an import: whether it is still taken hangs on whether browsers keep that. */
const before = ['@layer x;', '@layer x{}', '@import "t.css"; @layer x;', 'p:nope(){top:0}', '@nope x;', '@nope x{}', 'q{}', '@import;', '@charset "x";', '@layer a b;', '@layer a b{}', '@layer a, b{}', '@font-face{}', '@font-face x{}', '@namespace url(x);', '@keyframes {}', '@keyframes k{}', '@-webkit-keyframes k{}', '@-moz-keyframes k{}', '@counter-style decimal{}', '@counter-style z{}', '@property x{}', '@property --x{syntax:"*";inherits:false}', '@supports (a:b){}', '@container {}', '@container (width > 0px){}', '@scope x{}', '@scope (p){}', '@document url(x){}', '@-moz-document url(x){}', '@media;', '@media print{}', '@page{}', '@page :first{}', '@page !{}', '<!--', '@viewport{}', '@font-feature-values x{}', '@position-try x{}', '@view-transition{}', '@starting-style{}', '--x: y{}']; // oxfmt-ignore
/** What stands after its address: whether it is taken, and what is in it applies. */
const after = ['', ' layer', ' layer(a.b)', ' layer(a b)', ' layer(1)', ' layer()', ' layer (a)', ' layerx', ' layer screen', ' layer and (min-width: 1px)', ' not print', ' print', ' supports(not (a:b))', ' supports(nope)', ' supports(color:red)', ' ((', ' nope(x)', ' {}']; // oxfmt-ignore

const rows = [...before.map((text) => `${text} @import "s.css";`), ...after.map((text) => `@import "s.css"${text};`)];
const files = { 's.css': 'p{color:rgb(0,0,255)}', 't.css': 'q{top:0}' };
const html = (css: string): string => `<!DOCTYPE html><style>${css}</style><p>x`;

test('core takes an import where Chromium does', async () => {
  const ask = 'getComputedStyle(document.querySelector("p")).color === "rgb(0, 0, 255)"';
  const answers = await askChromium(rows.map((css) => ({ html: html(css), files, ask })));
  const said = rows.map((css) => {
    const site = siteOf({ 'p.html': html(css), ...files });
    const page = new CascadeSession().open(site, site.files.get('p.html')!);
    const p = page.tree.elements.find(({ tag }) => tag === 'p')!;
    return allContenders(page, p, { environment: desktop }).some(
      ({ applies, compiled }) => applies && touches(compiled, 'color'),
    );
  });
  expect(rows.map((css, i) => `${css} ${said[i]!}`)).toEqual(rows.map((css, i) => `${css} ${answers[i] as boolean}`));
  expect(new Set(answers).size).toBe(2);
}, 60_000);
