import type { MatchedSelector } from '../cascade/indexedSelector.ts';
import { compareStrength } from '../cascade/ruleIndex.ts';
import { baseAt } from '../page/styleSources.ts';
import { styleAttributeOf } from '../cascade/matchElement.ts';
import type { CompiledDeclaration } from '../cascade/compiledRule.ts';
import type { ElementNode } from '../page/nodes.ts';
import type { Check, CheckContext, CheckedPage, CheckMaker } from './check.ts';
import { FindingGroup, FindingGroups } from './findingGroup.ts';
import type { FoundFinding } from './finding.ts';
import { isBaseline, namesElementsOnly } from './isBaseline.ts';
import { code, count, namesInWords, pagesInWords, verb } from './words.ts';

interface Told {
  /** The page's own rule, or `style="…"`. */
  readonly local: string;
  /** The shared rules it beats, as `selector in sheet`. */
  readonly beaten: Map<string, string>;
  readonly properties: Set<string>;
  elements: number;
}

/** A rule on so few pages is a leftover; on more it is how the site is made. */
const mostPages = 2;

/**
 * Declarations that stand on one or two pages and beat there what a shared sheet says: the reason why that page is different.
 * A picture of its own is told apart, since a change of the shared rule would take it away.
 */
export const overrides: CheckMaker = { kinds: ['override', 'own-picture'], make: (context) => new Overrides(context) };

class Overrides implements Check {
  private readonly groups = new FindingGroups();
  private readonly told = new Map<FindingGroup, Told>();
  private readonly pictures = new Map<
    string,
    { readonly group: FindingGroup; readonly selector: string; readonly sheet: string }
  >();

  private readonly baselines = new Map<string, boolean>();
  private readonly context: CheckContext;

  constructor(context: CheckContext) {
    this.context = context;
  }

  element(page: CheckedPage, element: ElementNode, matched: readonly MatchedSelector[]): void {
    const shared = matched.filter((m) => this.isShared(m));
    if (shared.length === 0) return;
    for (const local of matched) {
      if (local.indexed.rule.source.kind !== 'embedded') continue;
      const block = local.indexed.rule.compiled.block;
      const rivals = shared.filter((s) => s.indexed.pseudoElement === local.indexed.pseudoElement && meets(local, s));
      const beaten = rivals.filter((s) => this.beats(block.declarations, s, isStronger(local, s)).length > 0);
      for (const rival of rivals) this.picture(page, local, rival);
      if (beaten.length === 0) continue;
      const { selector } = local.indexed.rule.compiled.rule;
      const start = startOnPage(page, local);
      this.tell(
        page,
        `${selector} { ${block.key}`,
        selector,
        start,
        block.declarations,
        beaten,
        isStronger(local, beaten[0]!),
      );
    }
    const attribute = styleAttributeOf(element);
    if (attribute === undefined) return;
    const own = page.cascade.session.sheets.styleAttribute(attribute, baseAt(page.sources, element)).declarations;
    const beaten = shared.filter(
      (s) =>
        s.indexed.pseudoElement === '' && s.indexed.rule.conditionKey === '' && this.beats(own, s, true).length > 0,
    );
    if (beaten.length > 0) this.tell(page, `style on ${page.path}`, 'style="…"', element.start, own, beaten, true);
  }

  /** A rule of a sheet, but not what a baseline takes back from browsers: beating that is what pages are for. */
  private isShared({ indexed }: MatchedSelector): boolean {
    const { source, compiled } = indexed.rule;
    if (source.kind === 'embedded' || compiled.block.declarations.length === 0) return false;
    let baseline = this.baselines.get(source.path);
    if (baseline === undefined)
      this.baselines.set(source.path, (baseline = isBaseline(this.context.sheets.read(source.path)?.sheet)));
    return !baseline || !namesElementsOnly(compiled.rule.selector);
  }

  /** The local declarations that beat one of the shared rule's. */
  private beats(
    local: readonly CompiledDeclaration[],
    shared: MatchedSelector,
    stronger: boolean,
  ): readonly CompiledDeclaration[] {
    return local.filter((a) =>
      shared.indexed.rule.compiled.block.declarations.some((b) => {
        if (a.validity === 'invalid' || b.validity === 'invalid' || a.comparable === b.comparable) return false;
        if (a.declaration.important !== b.declaration.important ? b.declaration.important : !stronger) return false;
        return a.longhands.some((name) => b.longhands.includes(name));
      }),
    );
  }

  private tell(
    page: CheckedPage,
    subject: string,
    local: string,
    start: number,
    own: readonly CompiledDeclaration[],
    beaten: readonly MatchedSelector[],
    stronger: boolean,
  ): void {
    const group = this.groups.about(subject).page(page.path).at(page, start);
    let told = this.told.get(group);
    if (!told) this.told.set(group, (told = { local, beaten: new Map(), properties: new Set(), elements: 0 }));
    told.elements++;
    for (const shared of beaten) {
      const { compiled, source } = shared.indexed.rule;
      told.beaten.set(`${compiled.rule.selector} in ${source.path}`, source.path);
      for (const one of this.beats(own, shared, stronger)) told.properties.add(one.declaration.property);
    }
  }

  /** The same selector with a picture of its own in the page and another, or none, in the sheet. */
  private picture(page: CheckedPage, local: MatchedSelector, shared: MatchedSelector): void {
    const { selector } = local.indexed;
    if (selector.text !== shared.indexed.selector.text) return;
    const [own, theirs] = [pictureOf(local), pictureOf(shared)];
    if (own === undefined || own === '' || theirs === undefined || own === theirs) return;
    const sheet = shared.indexed.rule.source.path;
    const key = `${selector.text} of ${sheet}`;
    let known = this.pictures.get(key);
    if (!known) this.pictures.set(key, (known = { group: new FindingGroup(key), selector: selector.text, sheet }));
    known.group.page(page.path).at(page, startOnPage(page, local));
  }

  merge(page: Overrides): void {
    this.groups.merge(page.groups, (mine, theirs) => this.mergeTold(mine, page.told.get(theirs)!));
    for (const [key, { group, selector, sheet }] of page.pictures) {
      let known = this.pictures.get(key);
      if (!known) this.pictures.set(key, (known = { group: new FindingGroup(key), selector, sheet }));
      known.group.merge(group);
    }
  }

  private mergeTold(group: FindingGroup, theirs: Told): void {
    let told = this.told.get(group);
    if (!told)
      this.told.set(group, (told = { local: theirs.local, beaten: new Map(), properties: new Set(), elements: 0 }));
    for (const [rule, sheet] of theirs.beaten) told.beaten.set(rule, sheet);
    for (const property of theirs.properties) told.properties.add(property);
    told.elements += theirs.elements;
  }

  findings(): readonly FoundFinding[] {
    const pictures = [...this.pictures.values()].map(({ group, selector, sheet }) => {
      const n = group.pages.length;
      const sentence = `${pagesInWords(group.pages)} ${verb(n, 'keep their', 'keeps its')} own picture on ${code(selector)}, against ${code(sheet)}: a change there passes ${verb(n, 'them', 'it')} by, and without ${verb(n, 'their', 'its')} own rule the picture is gone`;
      return group.finding('own-picture', sentence, { look: 'See it' });
    });
    const local = this.groups.all.flatMap((group) => {
      const told = this.told.get(group)!;
      if (group.pages.length > mostPages) return [];
      const rules = [...told.beaten.keys()].map((rule) => rule.replace(/ in .*$/s, ''));
      const sheets = [...new Set(told.beaten.values())];
      const sentence = `${code(told.local)} on ${pagesInWords(group.pages)} wins over ${namesInWords([...new Set(rules)], 2)} in ${namesInWords(sheets, 2)} on ${count(told.elements, 'element')}: ${namesInWords([...told.properties], 3)}`;
      return [group.finding('override', sentence, { look: 'See why' })];
    });
    return [...pictures, ...local];
  }
}

/** Both count at once: under the same conditions, or the shared one always. */
const meets = (local: MatchedSelector, shared: MatchedSelector): boolean =>
  shared.indexed.rule.conditionKey === '' || shared.indexed.rule.conditionKey === local.indexed.rule.conditionKey;

function isStronger(local: MatchedSelector, shared: MatchedSelector): boolean {
  const by = compareStrength(local.indexed, shared.indexed);
  return by > 0 || (by === 0 && local.indexed.order > shared.indexed.order);
}

/** Pages with equal rules share an index, so places are counted from this page's own block. */
function startOnPage(page: CheckedPage, { indexed }: MatchedSelector): number {
  const block = page.sources.sheets[indexed.rule.source.sourceIndex];
  return (block?.kind === 'embedded' ? block.contents.start : 0) + indexed.rule.compiled.rule.span.start;
}

/** The picture a rule gives, by what it points at; '' for none, undefined when it says nothing about pictures. */
function pictureOf(matched: MatchedSelector): string | undefined {
  const all = matched.indexed.rule.compiled.block.declarations;
  const last = all.findLast((d) => d.longhands.includes('background-image') && d.validity === 'valid');
  if (!last) return undefined;
  return /url\(|src\(|image-set\(/i.test(last.declaration.value) ? last.comparable.replace(/^.*?(\burl)/s, '$1') : '';
}
