import { expect, test } from '@jest/globals';
import { desktop } from '../cascade/environment.ts';
import { siteWinners } from '../cascade/siteWinners.ts';
import { askChromium } from '../testing/chromium.ts';
import { encodedSite, type ByteTexts } from '../testing/encodedSite.ts';
import { makeSite } from './site.ts';

const seeds = Array.from({ length: Number(process.env['ENCODED_SITES'] ?? 120) }, (_, i) => i + 1);
const bytesOf = (text: string): Uint8Array => Buffer.from(text, 'latin1');
const base64 = (text: string): string => Buffer.from(text, 'latin1').toString('base64');
const ask = `(() => {
  const paragraph = document.querySelector('p');
  if (!paragraph) return 'nothing to read';
  const style = getComputedStyle(paragraph);
  return [document.characterSet.toLowerCase(), style.zIndex, style.order].join(' ');
})()`;

/** What core says the page is read in and which rules reach its paragraph; undefined where the page is not read at all. */
function said(files: ByteTexts): string | undefined {
  const site = makeSite(Object.entries(files).map(([path, text]) => [path, bytesOf(text)] as const));
  const page = site.files.get('p.html')!;
  if (page.text === undefined) return undefined;
  const values = new Map(
    [...siteWinners(site, { environment: desktop })].flat().map(({ property, value }) => [property, value]),
  );
  return [page.encoding, values.get('z-index') ?? 'auto', values.get('order') ?? '0'].join(' ');
}

test('pages and sheets whose encodings are declared early, late, twice, wrongly or not: read as Chromium reads them', async () => {
  const sites = seeds.map(encodedSite);
  const answers = await askChromium(
    sites.map(({ 'p.html': page, ...rest }) => ({
      bytes: base64(page!),
      path: 'p.html',
      fileBytes: Object.fromEntries(Object.entries(rest).map(([path, text]) => [path, base64(text)])),
      ask,
    })),
  );
  const read = sites.map(said);
  const wrong = seeds.flatMap((seed, i) =>
    read[i] === undefined || read[i] === answers[i] ? [] : [`${seed}: core ${read[i]}, Chromium ${answers[i]}`],
  );
  expect(wrong).toEqual([]);
  // the check is worth something only when most pages are read, and rules reach some and not others
  expect(read.filter((one) => one !== undefined).length).toBeGreaterThan(seeds.length / 2);
  expect(new Set(read).size).toBeGreaterThan(8);
}, 600_000);
