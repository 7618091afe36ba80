/**
 * `css/site.css` for a new shared sheet, or the next name no file of the site has in any case: an existing sheet's own rules
 * would reach pages they did not reach.
 */
export function freeSheetName(paths: Iterable<string>): string {
  const taken = new Set([...paths].map((path) => path.toLowerCase()));
  for (const name of ['site', 'shared', 'gathered']) if (!taken.has(`css/${name}.css`)) return `css/${name}.css`;
  for (let n = 2; ; n++) if (!taken.has(`css/site-${n}.css`)) return `css/site-${n}.css`;
}
