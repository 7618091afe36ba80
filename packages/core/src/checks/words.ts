import type { CheckedPage } from './check.ts';

/** A page's name as people say it: `news/2024/night-fares` for `news/2024/night-fares.html`. */
export const nameOf = (path: string): string => path.replace(/\.html?$/i, '');

export const code = (text: string): string => `\`${text.replaceAll('`', '\u02cb')}\``;

/** Up to three names, else their number. */
export function pagesInWords(pages: readonly string[]): string {
  if (pages.length > 3) return `${pages.length.toLocaleString('en')} pages`;
  return list(pages.map((page) => code(nameOf(page))));
}

export const list = (names: readonly string[]): string =>
  names.length < 2 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)!}`;

/** Up to `most` names in code, then how many more. */
export function namesInWords(names: readonly string[], most = 3): string {
  const shown = names.slice(0, most).map(code);
  return names.length > most ? `${shown.join(', ')} and ${names.length - most} more` : list(shown);
}

/** `verb(3, 'link', 'links')`: the form that goes with a number of subjects. */
export const verb = (n: number, many: string, one: string): string => (n === 1 ? one : many);

export const count = (n: number, word: string): string => `${n.toLocaleString('en')} ${word}${n === 1 ? '' : 's'}`;

/** Pages that have a body of their own: no framesets, no pages that only send people elsewhere. */
export const hasBody = ({ tree }: CheckedPage): boolean =>
  !tree.elements.some(
    (e) =>
      e.tag === 'frameset' ||
      (e.tag === 'meta' && e.attributes.some((a) => a.name === 'http-equiv' && a.value.toLowerCase() === 'refresh')),
  );
