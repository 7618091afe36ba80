import { tableOf } from '../source/tableOf.ts';
import type { PageCascade } from '../cascade/pageCascade.ts';
import { splitSlot } from '../cascade/stack.ts';
import { attributeOf, type ElementNode } from '../page/nodes.ts';
import { parentElement } from '../page/parsePage.ts';
import { borderImageReset, fontReset } from '../values/longhandValues.ts';
import type { PageState } from './explainDifference.ts';
import type { ElementPair } from './pairElements.ts';
import { mayBeStyledUnseen } from './styledUnseen.ts';

/**
 * Longhands that no browser declares for plain elements, with their initial values as `longhandValues` spells them: a shorthand that
 * resets them says no more than one that leaves them out. CSS Cascading and Inheritance 5, "Shorthand Properties", "Initial Values".
 */
export const notInherited: Readonly<Record<string, string>> = tableOf({
  ...borderImageReset,
  'background-image': 'none',
  'background-color': '#000000/0',
  'background-position-x': '0%',
  'background-position-y': '0%',
  'background-size': 'auto',
  'background-repeat': 'repeat',
  'background-attachment': 'scroll',
  'background-origin': 'padding-box',
  'background-clip': 'border-box',
  'text-decoration-thickness': 'auto',
  'text-decoration-style': 'solid',
  'text-decoration-color': 'currentcolor',
});

/** The same for inherited ones: they say nothing where nothing else on the page sets them. */
export const inherited: Readonly<Record<string, string>> = tableOf({
  'list-style-position': 'outside',
  'list-style-image': 'none',
  ...fontReset,
  'font-variant-caps': 'normal',
  'font-stretch': 'normal',
});

/** Elements browsers give no background, no border image and no decoration but a plain line. */
export const plainTags = new Set(
  'html body div p h1 h2 h3 h4 h5 h6 ul ol li dl dt dd table caption thead tbody tfoot tr td th col colgroup a span em strong b i u s small big sub sup code kbd samp tt var cite dfn q pre blockquote address header footer nav main section article aside figure figcaption form label center ins del strike br img'.split(
    ' ',
  ),
);

/** Of slots that differ, those that do not do so merely by saying an initial value that would be there anyway. */
export function beyondSilentInitials(
  slots: readonly string[],
  before: PageState,
  after: PageState,
  pair: ElementPair,
): readonly string[] {
  if (!slots.some((slot) => initialOf(splitSlot(slot)[1]) !== undefined)) return slots;
  if ([before, after].some(({ cascade }) => mayBeStyledUnseen(cascade.tree))) return slots;
  if (!isPlain(pair.before) || !isPlain(pair.after) || pair.before.tag !== pair.after.tag) return slots;
  if ([before, after].some(({ cascade }) => cascade.rules.unread.some(({ isNothing }) => !isNothing))) return slots;
  const texts = [before.cascade, after.cascade].map((page, i) =>
    page.session.slotsOfList(page.listOf(i === 0 ? pair.before : pair.after)),
  );
  return slots.filter((slot) => {
    const [pseudoElement, longhand] = splitSlot(slot);
    const initial = initialOf(longhand);
    // HTML Standard, "Rendering", "Lists": in quirks mode browsers declare it for items and lists
    if (longhand === 'list-style-position' && (before.cascade.quirks || after.cascade.quirks)) return true;
    if (initial === undefined || !['', '::before', '::after'].includes(pseudoElement)) return true;
    if (texts.some((all) => all.has(`${pseudoElement} all`))) return true;
    const [left, right] = texts.map((all) => withoutLast(all.get(slot) ?? '', `${longhand}:${initial}\n`));
    if (left !== right || left!.includes('revert')) return true;
    if (longhand in inherited && isInSummary(pair.before)) return true;
    return longhand in inherited && !(neverSet(before.cascade, longhand) && neverSet(after.cascade, longhand));
  });
}

/** What such an element inherits browsers say: HTML Standard, "Rendering", "The details and summary elements". */
function isInSummary(element: ElementNode): boolean {
  for (let at = parentElement(element); at; at = parentElement(at)) if (at.tag === 'summary') return true;
  return false;
}

const initialOf = (longhand: string): string | undefined => notInherited[longhand] ?? inherited[longhand];

const withoutLast = (stack: string, line: string): string =>
  stack === line || stack.endsWith(`\n${line}`) ? stack.slice(0, -line.length) : stack;

const isPlain = (element: ElementNode): boolean =>
  element.namespace === 'html' &&
  plainTags.has(element.tag) &&
  backgroundAttributes.every((name) => attributeOf(element, name) === undefined);

/** With these browsers do give it a background: HTML Standard, "Rendering", "Flow content", "The page". */
export const backgroundAttributes = ['background', 'bgcolor', 'popover'];

const known = new WeakMap<PageCascade, Map<string, boolean>>();

/**
 * Whether nothing on a page gives an inherited longhand anything but its initial value: no rule, no attribute, no animation.
 */
function neverSet(page: PageCascade, longhand: string): boolean {
  let answers = known.get(page);
  if (!answers) known.set(page, (answers = new Map<string, boolean>()));
  let answer = answers.get(longhand);
  if (answer === undefined) answers.set(longhand, (answer = !setsIt(page, longhand)));
  return answer;
}

function setsIt({ rules, tree, session }: PageCascade, longhand: string): boolean {
  if (rules.definitions.some(({ compiled }) => /keyframes$/.test(compiled.name))) return true;
  const attributes = tree.elements.flatMap((element) => attributeOf(element, 'style') ?? []);
  const blocks = [
    ...rules.rules.map(({ compiled }) => compiled.block),
    ...[...new Set(attributes)].map((text) => session.sheets.styleAttribute(text, rules.sources.base)),
  ];
  return blocks.some(({ declarations }) =>
    declarations.some(({ declaration, longhands, values, comparable }) => {
      if (declaration.property === 'all') return true;
      const at = longhands.indexOf(longhand);
      if (at < 0) return false;
      const value = longhands.length === 1 ? comparable : values?.[at];
      return value !== inherited[longhand];
    }),
  );
}
