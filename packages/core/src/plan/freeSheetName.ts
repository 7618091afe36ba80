/**
 * `css/site.css` for a new shared sheet (`folder` may be another, or empty for the root), or the next name no file of the site has in any case: an existing sheet's own rules
 * would reach pages they did not reach.
 */
export function freeSheetName(paths: Iterable<string>, folder = 'css'): string {
  const taken = new Set([...paths].map((path) => path.toLowerCase()));
  const at = folder.replace(/^\/+|\/+$/g, '');
  const free = (name: string): string | undefined => {
    const path = at === '' ? name : `${at}/${name}`;
    return taken.has(path.toLowerCase()) ? undefined : path;
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
  const taken = new Set([...paths].map((path) => path.toLowerCase()));
  const folder = sheet.slice(0, sheet.lastIndexOf('/') + 1);
  for (let n = 1; ; n++) {
    const name = `${folder}${base}${n === 1 ? '' : `-${n}`}.css`;
    if (!taken.has(name.toLowerCase())) return name;
  }
}
