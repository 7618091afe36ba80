import { changedFiles } from '../source/changeSet.ts';
import { asciiText } from '../source/asciiBytes.ts';
import { byPath, type Site, type SiteFile } from '../source/site.ts';
import { fileNameOf } from '../source/sitePath.ts';
import { mayLoadSheets } from '../survey/touchedPages.ts';
import type { Doubt } from './proof.ts';

const drawing = /\.(svg|xml|xsl|xslt)$/i;

/**
 * Sheets that changed and that a page may use in another way than by its own links and imports: through a drawing, a script, a shadow
 * tree, or a document in a frame's `srcdoc`. That is not followed here, only seen.
 */
export function throughOthers(page: string, { sheets, files }: Others): readonly Doubt[] {
  const doubts: Doubt[] = [];
  const say = (sentence: string): void => void doubts.push({ sentence, elements: [] });
  for (const { file, names } of files)
    if (page.includes(fileNameOf(file.path)))
      say(
        `The page names ${file.path}, which ${drawing.test(file.path) ? 'is styled by' : 'says the name of'} ${names[0]!}, and that is another file now.`,
      );
  const apart = [...page.matchAll(treesApart)].map(([text]) => text).join('\n');
  if (apart !== '')
    for (const name of sheets)
      if (apart.includes(fileNameOf(name)))
        say(`A shadow tree or a frame written in the page may use ${name}, which is another file now.`);
  return doubts;
}

/** Markup in a page that is a tree of its own: HTML Standard, "The iframe element", `srcdoc`; "The template element", `shadowrootmode`. */
const treesApart = /<template\b[^>]*shadowrootmode[^]*?<\/template>|srcdoc\s*=\s*(?:"[^"]*"|'[^']*'|[^\s>]+)/gi;

/** What changed, and which files say its name. */
export interface Others {
  /** Sheets that were there and are not the same: a new one nobody named before. */
  readonly sheets: readonly string[];
  readonly created: readonly string[];
  readonly files: readonly { readonly file: SiteFile; readonly names: readonly string[] }[];
}

/** Found once for all pages of a proof. */
export function othersOf(before: Site, after: Site): Others {
  const changed = changedFiles(before, after).map(({ path }) => path);
  const sheets = changed.filter((path) => before.files.get(path)?.kind === 'sheet');
  const created = changed.filter((path) => !before.files.has(path) && after.files.get(path)?.kind === 'sheet');
  if (sheets.length === 0) return { sheets, created, files: [] };
  const files = [...before.files.values()].filter(({ path }) => mayLoadSheets.test(path)).sort(byPath);
  const found = files.map((file) => {
    const text = asciiText(file.bytes);
    return { file, names: sheets.filter((path) => text.includes(fileNameOf(path))) };
  });
  return { sheets, created, files: found.filter(({ names }) => names.length > 0) };
}
