import { count } from '../../checks/words.ts';
import { closed, fields, operationType, type ProblemSentences } from '../operationType.ts';
import { Type } from '@sinclair/typebox';
import { CascadeSession, type PageCascade } from '../../cascade/pageCascade.ts';
import { linksPlainly } from '../../page/styleSources.ts';
import { compareSpecificity, type Specificity } from '../../selectors/selector.ts';
import type { ChangeSet, FileEdits } from '../../source/changeSet.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import { pagesOf, type Site, type SiteFile } from '../../source/site.ts';
import type { Edit } from '../../source/span.ts';
import { insertLink } from '../../survey/insertLink.ts';
import { madeNames } from '../../survey/madeNames.ts';
import { readingOf, type PageReading } from '../../survey/pageReading.ts';
import { appended, declarationsOf, printRules, keptIn, type AttributeRule } from './attributeRules.ts';
import { editsOf, readingsOf, type EditedPage } from './attributePages.ts';
import type { AttributeStays } from './attributeStays.ts';
import { isPlainClassName, Likes, proposeClassName } from './className.ts';
import { dropAttribute, styleToClass } from '../pages/editClass.ts';
import { rebasedText } from './printRule.ts';
import {
  candidates,
  commonNames,
  contexts,
  countMatches,
  type Asked,
  type Places,
  type Spread,
} from './existingNames.ts';
import { leftOutOf } from './leftOut.ts';
import { lookParts, type LookPart } from './lookParts.ts';
import { raisedId, raisedSelector } from './raisedSelector.ts';
import type { ReadingMakers } from '../readings.ts';
import { ruleStyleOf } from './ruleStyle.ts';
import { describeSheetPathProblem, parseSheetPath, type SheetPathProblem } from '../sheetPath.ts';
import { styledElements, type StyledElement } from './styledElements.ts';
import { takenClassNames } from './takenClassNames.ts';

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
  /** Always a new class, also where names that are there mean just these elements. */
  readonly newNames?: boolean;
  /** Where a plain class would lose, its declarations are important in place of a stronger selector. */
  readonly important?: boolean;
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
  readonly readings: ReadingMakers;
  readonly sheet: string;
  readonly groups: readonly AttributeGroup[];
  /** How many attributes said nothing that a browser takes, or nothing that rules do not say, and went for good. */
  readonly dead: number;
  /** Each element that gets a class, by its path in the page. */
  readonly places: readonly { readonly page: string; readonly key: string; readonly element: string }[];
  /** Each element whose attribute stays, by its path in the page. */
  readonly left: readonly { readonly page: string; readonly element: string; readonly reason: AttributeStays }[];
}

interface FoundPage {
  readonly reading: PageReading;
  readonly found: Found[];
}

interface Found {
  readonly page: FoundPage;
  readonly element: StyledElement;
  readonly group: Group;
}

interface Group {
  readonly text: string;
  readonly found: Found[];
  needed: Specificity;
  /** Some page has sources after the sheet that may be as strong. */
  strictly: boolean;
}

const placesOf = ({ found }: Group): Places =>
  found.map(({ page, element }) => ({ file: page.reading.file, index: element.index }));

/** Whether a selector beats all that it has to. */
function isEnough({ specificity }: { readonly specificity: Specificity }, { needed, strictly }: Group): boolean {
  const by = compareSpecificity(specificity, needed);
  return strictly ? by > 0 : by >= 0;
}

/** Looks on more elements than these get a class. */
const mostForNames = 2000;

const tagsOf = (group: Group): readonly string[] => [...new Set(group.found.map(({ element }) => element.tag))];

/** In which session pages are read; `onRead` hears of each page that had to be. */
export interface Watch {
  readonly session: CascadeSession;
  readonly onRead: (file: SiteFile, cascade: PageCascade) => void;
}

/** Plans the move. What it cannot see (attribute selectors that ask for `style` or for the class as a whole) the proof does. */
export function planGatherAttributes(
  site: Site,
  operation: GatherAttributes,
  watch?: Watch,
): Result<AttributesPlan, AttributesProblem> {
  const path = parseSheetPath(operation.sheet, site);
  if (!path.ok) return fail({ kind: 'attributes-sheet-path', path: path.problem });
  const bad = Object.values(operation.names ?? {}).find((name) => !isPlainClassName(name));
  if (bad !== undefined) return fail({ kind: 'class-name', name: bad });
  const session = watch?.session ?? new CascadeSession();
  const collector = new Collector(site, path.value, operation);
  const wanted = operation.pages && new Set(operation.pages);
  for (const [i, file] of pagesOf(site).entries()) {
    if (!(wanted?.has(file.path) ?? true) || !/style/i.test(file.text ?? '')) continue;
    collector.add(file, styledElements(site, file, session, watch?.onRead));
    // what embedded blocks compile to is few pages' own
    if (i % 100 === 99) session.forgetPages();
  }
  return collector.plan();
}

class Collector {
  private readonly groups = new Map<string, Group>();
  private readonly left: { page: string; element: string; reason: AttributeStays }[] = [];
  private readonly pages: FoundPage[] = [];
  /** All pages of the site, once one is asked for. */
  private readings: readonly PageReading[] | undefined;
  private readonly site: Site;
  private readonly sheet: string;
  private readonly operation: GatherAttributes;
  private readonly excepted: ReadonlySet<string>;
  private takenNames: Set<string> | undefined;

  constructor(site: Site, sheet: string, operation: GatherAttributes) {
    this.excepted = new Set(operation.except?.map(({ key, page }) => `${page ?? ''}\n${key}`));
    this.site = site;
    this.sheet = sheet;
    this.operation = operation;
  }

  /** Class names in use, in lower case; asked for when the pages with style attributes are read, so that none is read twice. */
  private get taken(): Set<string> {
    return (this.takenNames ??= takenClassNames(this.site));
  }

  add(file: SiteFile, elements: readonly StyledElement[]): void {
    if (elements.length === 0) return;
    const reading = readingOf(file)!;
    const linked = reading.sources.findLastIndex(
      (s) => s.kind === 'linked' && s.target.kind === 'site' && s.target.path === this.sheet,
    );
    let page: FoundPage | undefined;
    for (const element of elements) {
      const { value } = element;
      const text = element.stays === undefined ? rebasedText(value, reading.base, this.sheet) : undefined;
      if (text === undefined) {
        this.left.push({ page: file.path, element: element.path, reason: element.stays ?? 'reference' });
        continue;
      }
      if (this.operation.only && !this.operation.only.includes(element.key)) continue;
      const key = element.repeats && !this.isExcepted(file.path, '') ? '' : element.key;
      if (this.isExcepted(file.path, key) || this.isExcepted(file.path, element.key)) continue;
      if (!page) this.pages.push((page = { reading, found: [] }));
      let group = this.groups.get(key);
      if (!group) this.groups.set(key, (group = { text, found: [], needed: [0, 1, 0], strictly: false }));
      const found = { page, element, group };
      page.found.push(found);
      group.found.push(found);
      if (compareSpecificity(element.strongest, group.needed) > 0) group.needed = element.strongest;
      // the sheet is linked already, and something comes after it
      if (linked >= 0 && element.lastRival > linked) group.strictly = true;
    }
  }

  private isExcepted(page: string, key: string): boolean {
    return this.excepted.has(`\n${key}`) || this.excepted.has(`${page}\n${key}`);
  }

  plan(): Result<AttributesPlan, AttributesProblem> {
    if (this.groups.size === 0) return fail({ kind: 'no-attributes', left: this.left });
    const wrong = Object.values(this.operation.names ?? {}).find((name) => this.taken.has(name.toLowerCase()));
    if (wrong !== undefined) return fail({ kind: 'class-taken', name: wrong });
    const named = this.nameAll();
    const saying = named.filter(({ key }) => key !== '');
    const target = this.site.files.get(this.sheet);
    const created =
      target || saying.length === 0
        ? []
        : [{ path: this.sheet, text: printRules(rulesOf(saying), '\n', ruleStyleOf(this.site)) }];
    const pages = this.editPages(named);
    const edited: FileEdits[] = [
      ...(target && saying.length > 0 ? [appended(target, rulesOf(saying), ruleStyleOf(this.site))] : []),
      ...pages.map(editsOf),
    ];
    const groups = saying.map((one): AttributeGroup => ({
      key: one.key,
      name: one.className ?? one.selector,
      selector: one.selector,
      tags: tagsOf(one.group),
      declarations: declarationsOf(one),
      elements: one.group.found.length,
      pages: [...new Set(one.group.found.map(({ page }) => page.reading.path))],
    }));
    return succeed({
      changes: { created, edited, deleted: [] },
      readings: readingsOf(pages, this.sheet),
      sheet: this.sheet,
      groups,
      dead: named.filter(({ key }) => key === '').reduce((sum, { group }) => sum + group.found.length, 0),
      places: this.places(named),
      left: this.left,
    });
  }

  /** Names that are there first, then classes. */
  private nameAll(): readonly Named[] {
    const there = this.existing();
    const likes = new Likes();
    const parted = this.parted(there);
    for (const [key, group] of this.groups)
      if (key !== '' && !there.has(group) && !parted.has(group)) likes.add(tagsOf(group), keptIn(group.text));
    return [...this.groups].map(([key, group]): Named => {
      const of = { key, group, text: group.text };
      if (key === '') return { ...of, className: undefined, selector: '', important: false };
      const id = this.operation.names?.[key] === undefined ? this.ownId(group) : undefined;
      if (id !== undefined)
        return { ...of, className: undefined, selector: raisedId(id, group.needed, group.strictly), important: false };
      const selector = there.get(group);
      if (selector !== undefined) return { ...of, className: undefined, selector, important: false };
      const parts = parted.get(group);
      if (!parts) return this.withClass(key, group, likes);
      const className = parts.map((part) => part.selector.slice(1)).join(' ');
      return { ...of, className, selector: parts.map((part) => part.selector).join(''), important: false, parts };
    });
  }

  /** Looks that are combinations of few declarations, where a plain class is enough: by look, the classes of its parts. */
  private parted(there: ReadonlyMap<Group, string>): ReadonlyMap<Group, readonly AttributeRule[]> {
    const groups = [...this.groups].flatMap(([key, group]) =>
      key !== '' &&
      !there.has(group) &&
      this.operation.names?.[key] === undefined &&
      this.ownId(group) === undefined &&
      isEnough({ specificity: [0, 1, 0] }, group)
        ? [group]
        : [],
    );
    const parts = lookParts(groups.map((group) => keptIn(group.text)));
    if (!parts) return new Map();
    const tags = new Map<LookPart, string[]>();
    for (const [i, own] of parts)
      for (const part of own) tags.set(part, [...(tags.get(part) ?? []), ...tagsOf(groups[i]!)]);
    const likes = new Likes();
    for (const [part, of] of tags) likes.add([...new Set(of)], part.declarations);
    const rules = new Map(
      [...tags].map(([part, of]) => {
        const name = proposeClassName([...new Set(of)], part.declarations, this.taken, likes);
        this.taken.add(name.toLowerCase());
        const text = part.declarations.map(({ property, value }) => `${property}: ${value}`).join('; ');
        return [part, { selector: `.${name}`, text, important: false }] as const;
      }),
    );
    return new Map([...parts].map(([i, own]) => [groups[i]!, own.map((part) => rules.get(part)!)]));
  }

  private withClass(key: string, group: Group, likes: Likes): Named {
    const of = { key, group, text: group.text };
    const tags = tagsOf(group);
    const given = this.operation.names?.[key];
    const className = given ?? proposeClassName(tags, keptIn(group.text), this.taken, likes);
    this.taken.add(className.toLowerCase());
    const plain = `.${className}`;
    if (isEnough({ specificity: [0, 1, 0] }, group)) return { ...of, className, selector: plain, important: false };
    if (this.operation.important) return { ...of, className, selector: plain, important: true };
    const context = contexts(commonNames(placesOf(group)), className, this.spread).find((one) => isEnough(one, group));
    const selector =
      context?.text ?? raisedSelector(className, tags.length === 1 ? tags[0] : undefined, group.needed, group.strictly);
    return { ...of, className, selector, important: false };
  }

  /** By group, a selector of names that are there and mean its elements and no other on any page that links the sheet. */
  private existing(): ReadonlyMap<Group, string> {
    if (this.operation.newNames) return new Map();
    const asked: { readonly group: Group; readonly asked: Asked }[] = [];
    for (const [key, group] of this.groups) {
      if (key === '' || this.operation.names?.[key] !== undefined || group.found.length > mostForNames) continue;
      for (const selector of candidates(commonNames(placesOf(group)), this.spread))
        if (isEnough(selector, group)) asked.push({ group, asked: { selector, wanted: group.found.length, found: 0 } });
    }
    const pages = new Set([
      ...this.readAll().filter((page) => this.linksSheet(page)),
      ...this.pages.map(({ reading }) => reading),
    ]);
    countMatches(
      [...pages].map(({ file }) => file),
      asked.map((one) => one.asked),
    );
    const made = [...pages].flatMap((page) => madeNames(page, this.site) ?? []);
    const out = new Map<Group, string>();
    for (const { group, asked: one } of asked)
      if (one.found === one.wanted && !out.has(group) && !mayReachMade(one.selector.text, made))
        out.set(group, one.selector.text);
    return out;
  }

  private readonly spreads = new Map<string, number>();
  private readonly spread: Spread = (names) => {
    const key = names.join();
    let pages = this.spreads.get(key);
    if (pages === undefined) {
      pages = this.readAll().filter((page) => names.every((name) => page.names.has(name))).length;
      this.spreads.set(key, pages);
    }
    return pages;
  };

  private linksSheet(page: PageReading): boolean {
    return page.sources.some((source) => linksPlainly(source, this.sheet));
  }

  private readAll(): readonly PageReading[] {
    return (this.readings ??= pagesOf(this.site).flatMap((file) => readingOf(file) ?? []));
  }

  /** The ID of a group's only element, when no other element of the site has it. */
  private ownId({ found }: Group): string | undefined {
    const [only, ...others] = found;
    const id = this.operation.ids === true && others.length === 0 ? only!.element.id : undefined;
    return id !== undefined && isPlainClassName(id) && this.hasAlone(id.toLowerCase()) ? id : undefined;
  }

  private hasAlone(id: string): boolean {
    const holders = this.readAll().filter((page) => page.names.has(`#${id}`));
    return holders.length === 1 && !holders[0]!.repeatedIds.has(id);
  }

  private places(named: readonly { readonly key: string; readonly group: Group }[]): AttributesPlan['places'] {
    return named.flatMap(({ key, group }) =>
      group.found.map(({ page, element }) => ({ page: page.reading.path, key, element: element.path })),
    );
  }

  private editPages(named: readonly Named[]): readonly EditedPage[] {
    const names = new Map(named.map(({ group, className }) => [group, className]));
    const silent = this.groups.get('');
    return this.pages.map(({ reading, found }) => {
      const edits: Edit[] = [];
      const done = new Set<number>();
      for (const { element, group } of found) {
        // of a tag that the parser opened again for mis-nested elements there is one to edit
        const at = element.spans['style']!.startOffset;
        if (done.has(at)) continue;
        done.add(at);
        const name = names.get(group);
        if (name === undefined) edits.push(dropAttribute(reading.text, element.spans, 'style'));
        else edits.push(...styleToClass(reading.text, element.spans, name)!);
      }
      const says = found.some(({ group }) => group !== silent);
      const link = !says || this.linksSheet(reading) ? undefined : insertLink(reading, this.sheet, 'last');
      return { reading, names: found.flatMap(({ group }) => names.get(group)?.split(' ') ?? []), edits, link };
    });
  }
}

/** Each rule once, where its first look stands. */
const rulesOf = (named: readonly Named[]): readonly AttributeRule[] => [
  ...new Set(named.flatMap((one) => one.parts ?? [one])),
];

/** Whether elements that scripts of a page make may have all the names a selector asks for. */
const mayReachMade = (selector: string, made: readonly ReadonlySet<string>[]): boolean =>
  made.some((names) => (selector.toLowerCase().match(/[\w-]+/g) ?? []).every((name) => names.has(name)));

interface Named extends AttributeRule {
  readonly key: string;
  readonly group: Group;
  /** The class its elements get; undefined where the selector takes names they have. */
  readonly className: string | undefined;
  /** The rules for its parts, where its elements get a class for each. */
  readonly parts?: readonly AttributeRule[];
}

export const attributesProblems: ProblemSentences<AttributesProblem> = {
  'attributes-sheet-path': (problem) => describeSheetPathProblem(problem.path),
  'class-name': (problem) =>
    `${problem.name} cannot be a class here. Letters, digits, hyphens and underscores are allowed, a letter first.`,
  'class-taken': (problem) =>
    `The class ${problem.name} is in use on the site already. Choose a name that no page and no sheet has.`,
  'no-attributes': () => 'No style attribute on these pages can be gathered.',
};

export const gatherAttributes = operationType<GatherAttributes, AttributesProblem>()({
  kind: 'gather-attributes',
  schema: Type.Object(
    {
      kind: Type.Literal('gather-attributes'),
      sheet: fields.sheet,
      pages: fields.somePages,
      only: Type.Optional(Type.Array(Type.String(), { maxItems: 50_000 })),
      ids: Type.Optional(Type.Boolean()),
      newNames: Type.Optional(Type.Boolean()),
      important: Type.Optional(Type.Boolean()),
      names: Type.Optional(Type.Record(Type.String(), Type.String({ maxLength: 100 }))),
      except: Type.Optional(
        Type.Array(Type.Object({ key: Type.String(), page: Type.Optional(Type.String()) }, closed), {
          maxItems: 50_000,
        }),
      ),
    },
    closed,
  ),
  plan(site, operation) {
    const plan = planGatherAttributes(site, operation);
    if (!plan.ok) return plan;
    const { changes, readings, groups, sheet, dead } = plan.value;
    const elements = groups.reduce((sum, group) => sum + group.elements, 0);
    const classes = `${groups.length} ${groups.length === 1 ? 'class' : 'classes'}`;
    const taken =
      dead === 0 ? '' : `take out ${count(dead, 'style attribute')} that ${dead === 1 ? 'says' : 'say'} nothing new`;
    const gathers = `Gather ${count(elements, 'style attribute')} into ${classes} of ${sheet}`;
    const sentence = elements === 0 ? taken.replace(/^t/, 'T') : taken === '' ? gathers : `${gathers}, and ${taken}`;
    const pages = [...new Set(groups.flatMap((group) => group.pages))];
    return succeed({ changes, readings, sentence, leftOut: leftOutOf(site, sheet, pages) });
  },
  problems: attributesProblems,
});
