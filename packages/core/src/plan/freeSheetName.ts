/**
 * `css/site.css` for a new shared sheet (`folder` may be another, or empty for the root), or the next name no file of the site has in any case: an existing sheet's own rules
 * would reach pages they did not reach.
 */
export function freeSheetName(paths: Iterable<string>, folder = 'css'): string {
  const isFree = freePaths(paths);
  const wanted = folder.replace(/^\/+|\/+$/g, '');
  // a file of that name lets no folder be made
  const at = wanted === '' || isFree(`${wanted}/site.css`, true) ? wanted : '';
  const free = (name: string): string | undefined => {
    const path = at === '' ? name : `${at}/${name}`;
    return isFree(path) ? path : undefined;
  };
  const plain = free('site.css') ?? free('shared.css') ?? free('gathered.css');
  for (let n = 2; ; n++) {
    const found = plain ?? free(`site-${n}.css`);
    if (found !== undefined) return found;
  }
}

/** The sheet for style attributes in the folder of a shared sheet, under a name no file of the site has in any case. */
export const attributesSheetBeside = (sheet: string, paths: Iterable<string>): string =>
  freeBeside(sheet, paths, 'attributes');

/** A free name in the folder of a sheet: `css/markup.css`, `css/markup-2.css`, … */
export function freeBeside(sheet: string, paths: Iterable<string>, base: string): string {
  const isFree = freePaths(paths);
  const folder = sheet.slice(0, sheet.lastIndexOf('/') + 1);
  for (let n = 1; ; n++) {
    const name = `${folder}${base}${n === 1 ? '' : `-${n}`}.css`;
    if (isFree(name)) return name;
  }
}

/** Whether a file could be made at a path, in any case: no file has it, no folder, and none of its folders is a file. */
function freePaths(paths: Iterable<string>): (path: string, foldersOnly?: boolean) => boolean {
  const files = new Set<string>();
  const folders = new Set<string>();
  for (const path of paths) {
    const lower = path.toLowerCase();
    files.add(lower);
    for (let at = lower.lastIndexOf('/'); at > 0; at = lower.lastIndexOf('/', at - 1)) folders.add(lower.slice(0, at));
  }
  return (path, foldersOnly = false) => {
    const lower = path.toLowerCase();
    for (let at = lower.lastIndexOf('/'); at > 0; at = lower.lastIndexOf('/', at - 1))
      if (files.has(lower.slice(0, at))) return false;
    return foldersOnly || (!files.has(lower) && !folders.has(lower));
  };
}
