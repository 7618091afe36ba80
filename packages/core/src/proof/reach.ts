import { sheetsOf, type Site, type SiteFile } from '../source/site.ts';
import { fileNameOf } from '../source/sitePath.ts';

/** Which pages may reach one of these files, by their text alone: by name, through sheets that name them, or by an escape. */
export class Reach {
  private readonly names: ReadonlySet<string> | undefined;
  /** Those that are no sheets. */
  private readonly others: readonly string[];

  constructor(sites: readonly Site[], paths: readonly string[]) {
    this.names = leadingNames(sites, paths);
    this.others = [...(this.names ?? [])].filter((name) => !/\.css$/i.test(name));
  }

  from(file: SiteFile): boolean {
    const { names, others } = this;
    if (names === undefined) return true;
    if (names.size === 0) return false;
    const { sheets, escaped } = mentionsIn(file);
    return (
      escaped || sheets.some((name) => names.has(name)) || others.some((name) => (file.text ?? '').includes(name))
    );
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
