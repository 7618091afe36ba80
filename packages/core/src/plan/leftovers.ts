import { parsePage } from '../page/parsePage.ts';
import type { Site } from '../source/site.ts';
import { fileNameOf, folderOf } from '../source/sitePath.ts';
import { embeddedBlocks } from '../survey/blockUnits.ts';

/** Pages that hold the same rest of embedded rules, and the sheet proposed for it. */
export interface LeftoverGroup {
  readonly pages: readonly string[];
  readonly sheet: string;
}

/** The rest of the pages' embedded rules by groups of pages that hold the same, in page order, each with a free sheet name. */
export function leftoverGroups(site: Site, pages: readonly string[], sharedSheet: string): readonly LeftoverGroup[] {
  const groups = new Map<string, string[]>();
  for (const path of pages) {
    const units = movableUnits(site, path);
    if (units.length === 0) continue;
    const key = units.join('\n\n');
    const group = groups.get(key);
    if (group) group.push(path);
    else groups.set(key, [path]);
  }
  const taken = takenNames(site, pages, sharedSheet);
  return [...groups.values()].map((group) => ({ pages: group, sheet: freeName(group, folderOf(sharedSheet), taken) }));
}

/** The pages that hold the rule left over on most pages, at least two. `tried` remembers what was offered before. */
export function widestLeftover(
  site: Site,
  pages: readonly string[],
  sharedSheet: string,
  tried: Set<string>,
): LeftoverGroup | undefined {
  const holders = new Map<string, string[]>();
  for (const path of pages)
    for (const unit of new Set(movableUnits(site, path))) {
      const list = holders.get(unit);
      if (list) list.push(path);
      else holders.set(unit, [path]);
    }
  let widest: [string, string[]] | undefined;
  for (const entry of holders) if (!tried.has(entry[0]) && entry[1].length > (widest?.[1].length ?? 1)) widest = entry;
  if (!widest) return undefined;
  tried.add(widest[0]);
  const name = /^@media print/.test(widest[0]) ? 'print' : undefined;
  return {
    pages: widest[1],
    sheet: freeName(widest[1], folderOf(sharedSheet), takenNames(site, pages, sharedSheet), name),
  };
}

function movableUnits(site: Site, path: string): readonly string[] {
  const text = site.files.get(path)?.text;
  if (text === undefined || !/<style/i.test(text)) return [];
  const blocks = embeddedBlocks(parsePage(text), path).filter((block) => block.stays === undefined);
  return blocks.flatMap((block) => block.units).map((unit) => `${unit.family}\n${unit.version}`);
}

/** Names that files have, and names that links ask for: a broken link to a sheet of that name would come to life. */
function takenNames(site: Site, pages: readonly string[], sharedSheet: string): Set<string> {
  const named = pages.flatMap(
    (path) =>
      site.files
        .get(path)
        ?.text?.toLowerCase()
        .match(/[\w.-]+\.css\b/g) ?? [],
  );
  return new Set(
    [...site.files.keys()].map((path) => path.toLowerCase()).concat(named.map((name) => folderOf(sharedSheet) + name)),
  );
}

/** Named for the page, or for the folder all pages lie in, or `shared` for pages of several folders. */
function freeName(pages: readonly string[], folder: string, taken: Set<string>, name?: string): string {
  const folders = new Set(pages.map(folderOf));
  const shared = [...folders][0]!.replace(/\/$/, '');
  const first = fileNameOf(pages[0]!).replace(/\.[^.]*$/, '');
  const parent = shared.slice(shared.lastIndexOf('/') + 1);
  const base =
    name ??
    (pages.length > 1 && folders.size === 1 && shared !== ''
      ? parent
      : first === 'index' && parent !== ''
        ? parent
        : folders.size > 1
          ? 'shared'
          : first);
  const safe = base.replace(/[^A-Za-z0-9._-]+/g, '-').replace(/^[.-]+/, '') || 'pages';
  for (let n = 1; ; n++) {
    const path = `${folder}${safe}${n === 1 ? '' : `-${n}`}.css`;
    if (taken.has(path.toLowerCase())) continue;
    taken.add(path.toLowerCase());
    return path;
  }
}
