import { changedFiles } from '../source/changeSet.ts';
import { asciiText } from '../source/asciiBytes.ts';
import { byPath, type Site, type SiteFile } from '../source/site.ts';
import { fileNameOf } from '../source/sitePath.ts';
import type { Doubt } from './proof.ts';

/** Files that may load sheets: drawings with a sheet of their own, XML, scripts. */
const leading = /\.(svg|xml|xsl|xslt|js|mjs|htc)$/i;
const drawing = /\.(svg|xml|xsl|xslt)$/i;

/**
 * Sheets that changed and that a page may use in another way than by its own links and imports: through a drawing, a script, a shadow
 * tree, or a document in a frame's `srcdoc`. That is not followed here, only seen.
 */
export function throughOthers(page: string, before: Site, after: Site): readonly Doubt[] {
  const others = leadingFiles(before, after);
  const doubts: Doubt[] = [];
  const say = (sentence: string): void => void doubts.push({ sentence, elements: [] });
  for (const { file, names } of others)
    if (page.includes(fileNameOf(file.path)))
      say(`The page names ${file.path}, which ${drawing.test(file.path) ? 'is styled by' : 'says the name of'} ${names[0]!}, and that is another file now.`); // prettier-ignore
  const apart = [...page.matchAll(treesApart)].map(([text]) => text).join('\n');
  if (apart !== '')
    for (const name of changedSheets(before, after))
      if (apart.includes(fileNameOf(name)))
        say(`A shadow tree or a frame written in the page may use ${name}, which is another file now.`);
  return doubts;
}

/** Markup in a page that is a tree of its own: HTML Standard, "The iframe element", `srcdoc`; "The template element", `shadowrootmode`. */
const treesApart = /<template\b[^>]*shadowrootmode[^]*?<\/template>|srcdoc\s*=\s*(?:"[^"]*"|'[^']*'|[^\s>]+)/gi;

interface Leading {
  readonly file: SiteFile;
  readonly names: readonly string[];
}

let last: { readonly before: Site; readonly after: Site; readonly found: readonly Leading[] } | undefined;

/** Found once for all pages of a proof. */
function leadingFiles(before: Site, after: Site): readonly Leading[] {
  if (last?.before === before && last.after === after) return last.found;
  const changed = changedSheets(before, after);
  const files = [...before.files.values()].filter(({ path }) => leading.test(path)).sort(byPath);
  const found = files.flatMap((file) => {
    const text = changed.length === 0 ? '' : asciiText(file.bytes);
    const names = changed.filter((path) => text.includes(fileNameOf(path)));
    return names.length === 0 ? [] : [{ file, names }];
  });
  last = { before, after, found };
  return found;
}

/** Sheets that were there and are not the same: a new one nobody named before. */
const changedSheets = (before: Site, after: Site): readonly string[] =>
  changedFiles(before, after)
    .filter(({ path, change }) => change !== 'created' && before.files.get(path)?.kind === 'sheet')
    .map(({ path }) => path);
