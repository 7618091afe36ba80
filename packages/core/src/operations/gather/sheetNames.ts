import { pagesOf, type Site } from '../../source/site.ts';
import { fileNameOf, folderOf } from '../../source/sitePath.ts';

/** Free names for new sheets, made of what they are for. */
export class SheetNames {
  private readonly taken: Set<string>;
  private readonly folder: string;

  /** `folder`: `css/`, or empty for the root. Names that links ask for are taken too: a broken link would come to life. */
  constructor(site: Site, folder: string) {
    this.folder = folder;
    this.taken = new Set([...site.files.keys()].map((path) => path.toLowerCase()));
    for (const { text } of pagesOf(site))
      for (const name of text?.toLowerCase().match(/[\w.-]+\.css\b/g) ?? [])
        this.taken.add(folder.toLowerCase() + name);
  }

  take(path: string): void {
    this.taken.add(path.toLowerCase());
  }

  /** For rules: named for the one page, for the folder all pages lie in, or for what most rules are about. */
  propose(pages: readonly string[], labels: readonly string[]): string {
    return this.free(placeName(pages) ?? subjectName(labels) ?? 'shared');
  }

  private free(base: string): string {
    const safe = base.replace(/[^A-Za-z0-9_-]+/g, '-').replace(/^[-]+|[-]+$/g, '') || 'pages';
    for (let n = 1; ; n++) {
      const path = `${this.folder}${safe}${n === 1 ? '' : `-${n}`}.css`;
      if (this.taken.has(path.toLowerCase())) continue;
      this.take(path);
      return path;
    }
  }
}

function placeName(pages: readonly string[]): string | undefined {
  const folders = new Set(pages.map(folderOf));
  if (folders.size > 1) return undefined;
  const folder = [...folders][0]!.replace(/\/$/, '');
  // a year or a number says little without what it lies in
  const parent = /(?:[^/]*\/)?\d[^/]*$|[^/]*$/.exec(folder)![0].replace('/', '-');
  if (pages.length > 1) return parent === '' ? undefined : parent;
  const name = fileNameOf(pages[0]!).replace(/\.[^.]*$/, '');
  return name.toLowerCase() === 'index' && parent !== '' ? parent : name;
}

/** The word that at least half of the rules' selectors hold: `notice` for `.notice` and `.notice-title`; `print` for print only. */
function subjectName(labels: readonly string[]): string | undefined {
  if (labels.every((label) => label.startsWith('@media print'))) return 'print';
  const counts = new Map<string, number>();
  for (const label of labels) {
    const words = [...label.matchAll(/[.#]([a-z]{3,})/gi)].map((found) => found[1]!.toLowerCase());
    for (const word of new Set(words)) counts.set(word, (counts.get(word) ?? 0) + 1);
  }
  const [first] = [...counts].sort((a, b) => b[1] - a[1]);
  return first && first[1] * 2 >= labels.length ? first[0] : undefined;
}
