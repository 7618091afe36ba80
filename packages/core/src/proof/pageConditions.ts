import { endOfCompound } from '../selectors/endOfCompound.ts';
import type { ElementNode } from '../page/nodes.ts';

/** A part of a compound that asks for a class or leaves it out: `.news`, `:not(.plain)`, `:where(.a, .b)`. */
const parts = /:(?:where|is|not)\((?:[^()]|\([^()]*\))*\)|\.[\w-]+/g;

const classesIn = (part: string): readonly string[] => [...part.matchAll(/\.([\w-]+)/g)].map((found) => found[1]!);

/**
 * A selector as it counts for elements inside this page's body, where it asks for classes that nothing but the page's `body` and
 * root could have (`isNew`): without that condition where it holds, undefined where it does not, else as it is.
 */
export function withoutPageConditions(
  text: string,
  tops: readonly ElementNode[],
  isNew: (name: string) => boolean,
): string | undefined {
  const end = endOfCompound(text);
  const first = text.slice(0, end);
  const rest = text.slice(end);
  const found = first.match(parts) ?? [];
  const fresh = found.filter((part) => classesIn(part).length > 0 && classesIn(part).every(isNew));
  if (fresh.length === 0) return text;
  const left = fresh.reduce((one, part) => one.replace(part, ''), first);
  const isAbove = /^\s+[^>+~\s]/.test(rest) && /^(body|html)?$/i.test(left);
  const isTop = isAbove || /^(body|html)\b/i.test(first) || fresh.every((part) => /\s\*\)$/.test(part));
  if (!isTop) return text;
  const has = (name: string): boolean => tops.some(({ classes }) => classes.includes(name));
  const holds = fresh.every((part) => classesIn(part).some(has) !== part.includes(':not('));
  if (!holds) return undefined;
  return isAbove ? rest.trimStart() : left + rest;
}
