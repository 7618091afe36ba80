import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import fs from 'node:fs';
import { fileURLToPath } from 'node:url';
import { applyOperations } from '../operations/operation.ts';
import { proveSites } from '../proof/proveSites.ts';
import { makeSite } from '../source/site.ts';
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
    { seed: 4870, numRuns: 150 },
  );
});
