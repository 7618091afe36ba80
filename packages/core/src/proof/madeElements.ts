import { lowered } from '../source/asciiCase.ts';
import type { IndexedSelector } from '../cascade/indexedSelector.ts';
import type { CascadeSession, PageCascade } from '../cascade/pageCascade.ts';
import type { RuleIndex } from '../cascade/ruleIndex.ts';
import { slotLines, type StackSource } from '../cascade/stack.ts';
import type { ComplexSelector } from '../selectors/selector.ts';
import { pageScripts } from '../scripts/pageScripts.ts';
import { selectorsOfAnyBrowser } from '../selectors/parseSelector.ts';
import type { Site } from '../source/site.ts';
import { withoutPageConditions } from './pageConditions.ts';
import { neededNames } from '../survey/selectorNames.ts';

/**
 * How elements may look that scripts of the page make, or give a class or an ID: of all rules whose names the page or its scripts
 * say (`names`), who would decide what. A number, equal only for states of the session or its twin in which such elements look
 * alike, wherever the scripts put them. Undefined where no script makes any.
 */
export function madeLook(cascade: PageCascade, site: Site, names = namesMade(cascade, site)): number | undefined {
  return names && sequenceOf(rulesFor(cascade, names), cascade.session);
}

/** Whether such elements look alike in two states: of each type and ID that rules ask for by itself, since no element has two. */
export function madeAlike(before: PageCascade, after: PageCascade, names: ReadonlySet<string>): boolean {
  const { session } = before;
  const [old, now] = [rulesFor(before, names), rulesFor(after, names)];
  const [left, right] = [sequenceOf(old, session), sequenceOf(now, session)];
  if (left === right) return true;
  let found = compared.get(session);
  if (!found) compared.set(session, (found = new Map<string, boolean>()));
  const key = `${left} ${right}`;
  let alike = found.get(key);
  if (alike === undefined) found.set(key, (alike = compare(linesOf(old, session), linesOf(now, session))));
  return alike;
}

/** What was found of two sequences of rules. */
const compared = new WeakMap<CascadeSession, Map<string, boolean>>();

/** Slot by slot: where the lines are the same, those of any type and ID are. */
function compare(before: SlotLines, after: SlotLines): boolean {
  for (const slot of new Set([...before.keys(), ...after.keys()])) {
    const [old, now] = [before.get(slot) ?? [], after.get(slot) ?? []];
    if (sameLines(old, now)) continue;
    const subjects = [...old, ...now].map(({ subject }) => subject);
    const tags = [undefined, ...new Set(subjects.flatMap(({ tag }) => tag ?? []))];
    const ids = [undefined, ...new Set(subjects.flatMap(({ id }) => id ?? []))];
    if (tags.length * ids.length > mostSubjects) return false;
    if (!tags.every((tag) => ids.every((id) => sameLines(meant(old, tag, id), meant(now, tag, id))))) return false;
  }
  return true;
}

const mostSubjects = 2000;

const sameLines = (old: readonly MadeLine[], now: readonly MadeLine[]): boolean =>
  old.length === now.length && old.every(({ text }, i) => text === now[i]!.text);

const meant = (lines: readonly MadeLine[], tag: string | undefined, id: string | undefined): readonly MadeLine[] =>
  lines.filter(
    ({ subject }) =>
      (subject.tag === undefined || subject.tag === tag) && (subject.id === undefined || subject.id === id),
  );

/** A declaration that may decide a slot, for elements of a type and ID. */
interface MadeLine {
  readonly text: string;
  readonly subject: Subject;
}

/** Of each pseudo-element and longhand the declarations that can decide it, strongest first. */
type SlotLines = ReadonlyMap<string, readonly MadeLine[]>;

function linesOf(made: MadeRules, session: CascadeSession): SlotLines {
  return (made.lines ??= new Map(
    [...slotLines(made.rules.map((rule) => sourceOf(rule, session)))].map(([slot, lines]) => [
      slot,
      lines.map(({ source, text, condition }) => ({
        text: `${text} if ${condition}`,
        subject: subjectOf(made.rules[source]!),
      })),
    ]),
  ));
}

interface Subject {
  readonly tag: string | undefined;
  readonly id: string | undefined;
}

/** The type and ID its last compound asks for; in quirks mode the case of an ID does not count. */
function subjectOf({ one }: MadeRule): Subject {
  let tag: string | undefined;
  let id: string | undefined;
  for (const simple of one.selector.compounds.at(-1)!.simples) {
    if (simple.kind === 'type') tag = simple.lower;
    if (simple.kind === 'id') id = lowered(simple.name);
  }
  return { tag, id };
}

const sourceOf = ({ one, text }: MadeRule, session: CascadeSession): StackSource => ({
  block: one.rule.compiled.block,
  pseudoElement: one.pseudoElement,
  layerRank: one.layerRank,
  // selectors are long, and stand in the stack of each longhand
  condition: `#${session.textNumber(`${one.rule.conditionKey} ${text}`)}`,
  mark: one.mark,
});

/** A rule, and its selector as it counts on the page. */
export interface MadeRule {
  readonly one: IndexedSelector;
  readonly text: string;
}

/** Pages of one index on which the same rules could reach such elements share one. */
interface MadeRules {
  readonly rules: readonly MadeRule[];
  sequence: number | undefined;
  lines: SlotLines | undefined;
}

/** A number, equal for equal rules in equal order, for states of a session and its twin. */
function sequenceOf(made: MadeRules, session: CascadeSession): number {
  return (made.sequence ??= session.textNumber(made.rules.map((rule) => ruleNumber(rule, session)).join()));
}

const numbers = new WeakMap<IndexedSelector, number>();

function ruleNumber(rule: MadeRule, session: CascadeSession): number {
  const isWhole = rule.text === rule.one.selector.text;
  let number = isWhole ? numbers.get(rule.one) : undefined;
  if (number === undefined) {
    const { block, pseudoElement, layerRank, condition, mark } = sourceOf(rule, session);
    const { tag = '', id = '' } = subjectOf(rule);
    number = session.textNumber(JSON.stringify([block.key, pseudoElement, layerRank, condition, mark, tag, id]));
    if (isWhole) numbers.set(rule.one, number);
  }
  return number;
}

const known = new WeakMap<RuleIndex, Map<string, MadeRules>>();

/** The rules that could reach elements of these names, weakest first. A class that is on `body` or root alone is no name of theirs. */
export function rulesFor({ tree, rules, session }: PageCascade, names: ReadonlySet<string>): MadeRules {
  const onTop = new Set(tree.elements.flatMap(({ tag, classes }) => (tag === 'body' || tag === 'html' ? classes : [])));
  const isNew = (name: string): boolean => !names.has(lowered(name));
  const index = session.sharedIndex(rules, tree.mode === 'quirks');
  const found: MadeRule[] = [];
  let key = '';
  for (const one of index.all) {
    const text = withoutPageConditions(one.selector.text, onTop, isNew);
    if (text === undefined) continue;
    const asks =
      text === one.selector.text ? neededOf(one.selector) : (selectorsOfAnyBrowser(text)?.flatMap(neededBare) ?? []);
    if (!asks.every((name) => names.has(name))) continue;
    found.push({ one, text });
    key += text === one.selector.text ? `${one.position}\0` : `${one.position} ${text}\0`;
  }
  let ofIndex = known.get(index);
  if (!ofIndex) known.set(index, (ofIndex = new Map<string, MadeRules>()));
  let made = ofIndex.get(key);
  if (!made) ofIndex.set(key, (made = { rules: found, sequence: undefined, lines: undefined }));
  return made;
}

/** The names such elements may have: all the page and its scripts say; undefined where scripts make none. */
export function namesMade(cascade: PageCascade, site: Site): ReadonlySet<string> | undefined {
  const asked = lastNames.get(cascade);
  if (asked?.site === site) return asked.names;
  const names = findNames(cascade, site);
  lastNames.set(cascade, { site, names });
  return names;
}

/** A proof asks for those of one page several times. */
const lastNames = new WeakMap<PageCascade, { readonly site: Site; readonly names: ReadonlySet<string> | undefined }>();

function findNames({ tree, rules, path }: PageCascade, site: Site): ReadonlySet<string> | undefined {
  const scripts = pageScripts(tree, path, rules.sources, site);
  if (!scripts.some(({ facts }) => facts.makes)) return undefined;
  const names = new Set<string>();
  for (const { facts } of scripts) for (const word of facts.words) names.add(lowered(word));
  for (const { tag, id, classes } of tree.elements) {
    names.add(lowered(tag));
    if (id !== undefined) names.add(lowered(id));
    for (const name of classes) names.add(lowered(name));
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
