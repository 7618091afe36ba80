import { unescapeCss } from '../values/unescape.ts';
import type { ElementNode } from './nodes.ts';

/** Attributes that name IDs, one or several. HTML Standard and WAI-ARIA 1.2, "ID reference" and "ID reference list". */
export const idReferences: ReadonlySet<string> = new Set(
  (
    'for headers list form popovertarget commandfor itemref aria-activedescendant aria-controls aria-describedby aria-details ' +
    'aria-errormessage aria-flowto aria-labelledby aria-owns'
  ).split(' '),
);

/** The number of each ID of a page, by the order of the first elements that have it. */
export type IdNumbers = ReadonlyMap<string, number>;

export function idNumbers(elements: readonly ElementNode[]): IdNumbers {
  const out = new Map<string, number>();
  for (const { id } of elements) if (id !== undefined && !out.has(id)) out.set(id, out.size);
  return out;
}

/**
 * What an attribute says with IDs as numbers: equal for two pages that differ in nothing but the names of IDs, and in what refers to
 * them. Undefined for an attribute that names none.
 */
export function valueWithoutNames(
  { tag, namespace }: ElementNode,
  name: string,
  value: string,
  ids: IdNumbers,
): string | undefined {
  const number = (id: string): string => (ids.has(id) ? `\0${ids.get(id)!}` : id);
  if (name === 'id') return number(value);
  if (idReferences.has(name))
    return value
      .split(/[\t\n\f\r ]+/)
      .map(number)
      .join(' ');
  const hash = name === 'href' ? value.indexOf('#') : -1;
  if (hash === 0) return `#${number(decoded(value.slice(1)))}`;
  // drawings: a part to paint or cut with, and what an animation waits for
  if (/url\([\t\n\f\r ]*["']?#/i.test(value))
    return value.replace(localAddress, (_all, open: string, id: string) => open + number(decoded(id)));
  if (name === 'begin' || name === 'end') return value.replace(/([^\t\n\f\r ;.]+)(?=\.[a-z])/gi, number);
  // where a link leads on another page shows nowhere on this one
  if (hash > 0 && namespace === 'html' && (tag === 'a' || tag === 'area')) return value.slice(0, hash);
  return undefined;
}

/** `url(#shade)`, up to the name and the name. */
const localAddress = /(url\([\t\n\f\r ]*["']?#)([^"')\t\n\f\r ]+)/gi;

/** The IDs that addresses in a CSS value may refer to: with a path before the fragment it may still be this page. */
export const idsAddressed = (value: string): readonly string[] =>
  [...unescapeCss(value).matchAll(/(?:url|src)\([\t\n\f\r ]*["']?[^"'()\t\n\f\r ]*#([^"')\t\n\f\r ]+)/gi)].map(
    (found) => decoded(found[1]!),
  );

/** The IDs that attributes of an element may refer to by an address, as a whole or within a value; a link's is only where it leads. */
export const idsInAttributes = ({ attributes, tag, namespace }: ElementNode): readonly string[] =>
  namespace === 'html' && (tag === 'a' || tag === 'area')
    ? []
    : attributes.flatMap(({ value }) =>
        [...unescapeCss(value).matchAll(/#([^"')\t\n\f\r ]+)/g)].map((found) => decoded(found[1]!)),
      );

function decoded(fragment: string): string {
  try {
    return decodeURIComponent(fragment);
  } catch {
    return fragment;
  }
}
