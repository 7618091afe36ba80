import { outlineFacts } from '../scripts/pageScripts.ts';
import { parseSheet } from '../sheet/parseSheet.ts';
import type { Declaration, Rule } from '../sheet/sheet.ts';
import { applyEdits } from '../source/applyEdits.ts';
import { makeSiteFile, pagesOf, sheetsOf, type Site, type SiteFile } from '../source/site.ts';
import type { Edit } from '../source/span.ts';
import { encodeText } from '../source/textCoding.ts';
import { takenSources } from '../survey/linkedSheets.ts';
import { readingOf } from '../survey/pageReading.ts';
import { SheetReader } from '../survey/sheetReader.ts';
import { declarationValidity } from '../values/declarationValidity.ts';

/** A custom property that one sheet says, once, for the root, and that this sheet alone uses. */
interface RootProperty {
  readonly name: string;
  readonly path: string;
  readonly value: string;
  readonly said: Declaration;
  readonly uses: readonly Edit[];
}

/**
 * Two states with custom properties that only one of them has put in place of their `var()`, where that is surely the same:
 * nothing else can say them, and every value is valid with them. Undefined where nothing is to be put in place.
 *
 * CSS Custom Properties 1, "Using Cascading Variables: the var() notation": the root's value reaches every element.
 */
export function withoutNames(before: Site, after: Site): readonly [Site, Site] | undefined {
  const gone = onlyIn(before, after);
  const come = onlyIn(after, before);
  return gone.length + come.length === 0 ? undefined : [inPlace(before, gone), inPlace(after, come)];
}

/** The pages of a state are looked at only where a sheet has a name that the other state does not say. */
function onlyIn(site: Site, other: Site): readonly RootProperty[] {
  const theirs = new Set(rootProperties(other).map(({ name }) => name));
  const own = rootProperties(site).filter(({ name }) => !theirs.has(name) && !isSaid(other, name));
  if (own.length === 0) return own;
  const pages = takingPages(site);
  return pages ? own.filter((one) => isOnlyHere(site, one, pages)) : [];
}

/** Of a custom property these are no value of its own. */
const wide = /^[\t\n\f\r ]*(initial|inherit|unset|revert|revert-layer)?[\t\n\f\r ]*$/i;

const isSaid = (site: Site, name: string): boolean =>
  [...site.files.values()].some(({ text }) => text?.includes(name) ?? false);

const known = new WeakMap<Site, readonly RootProperty[]>();

function rootProperties(site: Site): readonly RootProperty[] {
  let found = known.get(site);
  if (!found) known.set(site, (found = sheetsOf(site).flatMap(propertiesOf)));
  return found;
}

function propertiesOf({ path, text }: SiteFile): readonly RootProperty[] {
  // names of namespaces decide what `:root` is
  if (!text || !/:root/i.test(text) || !/--/.test(text) || /@namespace|@property|\\/i.test(text)) return [];
  const { rules } = parseSheet(text);
  return rules.flatMap((rule) => {
    if (rule.kind !== 'style' || rule.selector !== ':root' || rule.nested.length > 0) return [];
    return rule.declarations.flatMap((said): readonly RootProperty[] => {
      const { property: name, value, important } = said;
      const isPlain =
        name.startsWith('--') &&
        !important &&
        !wide.test(value) &&
        !/var\(|--|\burl\(|\bsrc\(|\benv\(|\battr\(|[{}]/i.test(value);
      const uses = isPlain ? usesOf(rules, name, value) : undefined;
      return uses ? [{ name, path, value, said, uses }] : [];
    });
  });
}

/** The edits that put the value where `var()` of it stands; undefined where one of them would not be surely the same. */
function usesOf(rules: readonly Rule[], name: string, value: string): readonly Edit[] | undefined {
  const out: Edit[] = [];
  const pattern = new RegExp(`var\\([\\t\\n\\f\\r ]*${name}[\\t\\n\\f\\r ]*\\)`, 'g');
  const look = (list: readonly Rule[]): boolean =>
    list.every((rule) => {
      if (rule.kind === 'style') return rule.declarations.every(put) && look(rule.nested);
      if (rule.kind === 'declarations') return rule.declarations.every(put);
      return rule.kind !== 'group' || look(rule.rules);
    });
  const put = ({ property, value: said, valueSpan }: Declaration): boolean => {
    const found = [...said.matchAll(pattern)];
    if (found.length === 0) return true;
    // in a string or address nothing is put in, and words must not grow together
    if (
      /["']|url\(/i.test(said) ||
      found.some(
        (one) =>
          /[^\t\n\f\r (,:/]$/.test(said.slice(0, one.index)) ||
          /^[^\t\n\f\r ),/]/.test(said.slice(one.index + one[0].length)),
      )
    )
      return false;
    // `var()` is found wrong only when it is used: a plain value would be dropped at once
    if (property.startsWith('--') || declarationValidity(property, said.replace(pattern, value)) !== 'valid')
      return false;
    for (const one of found) {
      const start = valueSpan.start + one.index;
      out.push({ span: { start, end: start + one[0].length }, text: value });
    }
    return true;
  };
  return look(rules) ? out : undefined;
}

/** A name with two hyphens first may be spelled with escapes (CSS Syntax 3, "Consume an escaped code point") and character references. */
const spelled = /(?:-|\\-|\\0{0,4}2d[\t\n\f\r ]{0,2}){2}[^\t\n\f\r :;{}()"'<>=,]*/gi;

/** Whether a text may say a custom property in other letters than its own. */
function hidesNames(text: string): boolean {
  const read = text.replace(/&#(0*45|x0*2d);?/gi, '-').replace(/&(#0*92|#x0*5c|bsol);?/gi, '\\');
  return read !== text || (read.match(spelled) ?? []).some((one) => /[\\&]/.test(one));
}

interface TakingPage {
  readonly taken: ReadonlySet<string>;
  /** All it takes is here, and its scripts can be read and say no custom property. */
  readonly isWhole: boolean;
}

const taking = new WeakMap<Site, { readonly pages: readonly TakingPage[] | undefined }>();

/** The pages with the sheets they take; undefined where `:root` may be another element or a name stands in other letters. */
function takingPages(site: Site): readonly TakingPage[] | undefined {
  let known = taking.get(site);
  if (!known) taking.set(site, (known = { pages: findTakingPages(site) }));
  return known.pages;
}

function findTakingPages(site: Site): readonly TakingPage[] | undefined {
  const texts = [...site.files.values()].map(({ text }) => text ?? '');
  // in an imported scope `:root` is another element, or none
  if (texts.some((text) => /@import[^;]*scope[\t\n\f\r ]*\(/i.test(text) || hidesNames(text))) return undefined;
  // in a shadow tree it is nobody
  if (pagesOf(site).some(({ text }) => text === undefined || /shadow/i.test(text))) return undefined;
  const reader = new SheetReader(site);
  return pagesOf(site).map((file) => {
    const reading = readingOf(file);
    const sources = takenSources(file, reader);
    const facts = reading?.scripts ? outlineFacts(reading.scripts, site) : [];
    return {
      taken: new Set(sources.flatMap(({ target, problem }) => (problem === undefined && target ? [target] : []))),
      isWhole:
        reading !== undefined &&
        sources.every(({ problem }) => problem === undefined) &&
        facts.every(({ unreadable, words }) => !unreadable && ![...words].some((word) => word.includes('--'))),
    };
  });
}

/** Nothing else of the site, no sheet that is not here and no script can say or read the name. */
function isOnlyHere(site: Site, { path, name, uses }: RootProperty, pages: readonly TakingPage[]): boolean {
  const count = (said: string): number => said.split(new RegExp(`${name}(?![\\w-])`)).length - 1;
  if (count(site.files.get(path)!.text!) !== uses.length + 1) return false;
  for (const file of site.files.values()) if (file.path !== path && (file.text?.includes(name) ?? false)) return false;
  return pages.every(({ taken, isWhole }) => isWhole || !taken.has(path));
}

/** The declaration goes, its length kept as white space so that places stay; nothing else moves but within lines. */
function inPlace(site: Site, properties: readonly RootProperty[]): Site {
  if (properties.length === 0) return site;
  const files = new Map(site.files);
  for (const path of new Set(properties.map((one) => one.path))) {
    const file = site.files.get(path)!;
    const own = properties.filter((one) => one.path === path);
    const edits = own.flatMap(({ said, uses }): readonly Edit[] => [
      ...uses,
      { span: said.span, text: file.text!.slice(said.span.start, said.span.end).replace(/[^\r\n]/g, ' ') },
    ]);
    const done = applyEdits(file.text!, edits);
    const bytes = done.ok ? encodeText(done.value, file.encoding ?? 'utf-8') : undefined;
    if (bytes) files.set(path, makeSiteFile(path, bytes));
  }
  return { ...site, files };
}
