import type { IndexedSelector } from '../cascade/ruleIndex.ts';
import type { PageCascade } from '../cascade/pageCascade.ts';
import { slotKeys, type StackSource } from '../cascade/stack.ts';
import type { ComplexSelector } from '../selectors/selector.ts';
import { pageScripts } from '../scripts/pageScripts.ts';
import type { Site } from '../source/site.ts';
import { neededNames } from '../survey/selectorNames.ts';

/**
 * How elements may look that scripts of the page make, or give a class or an ID: of all rules whose names the page or its scripts
 * say (`names`), who would decide what. Equal for states in which such elements look alike, wherever the scripts put them. Undefined where
 * no script makes any.
 */
export function madeLook(cascade: PageCascade, site: Site, names = namesMade(cascade, site)): string | undefined {
  if (!names) return undefined;
  const sources = rulesFor(cascade, names).map((one): StackSource => ({
    block: one.rule.compiled.block,
    pseudoElement: one.pseudoElement,
    layerRank: one.layerRank,
    condition: `${one.rule.conditionKey} ${one.selector.text}`,
    mark: one.mark,
  }));
  return JSON.stringify([...slotKeys(sources)].sort(([a], [b]) => (a < b ? -1 : 1)));
}

/** The rules that could reach elements of these names, weakest first. */
export const rulesFor = (
  { tree, rules, session }: PageCascade,
  names: ReadonlySet<string>,
): readonly IndexedSelector[] =>
  session
    .sharedIndex(rules, tree.mode === 'quirks')
    .all.filter(({ selector }) => needs(selector).every((name) => names.has(name)));

/** The names such elements may have: all the page and its scripts say; undefined where scripts make none. */
export function namesMade({ tree, rules, path }: PageCascade, site: Site): ReadonlySet<string> | undefined {
  const scripts = pageScripts(tree, path, rules.sources, site);
  if (!scripts.some(({ facts }) => facts.makes)) return undefined;
  const names = new Set<string>();
  for (const { facts } of scripts) for (const word of facts.words) names.add(word.toLowerCase());
  for (const { tag, id, classes } of tree.elements) {
    names.add(tag.toLowerCase());
    if (id !== undefined) names.add(id.toLowerCase());
    for (const name of classes) names.add(name.toLowerCase());
  }
  return names;
}

const known = new WeakMap<ComplexSelector, readonly string[]>();

/** The names a selector cannot do without, bare: a script may say `note`, where the selector says `.note`. */
function needs(selector: ComplexSelector): readonly string[] {
  let names = known.get(selector);
  if (!names) known.set(selector, (names = neededNames(selector).map((name) => name.replace(/^[.#]/, ''))));
  return names;
}
