import { byteOrderMark } from '../source/pageEncoding.ts';
import { declaredCharset, isAscii } from '../source/sheetEncoding.ts';
import { pagesOf, sheetsOf, type Site, type SiteFile } from '../source/site.ts';

/**
 * Whether all that links or imports a sheet reads the same text in it, so that a place in it is one place. A sheet that says no
 * encoding of its own is read in that of whoever asks for it. CSS Syntax 3, "The input byte stream".
 */
export function readAlike(site: Site, sheet: SiteFile): boolean {
  if (byteOrderMark(sheet.bytes) !== undefined || declaredCharset(sheet.bytes) !== undefined) return true;
  const environments = new Set([...pagesOf(site), ...sheetsOf(site)].map(({ encoding = '' }) => encoding));
  if (isAscii(sheet.bytes)) return ![...environments].some((one) => /^utf-16/.test(one));
  return environments.size === 1 && !pagesOf(site).some(saysCharset);
}

const known = new WeakMap<SiteFile, boolean>();

/** A link may say how its sheet is to be read. */
function saysCharset(page: SiteFile): boolean {
  let says = known.get(page);
  if (says === undefined) known.set(page, (says = /<link[^>]*\scharset/i.test(page.text ?? '')));
  return says;
}
