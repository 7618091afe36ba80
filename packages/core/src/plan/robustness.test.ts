import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import fs from 'node:fs';
import { fileURLToPath } from 'node:url';
import { applyOperations } from '../operations/operation.ts';
import { checkSite } from '../checks/checkSite.ts';
import { proveSites } from '../proof/proveSites.ts';
import { makeSite } from '../source/site.ts';
import { planWhole } from './planWhole.ts';
import { familiesOf } from '../survey/families.ts';
import { surveySite } from '../survey/surveySite.ts';

const demo = fileURLToPath(new URL('../../../../demo/', import.meta.url));
const read = (path: string): Uint8Array => fs.readFileSync(demo + path);
const pages = ['history.html', 'booking.html', 'cy/index.html', 'crew.html', 'news/2024/night-fares.html'];
const scraps = [
  '{',
  '}',
  '/*',
  '*/',
  '"',
  "'",
  '<style>',
  '</style>',
  '<!--',
  '-->',
  '@media print{',
  '@import "x";',
  'url(',
  ')',
  ';',
  ':',
  '!important',
  '\\',
  '\u0000',
  '<template>',
  '<svg>',
  '</head>',
  '&',
  '&:hover{',
  '@layer a{',
  ':is(',
  '<base href=x/>',
  '\r',
  '<noscript>',
  '--x:',
  'é',
].map((s) => Buffer.from(s));

/** A file with scraps put in and stretches taken out at random places. */
const broken = (bytes: Uint8Array) =>
  fc
    .array(fc.tuple(fc.nat(bytes.length), fc.nat(40), fc.constantFrom(...scraps)), { minLength: 1, maxLength: 4 })
    .map((cuts) => {
      let out = Buffer.from(bytes);
      for (const [at, length, scrap] of cuts)
        out = Buffer.concat([out.subarray(0, at), scrap, out.subarray(at + (length < 20 ? length : 0))]);
      return new Uint8Array(out);
    });

// a wrong "same" is looked for by the browser in e2e and scripts/compareSites.mjs; here: nothing throws, nothing hangs, nothing is altered
test('broken pages and sheets: no throw, and what is not edited is not touched', () => {
  fc.assert(
    fc.property(fc.constantFrom(...pages), broken(read('css/site.css')), fc.gen(), (page, sheet, gen) => {
      const bytes = gen(broken, read(page));
      const site = makeSite([
        [page, bytes],
        ['css/base.css', read('css/base.css')],
        ['css/site.css', sheet],
      ]);
      expect(site.files.get(page)!.bytes).toEqual(bytes);
      surveySite(site);
      familiesOf(site);
      const draft = applyOperations(site, [{ kind: 'gather-rules', sheet: 'css/new.css' }]);
      if (!draft.ok) return;
      expect(proveSites(site, site).verdict).toBe('same');
      proveSites(site, draft.value.site);
      expect(draft.value.site.files.get('css/base.css')!.bytes).toBe(site.files.get('css/base.css')!.bytes);
    }),
    { seed: 4870, numRuns: Number(process.env['FUZZ_SITES'] ?? 80) },
  );
});

// what every object of scripts has is no name of CSS or HTML
test.each(['constructor', '__proto__', 'toString'])('a site full of the name %s: planned, and the same', (name) => {
  const rules = [
    `p{${name}:red;color:${name};width:1${name};--${name}:1;transition-property:${name};grid-area:${name}}`,
    `@media (${name}){p{top:1px}} @media (${name}:1) and ${name}{p{top:2px}} @supports (${name}:1){p{top:3px}}`,
    `p:${name}{top:4px} p::${name}{top:5px} ${name}{top:6px} .${name},#${name},[${name}],:lang(${name}){top:7px}`,
    `@layer ${name}{p{top:8px}} @keyframes ${name}{from{top:0}} p{animation:${name} 1s} @${name} x{p{top:9px}}`,
    `@font-face{font-family:${name};src:url(x)} @counter-style ${name}{system:cyclic;symbols:x} p{width:calc(1px*${name}(2))}`,
  ];
  const body = `<p id="${name}" class="${name}" lang="${name}" dir="${name}" align="${name}" style="color:${name};top:0;left:1px">x</p><${name}>y</${name}><table frame="${name}" rules="${name}" border="${name}" width="${name}" bgcolor="${name}"><tr valign="${name}"><td>x</table><ol type="${name}"><li type="${name}">a</ol><font size="${name}" color="${name}" face="${name}">f</font><svg ${name}="1"><rect width="${name}" transform="${name}(1)"/></svg>`;
  const html = `<!DOCTYPE html><title>t</title><style>${rules.join('\n')}</style>${body}`;
  const files: [string, Uint8Array][] = ['a.html', 'b.html'].map((path) => [path, Buffer.from(html)]);
  const site = makeSite(files);
  surveySite(site);
  checkSite(site);
  const plan = planWhole(site, `css/${name}.css`, { hints: true });
  if (!plan.ok) throw new Error('no plan');
  const draft = applyOperations(site, plan.value.operations);
  if (!draft.ok) throw new Error('not applied');
  expect(proveSites(site, draft.value.site).verdict).toBe('same');
  expect(plan.value.operations.length).toBeGreaterThan(0);
});
