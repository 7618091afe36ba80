import type { IndexedSelector } from '../cascade/indexedSelector.ts';
import type { CascadeSession, PageCascade } from '../cascade/pageCascade.ts';
import type { RuleIndex } from '../cascade/ruleIndex.ts';
import { slotKeys, type StackSource } from '../cascade/stack.ts';
import type { ComplexSelector } from '../selectors/selector.ts';
import { pageScripts } from '../scripts/pageScripts.ts';
import { parseSelectorList } from '../selectors/parseSelector.ts';
import type { Site } from '../source/site.ts';
import { withoutPageConditions } from './pageConditions.ts';
import { neededNames } from '../survey/selectorNames.ts';

/**
 * How elements may look that scripts of the page make, or give a class or an ID: of all rules whose names the page or its scripts
 * say (`names`), who would decide what. A number, equal for states of the session or its twin in which such elements look alike,
 * wherever the scripts put them. Undefined where no script makes any.
 */
export function madeLook(cascade: PageCascade, site: Site, names = namesMade(cascade, site)): number | undefined {
  return names && cascade.session.textNumber(lookOf(rulesFor(cascade, names), cascade.session));
}

/** Whether such elements look alike in two states: of each type and ID that rules ask for by itself, since no element has two. */
export function madeAlike(before: PageCascade, after: PageCascade, names: ReadonlySet<string>): boolean {
  const [old, now] = [rulesFor(before, names), rulesFor(after, names)];
  let alike = old.alike.get(now);
  if (alike === undefined) old.alike.set(now, (alike = compare(old, now, before.session)));
  return alike;
}

/** `session`: that of one of them; the other's is the same, or its twin. */
function compare(before: MadeRules, after: MadeRules, session: CascadeSession): boolean {
  if (lookOf(before, session) === lookOf(after, session)) return true;
  const [old, now] = [before.rules, after.rules];
  const subjects = [...old, ...now].map(subjectOf);
  const tags = [undefined, ...new Set(subjects.flatMap(({ tag }) => tag ?? []))];
  const ids = [undefined, ...new Set(subjects.flatMap(({ id }) => id ?? []))];
  if (tags.length * ids.length > mostSubjects) return false;
  const meant = (rules: readonly MadeRule[], tag: string | undefined, id: string | undefined): readonly MadeRule[] =>
    rules.filter((rule) => {
      const subject = subjectOf(rule);
      return (subject.tag === undefined || subject.tag === tag) && (subject.id === undefined || subject.id === id);
    });
  return tags.every((tag) =>
    ids.every((id) => lookBy(meant(old, tag, id), session) === lookBy(meant(now, tag, id), session)),
  );
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

function lookBy(rules: readonly MadeRule[], session: CascadeSession): string {
  const sources = rules.map(({ one, text }): StackSource => ({
    block: one.rule.compiled.block,
    pseudoElement: one.pseudoElement,
    layerRank: one.layerRank,
    // selectors are long, and stand in the stack of each longhand
    condition: `#${session.textNumber(`${one.rule.conditionKey} ${text}`)}`,
    mark: one.mark,
  }));
  // values may hold any letters: no separator of ours could be told from theirs
  return JSON.stringify([...slotKeys(sources)].sort(([a], [b]) => (a < b ? -1 : 1)));
}

/** A rule, and its selector as it counts on the page. */
export interface MadeRule {
  readonly one: IndexedSelector;
  readonly text: string;
}

/** Pages of one index on which the same rules could reach such elements share one. */
interface MadeRules {
  readonly rules: readonly MadeRule[];
  look: string | undefined;
  /** What was found against those of other states. */
  readonly alike: WeakMap<MadeRules, boolean>;
}

const lookOf = (made: MadeRules, session: CascadeSession): string => (made.look ??= lookBy(made.rules, session));

const known = new WeakMap<RuleIndex, Map<string, MadeRules>>();

/** The rules that could reach elements of these names, weakest first. A class that is on `body` or root alone is no name of theirs. */
export function rulesFor({ tree, rules, session }: PageCascade, names: ReadonlySet<string>): MadeRules {
  const onTop = new Set(tree.elements.flatMap(({ tag, classes }) => (tag === 'body' || tag === 'html' ? classes : [])));
  const isNew = (name: string): boolean => !names.has(name.toLowerCase());
  const index = session.sharedIndex(rules, tree.mode === 'quirks');
  const found: MadeRule[] = [];
  let key = '';
  for (const one of index.all) {
    const text = withoutPageConditions(one.selector.text, onTop, isNew);
    if (text === undefined) continue;
    const asks =
      text === one.selector.text ? neededOf(one.selector) : (parseSelectorList(text)?.flatMap(neededBare) ?? []);
    if (!asks.every((name) => names.has(name))) continue;
    found.push({ one, text });
    key += text === one.selector.text ? `${one.position}\0` : `${one.position} ${text}\0`;
  }
  let ofIndex = known.get(index);
  if (!ofIndex) known.set(index, (ofIndex = new Map<string, MadeRules>()));
  let made = ofIndex.get(key);
  if (!made) ofIndex.set(key, (made = { rules: found, look: undefined, alike: new WeakMap() }));
  return made;
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

const needed = new WeakMap<ComplexSelector, readonly string[]>();

function neededOf(selector: ComplexSelector): readonly string[] {
  let names = needed.get(selector);
  if (!names) needed.set(selector, (names = neededBare(selector)));
  return names;
}

/** The names a selector cannot do without, bare: a script may say `note`, where the selector says `.note`. */
const neededBare = (selector: ComplexSelector): readonly string[] =>
  neededNames(selector).map((name) => name.replace(/^[.#]/, ''));
