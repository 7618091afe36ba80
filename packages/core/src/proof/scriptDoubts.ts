import type { IndexedSelector } from '../cascade/indexedSelector.ts';
import { longhandsOf } from '../values/longhands.ts';
import { parseDeclarations } from '../sheet/parseSheet.ts';
import { attributeOf, type ElementNode } from '../page/nodes.ts';
import { elementName, type PageTree } from '../page/parsePage.ts';
import { noticed, type ElementChange } from '../scripts/noticed.ts';
import { pageScripts, type PageScript } from '../scripts/pageScripts.ts';
import type { Touch } from '../scripts/scriptFacts.ts';
import { comingRules } from './comingRules.ts';
import { madeAlike, namesMade, rulesFor, type MadeRule } from './madeElements.ts';
import type { PageState } from './explainDifference.ts';
import { isStyleSource, type ElementPair } from './pairElements.ts';
import { writtenSources } from './shownSources.ts';

/** Something a script may notice of a change. */
export interface ScriptDoubt {
  readonly sentence: string;
  readonly elements: readonly ElementNode[];
}

/**
 * What scripts may set or read of what is not the same: classes, style attributes, links and blocks, and the rules for elements
 * they make. Scripts are not run; what they could depend on is told from their text.
 */
export function scriptDoubts(
  before: PageState,
  after: PageState,
  pairs: readonly ElementPair[],
): readonly ScriptDoubt[] {
  const { tree, rules, path } = before.cascade;
  const scripts = pageScripts(tree, path, rules.sources, before.site);
  if (scripts.length === 0) return [];
  const ids = new Set(tree.elements.flatMap(({ id }) => id ?? []));
  const out = new Map<string, ElementNode[]>();
  const add = (sentence: string, pair: ElementPair): void => {
    const list = out.get(sentence);
    if (list) list.push(pair.before);
    else out.set(sentence, [pair.before]);
  };
  const changed = pairs.filter(
    ({ before: one, after: two }) =>
      one.tag !== two.tag ||
      one.attributes.some(({ name, value }) => attributeOf(two, name) !== value) ||
      two.attributes.some(({ name, value }) => attributeOf(one, name) !== value),
  );
  for (const pair of changed)
    for (const script of scripts) {
      const named = pair.before.tag !== pair.after.tag && script.facts.words.has(pair.before.tag);
      if (named)
        add(`${whereOf(script, 1)}: a script names ${pair.before.tag} elements, and some are others now.`, pair);
      if (namesId(script, pair))
        add(`${whereOf(script, 1)}: a script may look for the ID ${pair.before.id!}, which is another now.`, pair);
      const found = noticed(changeOf(pair), script, ids);
      if (!found && !script.facts.unreadable) continue;
      const sentence = script.facts.unreadable
        ? `${whereOf(script, 1)}: this script cannot be read, and may depend on what changed.`
        : sentenceFor(found!, script);
      add(sentence, pair);
    }
  const doubts = [...out].map(([sentence, elements]) => ({ sentence, elements }));
  return [
    ...doubts,
    ...givenDoubts(before, after, changed),
    ...sourceDoubts(before, after, scripts),
    ...madeDoubts(before, after, scripts),
  ];
}

/** A script may put the name of an ID together from parts. */
function namesId({ facts }: PageScript, { before, after }: ElementPair): boolean {
  const { id } = before;
  if (id === undefined || id === after.id) return false;
  return [...facts.words].some((word) =>
    // one letter is the start of many names: with a number behind it, or as the whole, it is one
    word.length > 1 ? id.startsWith(word) || id.endsWith(word) : id.startsWith(word) && /^\d*$/.test(id.slice(1)),
  );
}

/**
 * Elements whose style attribute went, where a script may give them or what is around them a name for which a rule would now beat what
 * decides in its stead: nothing beat the attribute.
 */
function givenDoubts(before: PageState, after: PageState, changed: readonly ElementPair[]): readonly ScriptDoubt[] {
  const names = namesMade(before.cascade, before.site);
  const gone = changed.filter(
    ({ before: one, after: two }) =>
      attributeOf(one, 'style') !== undefined && attributeOf(one, 'style') !== attributeOf(two, 'style'),
  );
  if (!names || gone.length === 0) return [];
  const elements = gone.filter((pair) => mayBeBeaten(after, pair, names)).map((pair) => pair.before);
  const sentence =
    'A script may give elements a class whose rule would beat what their style attribute said; nothing beat it there.';
  return elements.length === 0 ? [] : [{ sentence, elements }];
}

function mayBeBeaten({ cascade }: PageState, { before, after }: ElementPair, names: ReadonlySet<string>): boolean {
  const said = parseDeclarations(attributeOf(before, 'style') ?? '');
  const matched = new Set(cascade.matchedAlike(after).map(({ indexed }) => indexed));
  return said
    .filter(({ important }) => !important)
    .flatMap(({ property }) => longhandsOf(property))
    .some((longhand) => {
      const own = new Set([longhand]);
      const sets = (one: IndexedSelector): boolean =>
        one.pseudoElement === '' && one.rule.compiled.block.declarations.some((c) => c.longhands.includes(longhand));
      const decider = Math.max(-1, ...[...matched].filter(sets).map(({ position }) => position));
      return comingRules(cascade, after.tag, own, names).some((one) => one.position > decider && !matched.has(one));
    });
}

/** What of a pair is not the same. */
function changeOf({ before: one, after: two }: ElementPair): ElementChange {
  const styles = [one, two].map((element) => attributeOf(element, 'style') ?? '');
  const properties =
    styles[0] === styles[1] ? [] : styles.flatMap((text) => parseDeclarations(text).map((d) => d.property));
  const attributes = one.attributes
    .map(({ name }) => name)
    .filter((name) => !/^(class|style)$/.test(name) && attributeOf(two, name) === undefined);
  const classes = [one, two].map((element) => attributeOf(element, 'class'));
  const markup = ['class', 'style'].flatMap((name) => {
    const texts = [one, two].map((element) => attributeOf(element, name));
    return texts[0] === texts[1] ? [] : texts.flatMap((text) => (text === undefined ? [] : ` ${name}="${text}"`));
  });
  return {
    element: one,
    class: classes[0] !== classes[1],
    classes: [classes[0] ?? '', classes[1] ?? ''],
    properties,
    attributes,
    markup,
  };
}

const whereOf = ({ path, line }: PageScript, at: number): string => `${path}, line ${line + at - 1}`;

function sentenceFor(touch: Touch, script: PageScript): string {
  const where = whereOf(script, touch.line);
  switch (touch.what.kind) {
    case 'class-asked':
      return `${where}: a script asks for something in the class of elements, and finds another thing there now.`;
    case 'markup-asked':
      return `${where}: a script asks for something in the markup of elements, and finds another thing there now.`;
    case 'class':
      return `${where}: a script sets or compares the class of elements, and may lose or miss what is new in it.`;
    case 'style':
      return touch.what.property === undefined
        ? `${where}: a script may set or read any style of elements.`
        : `${where}: a script sets or reads the style ${touch.what.property} of elements.`;
    case 'attribute':
      return `${where}: a script sets or reads ${touch.what.name === undefined ? 'attributes' : `the attribute ${touch.what.name}`} of elements.`;
    case 'places':
      return `${where}: a script goes from element to element by their place, and a link or block among them is not the same.`;
    case 'sheets':
      return `${where}: a script deals with the sheets, blocks or links of the page, and these are not the same.`;
  }
}

/** Links and blocks that came, went or changed, where a script deals with any, or has their ID, or listens to them. */
function sourceDoubts(before: PageState, after: PageState, scripts: readonly PageScript[]): readonly ScriptDoubt[] {
  const [old, now] = [before.cascade, after.cascade];
  if (writtenSources(old) === writtenSources(now)) return [];
  const kept = new Map<string, number>();
  for (const one of now.tree.elements.filter(isStyleSource))
    kept.set(writtenOf(one, now.tree.text), (kept.get(writtenOf(one, now.tree.text)) ?? 0) + 1);
  const gone = old.tree.elements.filter(isStyleSource).filter((one) => {
    const left = kept.get(writtenOf(one, old.tree.text)) ?? 0;
    kept.set(writtenOf(one, old.tree.text), left - 1);
    return left <= 0;
  });
  const out: ScriptDoubt[] = [];
  const moved = placesOfSources(old.tree) !== placesOfSources(now.tree);
  const waiting = waitingLink(old.tree, scripts);
  if (waiting)
    out.push({
      sentence: `A script may make a sheet of ${elementName(waiting)}, and the links or blocks around it are not the same.`,
      elements: [],
    });
  for (const script of scripts) {
    const { facts, of } = script;
    const dealing = facts.touches.find(({ what }) => what.kind === 'sheets');
    if (facts.unreadable)
      out.push({
        sentence: `${whereOf(script, 1)}: this script cannot be read, and may depend on what changed.`,
        elements: [],
      });
    else if (dealing) out.push({ sentence: sentenceFor(dealing, script), elements: [] });
    const going = facts.touches.find(({ what }) => what.kind === 'places');
    if (going && moved) out.push({ sentence: sentenceFor(going, script), elements: [] });
    const named = gone.find(
      (one) => (one.id !== undefined && facts.words.has(one.id)) || (of !== undefined && of === one),
    );
    if (named)
      out.push({
        sentence: `${whereOf(script, 1)}: a script has to do with ${elementName(named)}, which is not there any more.`,
        elements: [],
      });
  }
  return out;
}

/** The first link that gives the page no rules until a script makes a sheet of it, where one says what it takes to do so. */
function waitingLink({ elements }: PageTree, scripts: readonly PageScript[]): ElementNode | undefined {
  const says = (word: string): boolean => scripts.some(({ facts }) => facts.words.has(word));
  return elements.find((one) => {
    if (one.tag !== 'link' || one.namespace !== 'html') return false;
    const handled = scripts.some(({ of }) => of === one);
    if (!isStyleSource(one)) {
      const isSheet = /[.]css|^style$/i.test(`${attributeOf(one, 'href') ?? ''} ${attributeOf(one, 'as') ?? ''}`);
      return isSheet && (handled || says('rel') || says('relList') || (one.id !== undefined && says(one.id)));
    }
    return (
      (attributeOf(one, 'disabled') !== undefined && says('disabled')) ||
      (attributeOf(one, 'href') === undefined && says('href')) ||
      (/^(?!text\/css)[^;\s]/i.test(attributeOf(one, 'type') ?? '') && says('type'))
    );
  });
}

/** Where outside the head links and blocks stand among elements, however they are written. */
const placesOfSources = ({ elements }: PageTree): string =>
  elements
    .flatMap((one) =>
      isStyleSource(one) && one.parent?.type === 'element' && one.parent.tag !== 'head'
        ? [`${one.parent.tag} ${one.siblingIndex}`]
        : [],
    )
    .join(' ');

const writtenOf = ({ start, end }: ElementNode, text: string): string => text.slice(Math.max(start, 0), end);

function madeDoubts(before: PageState, after: PageState, scripts: readonly PageScript[]): readonly ScriptDoubt[] {
  // a class that came in is on no element a script makes
  const names = namesMade(before.cascade, before.site);
  if (!names || madeAlike(before.cascade, after.cascade, names)) return [];
  const [old, now] = [before, after].map(({ cascade }) => rulesFor(cascade, names).rules.map(keyOfRule));
  const came = now!.find((rule) => !old!.includes(rule)) ?? old!.find((rule) => !now!.includes(rule));
  const which =
    came === undefined ? 'stand in another order' : `are not the same (${came.slice(0, came.indexOf('\n'))})`;
  const maker = scripts.find(({ facts }) => facts.makes)!;
  const makes = maker.served
    ? 'a server writes something here'
    : 'a script makes elements, or gives them a class or an ID';
  return [
    {
      sentence: `${whereOf(maker, 1)}: ${makes}, and the rules that may reach ${maker.served ? 'it' : 'those'} ${which}.`,
      elements: [],
    },
  ];
}

const keyOfRule = ({ text, one: { rule } }: MadeRule): string =>
  `${text}\n${rule.compiled.block.key} ${rule.conditionKey}`;
