import { sheetsOf, type Site } from '../source/site.ts';
import { fileNameOf } from '../source/sitePath.ts';

/** Which pages may reach one of these files, by their text alone: by name, through sheets that name them, or by an escape. */
export class Reach {
  private readonly names: ReadonlySet<string> | undefined;

  constructor(sites: readonly Site[], paths: readonly string[]) {
    this.names = leadingNames(sites, paths);
  }

  from(text: string): boolean {
    const { names } = this;
    // an escape, of CSS, HTML or a URL, could spell a name in another way
    return (
      names === undefined ||
      [...names].some((name) => text.includes(name)) ||
      (names.size > 0 && /(href|import)[^>;]{0,300}[\\%&]/i.test(text))
    );
  }
}

/** The names of the files, and of all sheets that name one of these. Percent escapes make a name unrecognisable: then undefined. */
function leadingNames(sites: readonly Site[], paths: readonly string[]): ReadonlySet<string> | undefined {
  const names = new Set(paths.map(fileNameOf));
  const sheets = sites.flatMap((site) => sheetsOf(site));
  for (let grown = names.size > 0; grown;) {
    grown = false;
    for (const sheet of sheets) {
      const name = fileNameOf(sheet.path);
      if (names.has(name) || ![...names].some((n) => (sheet.text ?? '').includes(n))) continue;
      names.add(name);
      grown = true;
    }
  }
  return [...names].every((name) => /^[\w.-]+$/.test(name)) ? names : undefined;
}
