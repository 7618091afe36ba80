/**
 * `css/site.css` for a new shared sheet, or the next name no file of the site has in any case: an existing sheet's own rules
 * would reach pages they did not reach.
 */
export function freeSheetName(paths: Iterable<string>): string {
  const taken = new Set([...paths].map((path) => path.toLowerCase()));
  for (const name of ['site', 'shared', 'gathered']) if (!taken.has(`css/${name}.css`)) return `css/${name}.css`;
  for (let n = 2; ; n++) if (!taken.has(`css/site-${n}.css`)) return `css/site-${n}.css`;
}

/** The sheet for style attributes in the folder of a shared sheet, under a name no file of the site has in any case. */
export function attributesSheetBeside(sheet: string, paths: Iterable<string>): string {
  const taken = new Set([...paths].map((path) => path.toLowerCase()));
  const folder = sheet.slice(0, sheet.lastIndexOf('/') + 1);
  for (let n = 1; ; n++) {
    const name = `${folder}attributes${n === 1 ? '' : `-${n}`}.css`;
    if (!taken.has(name.toLowerCase())) return name;
  }
}
