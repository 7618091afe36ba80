import { attributeOf } from './nodes.ts';
import type { PageTree } from './parsePage.ts';
import { isStylesheetRel } from './styleSources.ts';
import { lineEndOf } from '../source/lineEnds.ts';

/** How a page writes its tags, so that new ones look like its own. */
export interface PageSyntax {
  /** ` />` closes void elements, as in XHTML. */
  readonly slashed: boolean;
  readonly upperCase: boolean;
  readonly quote: '"' | "'";
  /** `type="text/css"` is written on links and blocks. */
  readonly typed: boolean;
  readonly lineEnd: string;
}

const voidTags = new Set(['meta', 'link', 'br', 'img', 'hr', 'input', 'base']);

export function pageSyntax(page: PageTree): PageSyntax {
  const voids = page.elements.filter((e) => e.start >= 0 && voidTags.has(e.tag));
  const slashed = voids.filter((e) => page.text[e.startTagEnd - 2] === '/').length * 2 > voids.length;
  const styles = page.elements.filter((e) => e.start >= 0 && (e.tag === 'style' || e.tag === 'link'));
  const upperCase = styles.length > 0 && styles.every((e) => /^<[A-Z]/.test(page.text.slice(e.start, e.start + 2)));
  const heads = styles.map((e) => page.text.slice(e.start, e.startTagEnd));
  const single = heads.filter((tag) => /='/.test(tag)).length;
  const double = heads.filter((tag) => /="/.test(tag)).length;
  const sheets = page.elements.filter(
    (e) => e.tag === 'style' || (e.tag === 'link' && isStylesheetRel(attributeOf(e, 'rel') ?? '')),
  );
  const typed = sheets.length > 0 && sheets.every((e) => attributeOf(e, 'type') !== undefined);
  return { slashed, upperCase, quote: single > double ? "'" : '"', typed, lineEnd: lineEndOf(page.text) };
}

/** The tag that links a sheet, in the page's own syntax. `reference` is already percent-encoded. */
export function printLink(
  syntax: PageSyntax,
  reference: string,
  also: { readonly media: string; readonly title: string } = { media: '', title: '' },
): string {
  const { quote } = syntax;
  const safe = (value: string): string =>
    value.replaceAll('&', '&amp;').replaceAll(quote, quote === '"' ? '&quot;' : '&#39;');
  const name = (text: string): string => (syntax.upperCase ? text.toUpperCase() : text);
  const type = syntax.typed ? ` ${name('type')}=${quote}text/css${quote}` : '';
  const attribute = (key: string, value: string): string => ` ${name(key)}=${quote}${safe(value)}${quote}`;
  const more = (['media', 'title'] as const).map((key) => (also[key] === '' ? '' : attribute(key, also[key]))).join('');
  return `<${name('link')} ${name('rel')}=${quote}stylesheet${quote}${type}${attribute('href', reference)}${more}${syntax.slashed ? ' />' : '>'}`;
}
