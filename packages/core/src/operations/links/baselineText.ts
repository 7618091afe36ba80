/**
 * A baseline of our own: the differences between browsers' own sheets that authors trip over. Element selectors in `:where()`
 * count nothing, so that, linked first, every rule of the author's beats them that is in no layer. Common practice.
 */
export const baselineText = `/* Baseline: what browsers bring along, evened out. Linked first; any rule of yours outside a layer beats it. */

:where(*, ::before, ::after) { box-sizing: border-box; }

:where(html) { line-height: 1.5; text-size-adjust: 100%; }

:where(body) { margin: 0; }

:where(h1) { font-size: 2em; margin: 0.67em 0; }

:where(img, picture, video, canvas, svg) { max-width: 100%; }

:where(img, video) { height: auto; }

:where(button, input, select, textarea) { font: inherit; }

:where(table) { border-collapse: collapse; }

:where(hr) { box-sizing: content-box; height: 0; overflow: visible; }

:where(sub, sup) { font-size: 75%; line-height: 0; }
`;
