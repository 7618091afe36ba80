import type { SelectorList } from '../selectors/selector.ts';
import { sheetsOf, type Site, type SiteFile } from '../source/site.ts';
import { fileNameOf } from '../source/sitePath.ts';
import { neededNames } from '../survey/selectorNames.ts';
import { elementNames } from './elementNames.ts';
import { sheetDelta } from './sheetDelta.ts';

/**
 * Which pages may look different when files change from one state of a site to another, told without reading them: those that may
 * name such a file or a sheet that does, or spell it by an escape; and where only plain rules of a sheet changed, those of them
 * that hold all names some such rule asks for.
 */
export class Reach {
  private readonly whole: Names;
  private readonly byRule: Names;
  /** Of each changed rule, the names a page needs for it to match. */
  private readonly needs: readonly (readonly string[])[];

  constructor(then: Site, now: Site, paths: readonly string[]) {
    const deltas = new Map(paths.map((path) => [path, deltaOf(then.files.get(path), now.files.get(path))]));
    this.whole = new Names([then, now], paths.filter((path) => deltas.get(path) === undefined)); // prettier-ignore
    this.byRule = new Names([then, now], paths.filter((path) => deltas.get(path) !== undefined)); // prettier-ignore
    this.needs = [...deltas.values()].flatMap((selectors) => selectors?.map(neededNames) ?? []);
  }

  from(file: SiteFile): boolean {
    return this.whole.in(file) || (this.byRule.in(file) && this.mayMatch(file));
  }

  private mayMatch(file: SiteFile): boolean {
    // without scripts the page has other elements as well
    if (/<noscript/i.test(file.text ?? '')) return true;
    const names = elementNames(file);
    return this.needs.some((needed) => needed.every((name) => names.has(name)));
  }
}

const deltaOf = (then: SiteFile | undefined, now: SiteFile | undefined): SelectorList | undefined =>
  then?.kind === 'sheet' && now?.kind === 'sheet' ? sheetDelta(then, now) : undefined;

/** Files by their names. */
class Names {
  private readonly names: ReadonlySet<string> | undefined;
  /** Those that are no sheets. */
  private readonly others: readonly string[];

  constructor(sites: readonly Site[], paths: readonly string[]) {
    this.names = leadingNames(sites, paths);
    this.others = [...(this.names ?? [])].filter((name) => !/\.css$/i.test(name));
  }

  /** Whether a file may name one of them. */
  in(file: SiteFile): boolean {
    const { names, others } = this;
    if (names === undefined) return true;
    if (names.size === 0) return false;
    const { sheets, escaped } = mentionsIn(file);
    return escaped || sheets.some((name) => names.has(name)) || others.some((name) => (file.text ?? '').includes(name));
  }
}

/** The names of the files, and of all sheets that name one of these. Percent escapes make a name unrecognisable: then undefined. */
function leadingNames(sites: readonly Site[], paths: readonly string[]): ReadonlySet<string> | undefined {
  const names = new Set(paths.map(fileNameOf));
  const sheets = new Set(sites.flatMap((site) => sheetsOf(site)));
  const others = [...names].filter((name) => !/\.css$/i.test(name));
  for (let grown = names.size > 0; grown;) {
    grown = false;
    for (const sheet of sheets) {
      const name = fileNameOf(sheet.path);
      const mentions = mentionsIn(sheet);
      const leads = mentions.escaped || mentions.sheets.some((one) => names.has(one)) || others.some((one) => (sheet.text ?? '').includes(one)); // prettier-ignore
      if (names.has(name) || !leads) continue;
      names.add(name);
      grown = true;
    }
  }
  return [...names].every((name) => /^[\w.-]+$/.test(name)) ? names : undefined;
}

interface Mentions {
  /** What could be the name of a sheet. */
  readonly sheets: readonly string[];
  /** An escape, of CSS, HTML or a URL, could spell a name in another way. */
  readonly escaped: boolean;
}

const known = new WeakMap<SiteFile, Mentions>();

function mentionsIn(file: SiteFile): Mentions {
  let mentions = known.get(file);
  if (!mentions) {
    const text = file.text ?? '';
    // browsers take tabs and line ends out of addresses (URL Standard, "URL parsing")
    const sheets = new Set([...sheetNamesIn(text), ...sheetNamesIn(text.replace(/[\t\r\n]/g, ''))]);
    mentions = { sheets: [...sheets], escaped: /(href|import)[^>;]{0,300}[\\%&]/i.test(text) };
    known.set(file, mentions);
  }
  return mentions;
}

/** Runs of letters, digits, `_`, `.` and `-` that end in `.css`. */
function sheetNamesIn(text: string): readonly string[] {
  const out: string[] = [];
  for (const { index } of text.matchAll(/\.css/gi)) {
    let start = index;
    while (start > 0 && /[\w.-]/.test(text[start - 1]!)) start--;
    out.push(text.slice(start, index + '.css'.length));
  }
  return out;
}
