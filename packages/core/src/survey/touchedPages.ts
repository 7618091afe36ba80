import type { SelectorList } from '../selectors/selector.ts';
import { asciiText } from '../source/asciiBytes.ts';
import { sheetsOf, type Site, type SiteFile } from '../source/site.ts';
import { fileNameOf } from '../source/sitePath.ts';
import { wordsEnding } from '../source/wordsEnding.ts';
import { elementNames } from './elementNames.ts';
import { neededNames } from './selectorNames.ts';
import { sheetDelta } from './sheetDelta.ts';
import { mayBeSpelled } from './spelledNames.ts';

/** Files that may load sheets although they are none: drawings with a sheet of their own, XML, scripts and what these read. */
export const mayLoadSheets = /\.(svg|xml|xsl|xslt|js|mjs|json|htc)$/i;

/**
 * Which pages may look different when files change from one state of a site to another, told without reading them: those that may
 * name such a file or a sheet that does, or spell it by an escape; and where only plain rules of a sheet changed, those of them
 * that hold all names some such rule asks for.
 */
export class TouchedPages {
  private readonly whole: Names;
  private readonly byRule: Names;
  /** Of each changed rule, the names a page needs for it to match. */
  private readonly needs: readonly (readonly string[])[];
  private readonly site: Site;
  private scriptTexts: string | undefined;

  constructor(then: Site, now: Site, paths: readonly string[]) {
    const deltas = new Map(paths.map((path) => [path, deltaOf(then.files.get(path), now.files.get(path))]));
    this.whole = new Names(
      [then, now],
      paths.filter((path) => deltas.get(path) === undefined),
    );
    this.byRule = new Names(
      [then, now],
      paths.filter((path) => deltas.get(path) !== undefined),
    );
    this.site = then;
    this.needs = [...deltas.values()].flatMap((selectors) => selectors?.map(neededNames) ?? []);
  }

  has(file: SiteFile): boolean {
    if (this.whole.in(file)) return true;
    if (!this.byRule.in(file)) return false;
    // whose elements are not known
    return file.text === undefined || this.byRule.throughOthers(file) || this.mayMatch(file);
  }

  /** What the scripts of the site say, in lower case. */
  private scripts(): string {
    return (this.scriptTexts ??= [...this.site.files.values()]
      .filter(({ path }) => /\.m?js$/i.test(path))
      .map(({ bytes }) => asciiText(bytes).toLowerCase())
      .join('\n'));
  }

  private mayMatch(file: SiteFile): boolean {
    // without scripts the page has other elements as well
    const text = file.text ?? '';
    // a promise about the whole file counts whatever changed in it
    if (/<noscript|integrity\s*=/i.test(text)) return true;
    const names = elementNames(file);
    if (!/<script|<select|\bon[a-z]+\s*=|javascript:/i.test(text))
      return this.needs.some((needed) => needed.every((name) => names.has(name)));
    // scripts may make elements of any name they say, and a select may hold some we do not see
    const lower = text.toLowerCase();
    const said = (name: string): boolean => lower.includes(name) || this.scripts().includes(name);
    return this.needs.some((needed) =>
      needed.every((name) => names.has(name) || said(name.replace(/^[.#]/, '').toLowerCase())),
    );
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

  /** Whether it may be reached in another way than by its own links and imports. */
  throughOthers(file: SiteFile): boolean {
    const text = file.text ?? asciiText(file.bytes);
    return /srcdoc\s*=|shadowrootmode/i.test(text) || this.others.some((name) => text.includes(name));
  }

  /** A script may put a name together. */
  private endsSome(end: string): boolean {
    for (const name of this.names ?? []) if (name.endsWith(end)) return true;
    return false;
  }

  /** Whether a file may name one of them. */
  in(file: SiteFile): boolean {
    const { names, others } = this;
    if (names === undefined) return true;
    if (names.size === 0) return false;
    const { sheets, ends, escaped } = mentionsIn(file);
    return (
      escaped ||
      sheets.some((name) => names.has(name)) ||
      ends.some((end) => this.endsSome(end)) ||
      others.some((name) => (file.text ?? asciiText(file.bytes)).includes(name))
    );
  }
}

/** The names of the files, and of all sheets that name one of these. Percent escapes make a name unrecognisable: then undefined. */
function leadingNames(sites: readonly Site[], paths: readonly string[]): ReadonlySet<string> | undefined {
  const names = new Set(paths.map(fileNameOf));
  const sheets = new Set(
    sites.flatMap((site) => [
      ...sheetsOf(site),
      ...[...site.files.values()].filter(({ path }) => mayLoadSheets.test(path)),
    ]),
  );
  const others = [...names].filter((name) => !/\.css$/i.test(name));
  for (let grown = names.size > 0; grown;) {
    grown = false;
    for (const sheet of sheets) {
      const name = fileNameOf(sheet.path);
      const mentions = mentionsIn(sheet);
      const leading =
        (mentions.escaped && sheet.kind === 'sheet') ||
        mentions.sheets.some((one) => names.has(one)) ||
        mentions.ends.some((end) => [...names].some((one) => one.endsWith(end))) ||
        others.some((one) => (sheet.text ?? asciiText(sheet.bytes)).includes(one));
      if (names.has(name) || !leading) continue;
      names.add(name);
      grown = true;
    }
  }
  return [...names].every((name) => /^[\w.-]+$/.test(name)) ? names : undefined;
}

interface Mentions {
  /** What could be the name of a sheet. */
  readonly sheets: readonly string[];
  /** How such a name ends, where a script may put another start before it: `.css`, `-dark.css`. */
  readonly ends: readonly string[];
  /** An escape, of CSS, HTML or a URL, could spell a name in another way. */
  readonly escaped: boolean;
}

const known = new WeakMap<SiteFile, Mentions>();

function mentionsIn(file: SiteFile): Mentions {
  let mentions = known.get(file);
  if (!mentions) {
    const text = file.text ?? asciiText(file.bytes);
    // browsers take tabs and line ends out of addresses (URL Standard, "URL parsing")
    const joined = text.replace(/[\t\r\n]/g, '').replace(/(["'`]) *\+ *\1/g, '');
    const sheets = [...new Set([...sheetNamesIn(text), ...sheetNamesIn(joined)])];
    const ends = /["'`}][\w-]*\.css/i.test(text) ? sheets.filter((name) => /^[._-]/.test(name)) : [];
    mentions = { sheets, ends, escaped: mayBeSpelled(text) };
    known.set(file, mentions);
  }
  return mentions;
}

/** Runs of letters, digits, `_`, `.` and `-` that end in `.css`. */
const sheetNamesIn = (text: string): readonly string[] => wordsEnding(text, /\.css/gi, /[\w.-]/);
