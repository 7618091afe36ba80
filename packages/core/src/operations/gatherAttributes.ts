import type { CompiledDeclaration } from '../cascade/compiledRule.ts';
import { CascadeSession, type PageCascade } from '../cascade/pageCascade.ts';
import { attributeOf, type ElementNode } from '../page/nodes.ts';
import { elementPath } from '../page/parsePage.ts';
import { linksPlainly } from '../page/styleSources.ts';
import { compareSpecificity, type Specificity } from '../selectors/selector.ts';
import { parseDeclarations, parseSheet } from '../sheet/parseSheet.ts';
import type { ChangeSet, FileEdits } from '../source/changeSet.ts';
import { lineEndOf } from '../source/lineEnds.ts';
import { fail, succeed, type Result } from '../source/result.ts';
import { pagesOf, sheetsOf, type Site, type SiteFile } from '../source/site.ts';
import type { Edit } from '../source/span.ts';
import { insertLink } from '../survey/insertLink.ts';
import { openPage, type OpenPage } from '../survey/openPage.ts';
import { orderFreeKey } from '../survey/versionKey.ts';
import type { AttributeStays } from './attributeStays.ts';
import { isPlainClassName, proposeClassName } from './className.ts';
import { dropAttribute, styleToClass } from './editClass.ts';
import { asciiText, closingText, rebasedText } from './printRule.ts';
import { raisedId, raisedSelector } from './raisedSelector.ts';
import { ruleStyleOf, type RuleStyle } from './ruleStyle.ts';
import { scriptedProperties } from './scriptedProperties.ts';
import { addSelectorClasses } from './takenClassNames.ts';
import { describeSheetPathProblem, parseSheetPath, type SheetPathProblem } from './sheetPath.ts';

/** Style attributes of equal declarations become class rules in a sheet, which the pages then link last. */
export interface GatherAttributes {
  readonly kind: 'gather-attributes';
  readonly sheet: string;
  /** All pages when absent. */
  readonly pages?: readonly string[];
  /** Only these groups, by their key; all when absent. */
  readonly only?: readonly string[];
  /** Names for groups by their key; the others get a proposed one. */
  readonly names?: Readonly<Record<string, string>>;
  /** An element that alone has its group, and an ID, keeps its markup: the rule asks for the ID. */
  readonly ids?: boolean;
  /** Groups left as they are: everywhere, or on one page. */
  readonly except?: readonly { readonly key: string; readonly page?: string }[];
}

export type AttributesProblem =
  | { readonly kind: 'attributes-sheet-path'; readonly path: SheetPathProblem }
  | { readonly kind: 'class-name'; readonly name: string }
  | { readonly kind: 'class-taken'; readonly name: string }
  | { readonly kind: 'no-attributes'; readonly left: AttributesPlan['left'] };

/** Style attributes that say the same, and the class that takes their place. */
export interface AttributeGroup {
  readonly key: string;
  readonly name: string;
  readonly selector: string;
  /** Types of the elements that carry it: `p`, `td`. */
  readonly tags: readonly string[];
  readonly declarations: readonly { readonly property: string; readonly value: string; readonly important: boolean }[];
  readonly elements: number;
  readonly pages: readonly string[];
}

export interface AttributesPlan {
  readonly changes: ChangeSet;
  readonly sheet: string;
  readonly groups: readonly AttributeGroup[];
  /** Each element that gets a class, by its path in the page. */
  readonly places: readonly { readonly page: string; readonly key: string; readonly element: string }[];
  /** Each element whose attribute stays, by its path in the page. */
  readonly left: readonly { readonly page: string; readonly element: string; readonly reason: AttributeStays }[];
}

/** What is kept of a page: trees of a whole site would not fit. */
interface FoundPage {
  readonly file: SiteFile;
  /** The edit that links the sheet; undefined when the page links it already. */
  readonly link: Edit | undefined;
}

interface Found {
  readonly page: FoundPage;
  readonly tag: string;
  readonly id: string | undefined;
  /** Its path in the page. */
  readonly element: string;
  readonly spans: NonNullable<ElementNode['attributeSpans']>;
}

interface Group {
  readonly text: string;
  readonly found: Found[];
  needed: Specificity;
  /** Some page has sources after the sheet that may be as strong. */
  strictly: boolean;
}

/** Plans the move. What it cannot see (attribute selectors that ask for `style` or for the class as a whole) the proof does. */
export function planGatherAttributes(
  site: Site,
  operation: GatherAttributes,
): Result<AttributesPlan, AttributesProblem> {
  const path = parseSheetPath(operation.sheet, site);
  if (!path.ok) return fail({ kind: 'attributes-sheet-path', path: path.problem });
  const bad = Object.values(operation.names ?? {}).find((name) => !isPlainClassName(name));
  if (bad !== undefined) return fail({ kind: 'class-name', name: bad });
  const collector = new Collector(site, path.value, operation);
  for (const file of pagesOf(site)) {
    const wanted = operation.pages === undefined || operation.pages.includes(file.path);
    const page = openPage(file);
    if (page) collector.add(page, wanted);
  }
  return collector.plan();
}

class Collector {
  private readonly groups = new Map<string, Group>();
  private readonly left: { page: string; element: string; reason: AttributeStays }[] = [];
  private readonly taken = new Set<string>();
  /** How many elements of the site have an ID. */
  private readonly ids = new Map<string, number>();
  private readonly session = new CascadeSession();
  private readonly site: Site;
  private readonly sheet: string;
  private readonly operation: GatherAttributes;
  private readonly excepted: ReadonlySet<string>;

  constructor(site: Site, sheet: string, operation: GatherAttributes) {
    this.excepted = new Set(operation.except?.map(({ key, page }) => `${page ?? ''}\n${key}`));
    this.site = site;
    this.sheet = sheet;
    this.operation = operation;
    for (const file of sheetsOf(site)) addSelectorClasses(parseSheet(file.text ?? '').rules, this.taken);
  }

  add(page: OpenPage, wanted: boolean): void {
    for (const block of page.blocks) addSelectorClasses(block.sheet.rules, this.taken);
    for (const element of page.tree.elements) {
      for (const name of element.classes) this.taken.add(name.toLowerCase());
      const id = element.id?.toLowerCase();
      if (id !== undefined) this.ids.set(id, (this.ids.get(id) ?? 0) + 1);
    }
    if (!wanted || !page.tree.elements.some((e) => attributeOf(e, 'style') !== undefined)) return;
    const cascade = this.session.openTree(this.site, page.file, page.tree);
    const scripted = scriptedProperties(page, this.site);
    let kept: FoundPage | undefined;
    for (const element of page.tree.elements) {
      const value = attributeOf(element, 'style');
      if (value === undefined) continue;
      const compiled = this.session.sheets.styleAttribute(value, page.sources.base).declarations;
      const stays = this.stays(page, element, value, compiled, scripted);
      if (stays !== undefined) {
        this.left.push({ page: page.path, element: elementPath(element), reason: stays });
        continue;
      }
      const key = orderFreeKey(compiled);
      if (this.operation.only && !this.operation.only.includes(key)) continue;
      if (this.excepted.has(`\n${key}`) || this.excepted.has(`${page.path}\n${key}`)) continue;
      let group = this.groups.get(key);
      if (!group)
        this.groups.set(
          key,
          (group = {
            text: rebasedText(value, page.sources.base, this.sheet)!,
            found: [],
            needed: [0, 1, 0],
            strictly: false,
          }),
        );
      kept ??= this.keep(page);
      group.found.push({
        page: kept,
        tag: element.tag,
        id: element.id,
        element: elementPath(element),
        spans: element.attributeSpans!,
      });
      this.raise(group, page, cascade, element, compiled);
    }
  }

  private keep(page: OpenPage): FoundPage {
    const linked = page.sources.sheets.some((source) => linksPlainly(source, this.sheet));
    return { file: page.file, link: linked ? undefined : insertLink(page, this.sheet, 'last') };
  }

  private stays(
    page: OpenPage,
    element: ElementNode,
    value: string,
    compiled: readonly CompiledDeclaration[],
    scripted: ReadonlySet<string> | 'any',
  ): AttributeStays | undefined {
    if (!element.attributeSpans?.['style'] || !/^(html|svg)$/.test(element.namespace)) return 'not-written';
    // a drawing's style attributes are read as in quirks mode, the rules of a sheet are not
    if (element.namespace === 'svg' && compiled.some((c) => c.validity !== 'valid')) return 'drawing';
    if (/<\?|<%|\{\{|\{%|\$\{/.test(value)) return 'template';
    if (closingText(value) !== '' || /[{}]/.test(value)) return 'unclosed';
    if (rebasedText(value, page.sources.base, this.sheet) === undefined) return 'reference';
    if (
      scripted === 'any' ||
      compiled.some((c) => scripted.has(c.declaration.property) || c.longhands.some((name) => scripted.has(name)))
    )
      return 'script';
    return undefined;
  }

  /** As strong as every rule that says something of the same longhands with the same importance. */
  private raise(
    group: Group,
    page: OpenPage,
    cascade: PageCascade,
    element: ElementNode,
    compiled: readonly CompiledDeclaration[],
  ): void {
    const index = page.sources.sheets.findLastIndex(
      (s) => s.kind === 'linked' && s.target.kind === 'site' && s.target.path === this.sheet,
    );
    for (const { indexed } of cascade.matchedAlike(element)) {
      if (indexed.pseudoElement !== '') continue;
      const rival = indexed.rule.compiled.block.declarations.some((theirs) =>
        compiled.some(
          (ours) =>
            ours.declaration.important === theirs.declaration.important &&
            (setsAll(ours) ||
              setsAll(theirs) ||
              (ours.comparable !== theirs.comparable &&
                ours.longhands.some((name) => theirs.longhands.includes(name)))),
        ),
      );
      if (!rival) continue;
      if (compareSpecificity(indexed.selector.specificity, group.needed) > 0)
        group.needed = indexed.selector.specificity;
      // the sheet is linked already, and something comes after it
      if (index >= 0 && indexed.rule.source.sourceIndex > index) group.strictly = true;
    }
  }

  plan(): Result<AttributesPlan, AttributesProblem> {
    if (this.groups.size === 0) return fail({ kind: 'no-attributes', left: this.left });
    const named: { key: string; group: Group; name: string; selector: string }[] = [];
    for (const [key, group] of this.groups) {
      const given = this.operation.names?.[key];
      if (given !== undefined && this.taken.has(given.toLowerCase())) return fail({ kind: 'class-taken', name: given });
      const tags = [...new Set(group.found.map(({ tag }) => tag))];
      const id = given === undefined ? this.ownId(group) : undefined;
      if (id !== undefined) {
        named.push({ key, group, name: `#${id}`, selector: raisedId(id, group.needed, group.strictly) });
        continue;
      }
      const name = given ?? proposeClassName(tags, parseDeclarations(group.text), this.taken);
      this.taken.add(name.toLowerCase());
      const selector = raisedSelector(name, tags.length === 1 ? tags[0] : undefined, group.needed, group.strictly);
      named.push({ key, group, name, selector });
    }
    const target = this.site.files.get(this.sheet);
    const created = target ? [] : [{ path: this.sheet, text: printRules(named, '\n', ruleStyleOf(this.site)) }];
    const edited: FileEdits[] = [
      ...(target ? [appended(target.path, target.hash, target.text ?? '', named, ruleStyleOf(this.site))] : []),
      ...this.pageEdits(named),
    ];
    const groups = named.map(({ key, group, name, selector }) => ({
      key,
      name,
      selector,
      tags: [...new Set(group.found.map(({ tag }) => tag))],
      declarations: parseDeclarations(group.text).map(({ property, value, important }) => ({
        property,
        value,
        important,
      })),
      elements: group.found.length,
      pages: [...new Set(group.found.map(({ page }) => page.file.path))],
    }));
    return succeed({
      changes: { created, edited, deleted: [] },
      sheet: this.sheet,
      groups,
      places: this.places(named),
      left: this.left,
    });
  }

  /** The ID of a group's only element, when no other element of the site has it. */
  private ownId({ found }: Group): string | undefined {
    const [only, ...others] = found;
    const id = this.operation.ids === true && others.length === 0 ? only!.id : undefined;
    return id !== undefined && isPlainClassName(id) && this.ids.get(id.toLowerCase()) === 1 ? id : undefined;
  }

  private places(named: readonly { readonly key: string; readonly group: Group }[]): AttributesPlan['places'] {
    return named.flatMap(({ key, group }) =>
      group.found.map(({ page, element }) => ({ page: page.file.path, key, element })),
    );
  }

  private pageEdits(named: readonly { readonly group: Group; readonly name: string }[]): readonly FileEdits[] {
    const byPage = new Map<FoundPage, Edit[]>();
    for (const { group, name } of named)
      for (const { page, spans } of group.found) {
        const edits = byPage.get(page) ?? [];
        byPage.set(page, edits);
        edits.push(...(name.startsWith('#') ? [dropAttribute(page.file.text!, spans, 'style')] : styleToClass(page.file.text!, spans, name)!)); // prettier-ignore
      }
    return [...byPage].map(([{ file, link }, edits]) => ({
      path: file.path,
      hash: file.hash,
      edits: link ? [...edits, link] : edits,
    }));
  }
}

const setsAll = ({ declaration }: CompiledDeclaration): boolean => declaration.property === 'all';

type Named = readonly { readonly group: { readonly text: string }; readonly selector: string }[];

/** One rule a group, as the site's authors write rules; only ASCII, so that it reads the same in every encoding. */
function printRules(named: Named, lineEnd: string, { oneLine, indent }: RuleStyle): string {
  return named
    .map(({ group, selector }) => {
      const parts = parseDeclarations(group.text).map(
        ({ property, value, important }) => `${property}: ${value}${important ? ' !important' : ''};`,
      );
      const lines = [`${selector} {`, ...parts.map((part) => indent + part), '}'];
      return asciiText(`${oneLine ? `${selector} { ${parts.join(' ')} }` : lines.join(lineEnd)}${lineEnd}`);
    })
    .join('');
}

function appended(path: string, hash: string, text: string, named: Named, style: RuleStyle): FileEdits {
  const lineEnd = lineEndOf(text);
  const open = closingText(text) ?? '';
  const gap = text.trim() === '' ? '' : /[\r\n]$/.test(text) ? lineEnd : lineEnd + lineEnd;
  return {
    path,
    hash,
    edits: [{ span: { start: text.length, end: text.length }, text: open + gap + printRules(named, lineEnd, style) }],
  };
}

export function describeAttributesProblem(problem: AttributesProblem): string {
  switch (problem.kind) {
    case 'attributes-sheet-path':
      return describeSheetPathProblem(problem.path);
    case 'class-name':
      return `${problem.name} cannot be a class here. Letters, digits, hyphens and underscores are allowed, a letter first.`;
    case 'class-taken':
      return `The class ${problem.name} is in use on the site already. Choose a name that no page and no sheet has.`;
    case 'no-attributes':
      return 'No style attribute on these pages can be gathered.';
  }
}
