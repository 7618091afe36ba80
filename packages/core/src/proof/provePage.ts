import { lowered } from '../source/asciiCase.ts';
import { trimmed } from '../source/space.ts';
import { mayReadMarkup } from '../cascade/compileBlock.ts';
import { attributeOf, type ElementNode } from '../page/nodes.ts';
import { elementName, parentElement, type PageTree } from '../page/parsePage.ts';
import { idNumbers, idsAddressed, idsInAttributes } from '../page/idNames.ts';
import { hasScripts } from '../scripts/pageScripts.ts';
import { unescapeCss } from '../values/unescape.ts';
import { readDifferently } from '../page/readDifferently.ts';
import { scriptDoubts, type ScriptDoubt } from './scriptDoubts.ts';
import { serverDoubts } from './serverDoubts.ts';
import { placeOf } from '../source/span.ts';
import { compareDefinitions } from './compareDefinitions.ts';
import { addCause, compareStacks, refOf } from './compareStacks.ts';
import type { PageState } from './explainDifference.ts';
import {
  isShadowTemplate,
  pairElements,
  templateText,
  type ElementPair,
  type MarkupDifference,
} from './pairElements.ts';
import { compareShownSources } from './shownSources.ts';
import type { Cause, ElementRef, PageProof } from './proof.ts';

/**
 * Compares two states of one page, element by element. `same` is said only when every stack of declarations is equal for
 * every element, pseudo-element and longhand, and the page, its definitions and its unread sheets are too. `sameStacks`: the looks of
 * the two told already that the stacks are, and they are not compared once more.
 */
export function provePage(
  before: PageState,
  after: PageState,
  { sameStacks = false }: { readonly sameStacks?: boolean } = {},
): PageProof {
  const left = before.cascade;
  const right = after.cascade;
  const path = left.path;
  const elements = left.tree.elements.length;
  if (left.session === right.session && left.tree.text === right.tree.text && left.rules.key === right.rules.key)
    return { path, verdict: 'same', elements, differingElements: 0, causes: [], notes: [], doubts: [] };
  const { pairs, differences, spacing, hintsMoved, templates } = pairElements(left.tree, right.tree);
  const notes = differences.map((d) => describeMarkupDifference(d, left.tree.text));
  notes.push(...compareUnread(before, after), ...compareShownSources(before, after));
  notes.push(...compareDefinitions(left.rules, right.rules, (name) => saysName(before, name) || saysName(after, name)));
  const kept = spacing.find((pair) => keepsSpace(before, pair.before) || keepsSpace(after, pair.after));
  if (kept) notes.push(`The white space in ${elementName(kept.before)} is not the same, and it may be kept there.`);
  const isCompared = sameStacks && !hintsMoved;
  const { causes, differing } = isCompared ? noCauses : compareStacks(before, after, pairs, hintsMoved);
  const read = readMarkupDiffers(before, after, pairs);
  const doubts = [
    ...scriptDoubts(before, after, pairs),
    ...serverDoubts(left, right, pairs),
    ...templateDoubts(left.tree, templates),
    ...hostDoubts(left.tree, pairs),
    ...parserDoubts(left.tree),
    ...nameDoubts(before, after, pairs),
    ...definitionDoubts(before, after, pairs),
  ].map(({ sentence, elements: about }) => ({ sentence, elements: about.map((one) => refOf(one, left.tree.text)) }));
  const differs = causes.length > 0 || notes.length > 0 || read.length > 0;
  const verdict = differs ? 'differs' : doubts.length > 0 ? 'unsure' : 'same';
  return {
    path,
    verdict,
    elements,
    differingElements: differing + read.length,
    causes: [...causes, ...read],
    notes,
    doubts,
  };
}

const noCauses = { causes: [], differing: 0 } as const;

/** Elements whose values are made of attributes, or of places among siblings, that are not the same. */
function readMarkupDiffers(before: PageState, after: PageState, pairs: readonly ElementPair[]): readonly Cause[] {
  if (!before.cascade.rules.readsMarkup && !after.cascade.rules.readsMarkup) return [];
  const causes = new Map<string, Cause & { elements: ElementRef[] }>();
  for (const pair of pairs) {
    const { before: one } = pair;
    const { moved, names } = markupChange(pair);
    if (!moved && names.length === 0) continue;
    for (const { block } of before.cascade.session.sourcesOf(before.cascade.listOf(one)))
      for (const { declaration } of block.declarations) {
        const what = whatItReads(declaration.value, names, moved);
        if (what === undefined) continue;
        const reason = `${declaration.property}: ${declaration.value} reads ${what}, and that is not the same.`;
        const key = `reads ${reason}`;
        addCause(
          causes,
          { key, pseudoElement: '', property: declaration.property, before: undefined, after: undefined, reason },
          one,
          before,
        );
      }
  }
  return [...causes.values()];
}

/** Of a pair: whether it stands at another place among its siblings, and which attributes are not the same. */
function markupChange({ before: one, after: two }: ElementPair): { moved: boolean; names: readonly string[] } {
  const moved = one.siblingIndex !== two.siblingIndex || one.siblings.length !== two.siblings.length;
  const all = [...one.attributes, ...two.attributes].map(({ name }) => name);
  return { moved, names: all.filter((name) => attributeOf(one, name) !== attributeOf(two, name)) };
}

/**
 * Elements that a definition may read: `attr()` in frames of an animation or in a function is about the element that uses it. CSS
 * Functions and Mixins, "Evaluating Custom Functions".
 */
function definitionDoubts(before: PageState, after: PageState, pairs: readonly ElementPair[]): readonly ScriptDoubt[] {
  const reading = [before, after]
    .flatMap(({ cascade }) => cascade.rules.definitions.map(({ compiled }) => compiled))
    .filter(({ key }) => mayReadMarkup(key));
  if (reading.length === 0) return [];
  const out = new Map<string, Set<ElementNode>>();
  for (const pair of pairs) {
    const { moved, names } = markupChange(pair);
    for (const { name, subject, key } of moved || names.length > 0 ? reading : []) {
      const what = whatItReads(key, names, moved);
      if (what === undefined) continue;
      const sentence = `@${name} ${subject} reads ${what}, and that is not the same for some elements, which may use it.`;
      const elements = out.get(sentence);
      if (elements) elements.add(pair.before);
      else out.set(sentence, new Set([pair.before]));
    }
  }
  return [...out].map(([sentence, elements]) => ({ sentence, elements: [...elements] }));
}

/** CSS Values and Units 5, "Attribute References: the attr() function", "Tree-Counting Functions". */
function whatItReads(value: string, names: readonly string[], moved: boolean): string | undefined {
  if (!mayReadMarkup(value)) return undefined;
  const plain = lowered(unescapeCss(value));
  if (moved && /sibling-(index|count)\(/.test(plain)) return "the element's place among its siblings";
  const read = names.find((name) =>
    new RegExp(`attr\\([\\t\\n\\f\\r ]*([\\w-]*\\|)?${name.replace(/[^\w-]/g, '\\$&')}(?![\\w-])`).test(plain),
  );
  return read === undefined ? undefined : `the attribute ${read}`;
}

/** Contents of a template that a script may put into the page. */
function templateDoubts(tree: PageTree, templates: readonly ElementPair[]): readonly ScriptDoubt[] {
  if (templates.length === 0 || !hasScripts(tree)) return [];
  return [
    {
      sentence: 'What a template holds is not the same, and a script may put it into the page.',
      elements: templates.map(({ before }) => before),
    },
  ];
}

/** Elements whose shadow tree asks for their class, their style or their other attributes, or for those of what is around or in them. */
function hostDoubts(tree: PageTree, pairs: readonly ElementPair[]): readonly ScriptDoubt[] {
  const asks = tree.elements.some(
    (element) => isShadowTemplate(element) && /:host|::slotted|<script/i.test(templateText(element, tree.text)),
  );
  if (!asks) return [];
  const changed = pairs.filter(({ before, after }) =>
    ['class', 'id', 'style', 'align', 'bgcolor', 'width'].some(
      (name) => attributeOf(before, name) !== attributeOf(after, name),
    ),
  );
  if (changed.length === 0) return [];
  return [
    {
      sentence:
        'A shadow tree of the page has rules for what is around it, and may notice a class or style attribute that is not the same.',
      elements: changed.map(({ before }) => before),
    },
  ];
}

/** What else may ask for an ID that has another name now: the fragment of an old address, and values that refer to a part of the page. */
function nameDoubts(before: PageState, after: PageState, pairs: readonly ElementPair[]): readonly ScriptDoubt[] {
  const renamed = pairs.filter((pair) => pair.before.id !== pair.after.id).map((pair) => pair.before);
  if (renamed.length === 0) return [];
  const out: ScriptDoubt[] = [];
  const { rules } = after.cascade.rules;
  if (rules.some(({ compiled }) => /:target/i.test(compiled.rule.selector)))
    out.push({
      sentence: 'Rules ask for :target, and IDs have other names: who comes by an old address sees another look.',
      elements: renamed,
    });
  const [old, now] = [idNumbers(before.cascade.tree.elements), idNumbers(after.cascade.tree.elements)];
  const values = [
    ...rules.flatMap(({ compiled }) => compiled.block.declarations.map(({ declaration }) => declaration.value)),
    ...after.cascade.tree.elements.flatMap((element) => attributeOf(element, 'style') ?? []),
  ];
  // what was put right refers to a name that is new
  const kept = pairs.flatMap(({ before: one, after: two }) => {
    const asked = new Set(idsInAttributes(one));
    return idsInAttributes(two).filter((id) => asked.has(id));
  });
  const lost = [...values.flatMap(idsAddressed), ...kept].find((id) => old.get(id) !== now.get(id));
  if (lost !== undefined)
    out.push({ sentence: `A value refers to #${lost} in the page, which is not what it was.`, elements: renamed });
  return out;
}

/** Where browsers of today and yesterday read other elements. */
const parserDoubts = (tree: PageTree): readonly ScriptDoubt[] =>
  readDifferently(tree).map((element) => ({
    sentence: `Browsers do not agree on what stands in ${elementName(element)}: older ones leave elements other than options out.`,
    elements: [element],
  }));

function compareUnread(before: PageState, after: PageState): readonly string[] {
  const old = before.cascade.rules.unread.map((sheet) => sheet.key);
  const now = after.cascade.rules.unread.map((sheet) => sheet.key);
  if (old.join('\n') === now.join('\n')) return [];
  const gone = old.find((key) => !now.includes(key));
  if (gone !== undefined)
    return [`The page asked for a sheet that cannot be read here (${trimmed(gone)}) and does not any more.`];
  const come = now.find((key) => !old.includes(key));
  if (come !== undefined)
    return [`The page asks for a sheet that cannot be read here (${trimmed(come)}) and did not before.`];
  return ['Sheets that cannot be read here are asked for in another order.'];
}

/** Whether anything on the page may say a name: a rule, an attribute of any kind, a script; escapes are read. */
function saysName({ cascade }: PageState, name: string): boolean {
  const wanted = lowered(name);
  if (wanted === '') return true;
  const says = (text: string): boolean =>
    lowered(text).includes(wanted) || (text.includes('\\') && lowered(unescapeCss(text)).includes(wanted));
  return (
    cascade.rules.rules.some(({ compiled }) => says(compiled.block.key)) ||
    cascade.rules.definitions.some(({ compiled }) => lowered(compiled.subject) !== wanted && says(compiled.key)) ||
    cascade.tree.elements.some(
      (e) =>
        e.tag === 'script' ||
        e.attributes.some(({ value }) => says(value)) ||
        // names of the page are known in its shadow trees
        (isShadowTemplate(e) && says(templateText(e, cascade.tree.text))),
    )
  );
}

const keepingTags = /^(pre|textarea|listing|xmp|plaintext)$/;

function keepsSpace(state: PageState, element: ElementNode): boolean {
  for (let at: ElementNode | undefined = element; at; at = parentElement(at)) {
    if (keepingTags.test(at.tag) || (element.tag === 'script' && at === element)) return true;
    if (
      attributeOf(at, 'contenteditable') !== undefined ||
      at.attributes.some(({ name, prefix }) => name === 'space' && prefix === 'xml')
    )
      return true;
    const slots = state.cascade.session.slotsOfList(state.cascade.listOf(at));
    for (const [slot, stack] of slots)
      if (/ (white-space|white-space-collapse|all)$/.test(slot) && /pre|break-spaces|var\(|revert/.test(stack))
        return true;
  }
  return false;
}

export function describeMarkupDifference(difference: MarkupDifference, text: string): string {
  switch (difference.kind) {
    case 'element-differs':
      return `The markup itself changed: ${difference.before} became ${difference.after}${difference.parent ? ` in ${elementName(difference.parent)}` : ''}.`;
    case 'attribute-differs':
      return `The attribute ${difference.name} of ${elementName(difference.element)} (line ${placeOf(text, Math.max(difference.element.start, 0)).line}) changed.`;
    case 'text-differs':
      return `The text in ${elementName(difference.element)} (line ${placeOf(text, Math.max(difference.element.start, 0)).line}) changed.`;
    case 'shadow-differs':
      return `The shadow tree of ${elementName(difference.element)} (line ${placeOf(text, Math.max(difference.element.start, 0)).line}) changed.`;
    case 'text-joined':
      return `Text in ${elementName(difference.element)} (line ${placeOf(text, Math.max(difference.element.start, 0)).line}) is parted by a block or link on one side only.`;
    case 'emptied':
      return `${elementName(difference.element)} (line ${placeOf(text, Math.max(difference.element.start, 0)).line}) holds a block or link and nothing else on one side, and nothing on the other: it may show something else then.`;
    case 'mode-differs':
      return `The page is read in ${difference.after} mode now; it was in ${difference.before} mode.`;
  }
}
