import { endOfCompound } from '../selectors/endOfCompound.ts';

/** A part of a compound that asks for a class or leaves it out: `.news`, `:not(.plain)`, `:where(.a, .b)`. */
const partPattern = /:(?:where|is|not)\((?:[^()]|\([^()]*\))*\)|\.[\w-]+/g;

const classesIn = (part: string): readonly string[] => [...part.matchAll(/\.([\w-]+)/g)].map((found) => found[1]!);

/** A selector whose first compound may be a condition on the page. */
interface Conditional {
  readonly first: string;
  readonly rest: string;
  readonly parts: readonly { readonly text: string; readonly classes: readonly string[] }[];
  /** What it counts as, by which of its parts are new and which of these hold. */
  readonly known: Map<string, string | undefined>;
}

const conditionals = new Map<string, Conditional>();

function conditionalOf(text: string): Conditional {
  let known = conditionals.get(text);
  if (!known) {
    if (conditionals.size > 20_000) conditionals.clear();
    const end = endOfCompound(text);
    const first = text.slice(0, end);
    const parts = (first.match(partPattern) ?? []).map((part) => ({ text: part, classes: classesIn(part) }));
    known = {
      first,
      rest: text.slice(end),
      parts: parts.filter(({ classes }) => classes.length > 0),
      known: new Map(),
    };
    conditionals.set(text, known);
  }
  return known;
}

/**
 * A selector as it counts for elements inside this page's body, where it asks for classes that nothing but the page's `body` and
 * root (`onTop`) could have (`isNew`): without that condition where it holds, undefined where it does not, else as it is.
 */
export function withoutPageConditions(
  text: string,
  onTop: ReadonlySet<string>,
  isNew: (name: string) => boolean,
): string | undefined {
  const conditional = conditionalOf(text);
  let key = '';
  for (const { classes } of conditional.parts)
    key += !classes.every(isNew) ? '-' : classes.some((name) => onTop.has(name)) ? 'y' : 'n';
  if (!/[yn]/.test(key)) return text;
  if (!conditional.known.has(key)) conditional.known.set(key, countsAs(text, conditional, key));
  return conditional.known.get(key);
}

/** `key`: of each part `-` where it is not new, else whether the top has one of its classes. */
function countsAs(text: string, { first, rest, parts }: Conditional, key: string): string | undefined {
  const fresh = parts.flatMap((part, i) => (key[i] === '-' ? [] : [{ text: part.text, has: key[i] === 'y' }]));
  const left = fresh.reduce((one, part) => one.replace(part.text, ''), first);
  const isAbove = /^[\t\n\f\r ]+[^>+~\t\n\f\r ]/.test(rest) && /^(body|html)?$/i.test(left);
  const isTop = isAbove || /^(body|html)\b/i.test(first) || fresh.every((part) => /[\t\n\f\r ]\*\)$/.test(part.text));
  if (!isTop) return text;
  const holds = fresh.every((part) => part.has !== part.text.includes(':not('));
  if (!holds) return undefined;
  return isAbove ? rest.replace(/^[\t\n\f\r ]+/, '') : left + rest;
}
