import type { IndexedSelector } from '../cascade/indexedSelector.ts';
import type { PageCascade } from '../cascade/pageCascade.ts';
import { slotKeys, type StackSource } from '../cascade/stack.ts';
import type { ComplexSelector } from '../selectors/selector.ts';
import { pageScripts } from '../scripts/pageScripts.ts';
import { parseSelectorList } from '../selectors/parseSelector.ts';
import type { Site } from '../source/site.ts';
import { withoutPageConditions } from './pageConditions.ts';
import { neededNames } from '../survey/selectorNames.ts';

/**
 * How elements may look that scripts of the page make, or give a class or an ID: of all rules whose names the page or its scripts
 * say (`names`), who would decide what. Equal for states in which such elements look alike, wherever the scripts put them. Undefined where
 * no script makes any.
 */
export function madeLook(cascade: PageCascade, site: Site, names = namesMade(cascade, site)): string | undefined {
  return names && lookBy(rulesFor(cascade, names));
}

/** Whether such elements look alike in two states: of each type and ID that rules ask for by itself, since no element has two. */
export function madeAlike(before: PageCascade, after: PageCascade, names: ReadonlySet<string>): boolean {
  const [old, now] = [rulesFor(before, names), rulesFor(after, names)];
  if (lookBy(old) === lookBy(now)) return true;
  const subjects = [...old, ...now].map(subjectOf);
  const tags = [undefined, ...new Set(subjects.flatMap(({ tag }) => tag ?? []))];
  const ids = [undefined, ...new Set(subjects.flatMap(({ id }) => id ?? []))];
  if (tags.length * ids.length > mostSubjects) return false;
  const meant = (rules: readonly MadeRule[], tag: string | undefined, id: string | undefined): readonly MadeRule[] =>
    rules.filter((rule) => {
      const subject = subjectOf(rule);
      return (subject.tag === undefined || subject.tag === tag) && (subject.id === undefined || subject.id === id);
    });
  return tags.every((tag) => ids.every((id) => lookBy(meant(old, tag, id)) === lookBy(meant(now, tag, id))));
}

const mostSubjects = 2000;

/** The type and ID its last compound asks for. */
function subjectOf({ one }: MadeRule): { readonly tag: string | undefined; readonly id: string | undefined } {
  let tag: string | undefined;
  let id: string | undefined;
  for (const simple of one.selector.compounds.at(-1)!.simples) {
    if (simple.kind === 'type') tag = simple.lower;
    if (simple.kind === 'id') id = simple.name;
  }
  return { tag, id };
}

function lookBy(rules: readonly MadeRule[]): string {
  const sources = rules.map(({ one, text }): StackSource => ({
    block: one.rule.compiled.block,
    pseudoElement: one.pseudoElement,
    layerRank: one.layerRank,
    condition: `${one.rule.conditionKey} ${text}`,
    mark: one.mark,
  }));
  return JSON.stringify([...slotKeys(sources)].sort(([a], [b]) => (a < b ? -1 : 1)));
}

/** A rule, and its selector as it counts on the page. */
export interface MadeRule {
  readonly one: IndexedSelector;
  readonly text: string;
}

/** The rules that could reach elements of these names, weakest first. A class that is on `body` or root alone is no name of theirs. */
export function rulesFor({ tree, rules, session }: PageCascade, names: ReadonlySet<string>): readonly MadeRule[] {
  const tops = tree.elements.filter(({ tag }) => tag === 'body' || tag === 'html');
  const isNew = (name: string): boolean => !names.has(name.toLowerCase());
  return session.sharedIndex(rules, tree.mode === 'quirks').all.flatMap((one): readonly MadeRule[] => {
    const text = withoutPageConditions(one.selector.text, tops, isNew);
    if (text === undefined) return [];
    const needed = text === one.selector.text ? needs(one.selector) : (parseSelectorList(text)?.flatMap(needs) ?? []);
    return needed.every((name) => names.has(name)) ? [{ one, text }] : [];
  });
}

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
