import type { IndexedSelector, MatchedSelector } from '../../cascade/indexedSelector.ts';
import type { CompiledBlock, CompiledDeclaration } from '../../cascade/compiledRule.ts';
import { Interner } from '../../cascade/interner.ts';
import { attributeRank, differingSlots, slotKeys } from '../../cascade/stack.ts';
import type { CascadeSession, PageCascade } from '../../cascade/pageCascade.ts';
import { attributeOf, spansOf, type AttributeSpans, type ElementNode } from '../../page/nodes.ts';
import { elementPath, parseFile } from '../../page/parsePage.ts';
import { baseAt } from '../../page/styleSources.ts';
import { comingRules } from '../../proof/comingRules.ts';
import { namesMade } from '../../proof/madeElements.ts';
import { compareSpecificity, type Specificity } from '../../selectors/selector.ts';
import type { Site, SiteFile } from '../../source/site.ts';
import { serverCode } from '../../scripts/serverCode.ts';
import { isTemplated } from '../../source/templates.ts';
import { noticed } from '../../scripts/noticed.ts';
import { pageScripts, type PageScript } from '../../scripts/pageScripts.ts';
import { readingOf } from '../../survey/pageReading.ts';
import { skeletonOf } from '../../survey/skeleton.ts';
import { orderFreeKey } from '../../survey/versionKey.ts';
import type { AttributeStays } from './attributeStays.ts';
import { closingText } from './printRule.ts';

/** An element with a style attribute, and what a class in its place has to cope with. */
export interface StyledElement {
  readonly tag: string;
  readonly id: string | undefined;
  /** Its path in the page. */
  readonly path: string;
  /** Its number among the elements of the page. */
  readonly index: number;
  readonly value: string;
  /** Equal for attributes that say the same. */
  readonly key: string;
  /** Of its `style` and `class`. */
  readonly spans: AttributeSpans;
  /** The strongest rule that says something else of the same longhands. */
  readonly strongest: Specificity;
  /** The last source of the page that has such a rule, by its number; -1 when none has. */
  readonly lastRival: number;
  readonly stays: AttributeStays | undefined;
  /** Rules say the same already: without it nothing else would decide. */
  readonly repeats: boolean;
}

const known = new WeakMap<SiteFile, { readonly around: string; readonly elements: readonly StyledElement[] }>();

/**
 * The page's elements with style attributes; kept as long as the file is and nothing around it changes.
 * `onRead`: told when the page had to be read, in the session given.
 */
export function styledElements(
  site: Site,
  file: SiteFile,
  session: CascadeSession,
  onRead?: (file: SiteFile, cascade: PageCascade) => void,
): readonly StyledElement[] {
  const around = surroundingsOf(site);
  const before = known.get(file);
  if (before?.around === around) return before.elements;
  const tree = parseFile(file);
  readingOf(file, tree);
  skeletonOf(file, tree);
  const cascade = session.openTree(site, file, tree);
  const elements = read(site, cascade, session);
  known.set(file, { around, elements });
  onRead?.(file, cascade);
  return elements;
}

const surroundings = new WeakMap<Site, string>();

/** Equal for sites whose files but pages are the same: sheets that may beat a class, scripts that may set a style. */
function surroundingsOf(site: Site): string {
  let text = surroundings.get(site);
  if (text === undefined) {
    text = [...site.files.values()]
      .filter((file) => file.kind !== 'page')
      .map(({ path, hash }) => `${path} ${hash}`)
      .concat([...(site.absent ?? [])])
      .sort()
      .join('\n');
    surroundings.set(site, text);
  }
  return text;
}

function read(site: Site, cascade: PageCascade, session: CascadeSession): readonly StyledElement[] {
  const { tree, rules } = cascade;
  const styled = tree.elements.filter((element) => attributeOf(element, 'style') !== undefined);
  if (styled.length === 0) return [];
  const scripts = pageScripts(tree, cascade.path, rules.sources, site);
  const sheetsMayCome = (serverCode(tree)?.sheets ?? []).length > 0;
  const ids = new Set(tree.elements.flatMap(({ id }) => id ?? []));
  const coming = comingRivals(cascade, site);
  const repeating = new Map<number, boolean>();
  const rivals = new Map<string, Rivals>();
  return styled.map((element) => {
    const value = attributeOf(element, 'style')!;
    const block = session.sheets.styleAttribute(value, baseAt(rules.sources, element));
    const { declarations } = block;
    return {
      tag: element.tag,
      id: element.id,
      path: oneText(elementPath(element)),
      index: element.index,
      value,
      // what every browser drops says nothing
      key: orderFreeKey(declarations.filter(({ longhands }) => longhands.length > 0)),
      spans: spansOf(element, ['style', 'class']),
      ...rivalsAlike(rivals, block, cascade.matchedAlike(element), element.tag, coming),
      // no rule of a sheet that a server writes into the page beats it, save an important one
      stays: sheetsMayCome ? 'server' : staysFor(element, value, declarations, scripts, ids),
      repeats: coming(element.tag, declarations).length === 0 && repeatsRules(cascade, element, repeating),
    };
  });
}

/** Pages of one layout share most of their paths. Written out, those of a deep tree would be too long. */
let paths = new Interner();
const mostPaths = 100_000;
const longestPath = 1000;

function oneText(path: string): string {
  if (path.length > longestPath) return path;
  if (paths.size >= mostPaths) paths = new Interner();
  return paths.text(paths.number(path));
}

/** By the number of its match list: whether the stacks of declarations are the same without the attribute. */
function repeatsRules(cascade: PageCascade, element: ElementNode, known: Map<number, boolean>): boolean {
  const list = cascade.listOf(element);
  let repeats = known.get(list);
  if (repeats === undefined) {
    const sources = cascade.session.sourcesOf(list);
    const rules = sources.filter(({ layerRank }) => layerRank !== attributeRank);
    repeats = rules.length > 0 && differingSlots(slotKeys(sources), slotKeys(rules)).length === 0;
    known.set(list, repeats);
  }
  return repeats;
}

function staysFor(
  element: ElementNode,
  value: string,
  compiled: readonly CompiledDeclaration[],
  scripts: readonly PageScript[],
  ids: ReadonlySet<string>,
): AttributeStays | undefined {
  if (element.styleIgnored) return 'policy';
  if (!element.attributeSpans?.['style'] || !/^(html|svg)$/.test(element.namespace)) return 'not-written';
  // a drawing's style attributes are read as in quirks mode, the rules of a sheet are not
  if (element.namespace === 'svg' && compiled.some((c) => c.validity !== 'valid')) return 'drawing';
  if (isTemplated(value)) return 'template';
  if (closingText(value) !== '' || /[{}]/.test(value)) return 'unclosed';
  const change = {
    element,
    class: true,
    properties: compiled.map((c) => c.declaration.property),
    attributes: [],
    markup: [` style="${value}"`],
  };
  return scripts.some((script) => script.facts.unreadable || noticed(change, script, ids)) ? 'script' : undefined;
}

type Coming = (tag: string, compiled: readonly CompiledDeclaration[]) => readonly IndexedSelector[];

/** Rules that scripts may bring to an element, by giving it or what is around it a name: nothing beats a style attribute then. */
function comingRivals(cascade: PageCascade, site: Site): Coming {
  const names = namesMade(cascade, site);
  if (!names) return () => [];
  const found = new Map<string, readonly IndexedSelector[]>();
  return (tag, compiled) => {
    const longhands = new Set(compiled.filter((c) => !c.declaration.important).flatMap((c) => c.longhands));
    const key = `${tag} ${[...longhands].sort().join()}`;
    let rules = found.get(key);
    if (!rules) found.set(key, (rules = comingRules(cascade, tag, longhands, names)));
    return rules;
  };
}

type Rivals = Pick<StyledElement, 'strongest' | 'lastRival'>;

/** The same for elements of one type, with equal attributes, that the same rules reach. */
function rivalsAlike(
  known: Map<string, Rivals>,
  { key: says, declarations: compiled }: CompiledBlock,
  matched: readonly MatchedSelector[],
  tag: string,
  coming: Coming,
): Rivals {
  const key = `${matched.map(({ indexed }) => indexed.position).join()} ${tag} ${says}`;
  let rivals = known.get(key);
  if (!rivals) known.set(key, (rivals = rivalsOf(matched, compiled, coming(tag, compiled))));
  return rivals;
}

/** Every rule that says something of the same longhands with the same importance, or may come to. */
function rivalsOf(
  matched: readonly MatchedSelector[],
  compiled: readonly CompiledDeclaration[],
  coming: readonly IndexedSelector[],
): Rivals {
  let strongest: Specificity = [0, 0, 0];
  let lastRival = -1;
  for (const indexed of new Set([...matched.map((one) => one.indexed), ...coming])) {
    if (indexed.pseudoElement !== '') continue;
    const rival = indexed.rule.compiled.block.declarations.some((theirs) =>
      compiled.some((ours) => mayBeat(theirs, ours)),
    );
    if (!rival) continue;
    const { specificity } = indexed.selector;
    if (compareSpecificity(specificity, strongest) > 0) strongest = specificity;
    lastRival = Math.max(lastRival, indexed.rule.source.sourceIndex);
  }
  return { strongest, lastRival };
}

const mayBeat = (theirs: CompiledDeclaration, ours: CompiledDeclaration): boolean =>
  ours.declaration.important === theirs.declaration.important &&
  (setsAll(ours) ||
    setsAll(theirs) ||
    (ours.comparable !== theirs.comparable && ours.longhands.some((name) => theirs.longhands.includes(name))));

const setsAll = ({ declaration }: CompiledDeclaration): boolean => declaration.property === 'all';
