import { PlanSettings } from './planSettings.ts';
import { Type } from '@sinclair/typebox';
import { count } from '../../checks/words.ts';
import { selectorsOfAnyBrowser } from '../../selectors/parseSelector.ts';
import type { ChangeSet, FileEdits } from '../../source/changeSet.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import { pagesOf, type Site } from '../../source/site.ts';
import { readingOf, type PageReading } from '../../survey/pageReading.ts';
import { closed, fields, operationType, type ProblemSentences } from '../operationType.ts';
import { addClass } from '../pages/editClass.ts';
import type { ReadingMakers } from '../readings.ts';
import { parseSheetPath, describeSheetPathProblem, type SheetPathProblem } from '../sheetPath.ts';
import { editGatheredPage, type GatheredPage } from './editGatheredPage.ts';
import type { PagePlan } from './gatherPlan.ts';
import { isFreeScope } from './isFreeScope.ts';
import { leftOutOf } from './leftOut.ts';
import type { LeftRule } from './leftRule.ts';
import { movableText } from './movableText.ts';
import { partOfRule, withSelector } from './ruleText.ts';
import { writeGatheredSheet } from './writeGatheredSheet.ts';

/**
 * Embedded rules of many pages written into one sheet as a person would: in the order given, some with selectors that ask for a
 * class of their pages, what versions share written once. Rules of the pages that it does not name stay in their blocks.
 */
export interface GatherSheet {
  readonly kind: 'gather-sheet';
  /** As a person names it; `.css` is added when left out. A new one, or one that is there: rules go to its end. */
  readonly sheet: string;
  /** Pages to take from. */
  readonly pages: readonly string[];
  readonly rules: readonly WrittenRule[];
  /** Classes that pages get. */
  readonly marks?: readonly PageMark[];
  /** Rules left where they are though `rules` names them: everywhere, or on one page. */
  readonly except?: readonly { readonly family: string; readonly version: string; readonly page?: string }[];
  /** On these pages the link stands ahead of the link or block of that number; else where the first block was taken from. */
  readonly ahead?: Readonly<Record<string, number>>;
  /** How the plan was asked for that this is part of; changes nothing. */
  readonly asked?: PlanSettings;
}

/** A version of a rule, which leaves its pages, and how it is written. Several may name the same version: each writes a part. */
export interface WrittenRule {
  readonly family: string;
  readonly version: string;
  /** In place of its own selector. */
  readonly selector?: string;
  /** Only its declarations of these properties. Empty: taken from the pages and not written. */
  readonly only?: readonly string[];
  /** The heading it stands under: a comment where that changes. */
  readonly section?: string;
  /** It says nothing, and just leaves its pages. */
  readonly dead?: boolean;
}

/** A class of the `body`, or of the root element, of some pages. */
export interface PageMark {
  readonly name: string;
  readonly on: 'body' | 'root';
  readonly pages: readonly string[];
}

export type GatherSheetProblem =
  | { readonly kind: 'gather-sheet-path'; readonly path: SheetPathProblem }
  | { readonly kind: 'gather-sheet-opaque'; readonly path: string }
  | { readonly kind: 'gather-sheet-page'; readonly path: string }
  | { readonly kind: 'mark-name'; readonly name: string }
  | { readonly kind: 'mark-place'; readonly name: string; readonly page: string; readonly on: 'body' | 'root' }
  | { readonly kind: 'written-selector'; readonly selector: string }
  | { readonly kind: 'nothing-written' };

export interface GatherSheetPlan {
  readonly sheet: string;
  readonly changes: ChangeSet;
  readonly readings: ReadingMakers;
  /** How many rules were written. */
  readonly rules: number;
  /** Rules that say nothing and left their pages for good. */
  readonly dead: readonly { readonly page: string; readonly label: string }[];
  readonly left: readonly LeftRule[];
  readonly pages: readonly string[];
}

/** Plans the operation on a site; writes nothing. Whether pages look the same afterwards is for the proof to say. */
export function planGatherSheet(site: Site, operation: GatherSheet): Result<GatherSheetPlan, GatherSheetProblem> {
  const path = parseSheetPath(operation.sheet, site);
  if (!path.ok) return fail({ kind: 'gather-sheet-path', path: path.problem });
  const target = site.files.get(path.value);
  if (target && target.text === undefined) return fail({ kind: 'gather-sheet-opaque', path: path.value });
  const problem = problemOf(site, operation);
  if (problem) return fail(problem);
  const left: LeftRule[] = [];
  const { pages, shared } = takeWritten(site, operation, path.value, left);
  if (pages.length === 0) return fail({ kind: 'nothing-written' });
  const order = operation.rules.map((_, i) => `${i}`);
  const sections = new Map(
    operation.rules.flatMap(({ section }, i) => (section === undefined ? [] : [[`${i}`, section]])),
  );
  const sheet = writeGatheredSheet(target, path.value, order, [...pages, ...shared], 'end', sections);
  const marks = marksByPage(operation.marks ?? []);
  const edited = pages.map((page) => ({ page, edit: editPage(page, path.value, operation, marks) }));
  const changes: ChangeSet = {
    created: sheet.kind === 'created' ? [{ path: path.value, text: sheet.text }] : [],
    edited: [...(sheet.kind === 'edited' ? [sheet.edits] : []), ...edited.map(({ edit }) => edit.edits)],
    deleted: [],
  };
  return succeed({
    sheet: path.value,
    changes,
    // a mark changes the tag itself
    readings: new Map(
      edited.flatMap(({ page, edit }) => (marks.has(page.page.path) ? [] : [[page.page.path, edit.reading]])),
    ),
    rules: operation.rules.filter(({ only, dead }) => only?.length !== 0 && !dead).length,
    dead: pages.flatMap(({ page, taken }) =>
      taken.filter((one) => one.dead).map(({ unit }) => ({ page: page.path, label: unit.rule.label })),
    ),
    left,
    pages: pages.map(({ page }) => page.path),
  });
}

function problemOf(site: Site, { pages, marks = [], rules }: GatherSheet): GatherSheetProblem | undefined {
  const missing = pages.find((page) => site.files.get(page)?.kind !== 'page');
  if (missing !== undefined) return { kind: 'gather-sheet-page', path: missing };
  const bad = rules.find(({ selector }) => selector !== undefined && !selectorsOfAnyBrowser(selector));
  if (bad) return { kind: 'written-selector', selector: bad.selector! };
  const names = marks.map(({ name }) => name.toLowerCase());
  for (const { name, on, pages: marked } of marks) {
    if (!isFreeScope(site, name) || names.indexOf(name.toLowerCase()) !== names.lastIndexOf(name.toLowerCase()))
      return { kind: 'mark-name', name };
    for (const page of marked) {
      const file = site.files.get(page);
      const tag = file && file.kind === 'page' ? readingOf(file)?.[on] : undefined;
      if (!tag || tag.start < 0) return { kind: 'mark-place', name, page, on };
    }
  }
  return undefined;
}

type Entries = ReadonlyMap<string, readonly { readonly key: string; readonly rule: WrittenRule }[]>;

function entriesOf({ rules }: GatherSheet): Entries {
  const out = new Map<string, { key: string; rule: WrittenRule }[]>();
  rules.forEach((rule, index) => {
    const version = `${rule.family}\n${rule.version}`;
    const list = out.get(version);
    if (list) list.push({ key: `${index}`, rule });
    else out.set(version, [{ key: `${index}`, rule }]);
  });
  return out;
}

function takeWritten(
  site: Site,
  operation: GatherSheet,
  sheet: string,
  left: LeftRule[],
): { readonly pages: PagePlan[]; readonly shared: PagePlan[] } {
  const wanted = new Set(operation.pages);
  const entries = entriesOf(operation);
  const excepted = new Set(
    operation.except?.map(({ family, version, page }) => `${family}\n${version}\n${page ?? ''}`),
  );
  const written = new Map<string, string>();
  const plans: PagePlan[] = [];
  const shared: PagePlan[] = [];
  for (const file of pagesOf(site)) {
    if (file.text === undefined || !wanted.has(file.path) || !/<style/i.test(file.text)) continue;
    const page = readingOf(file)!;
    const empty = page.blocks.filter((b) => b.stays === undefined && b.units.length === 0 && b.bare);
    const plan: PagePlan = { page, empty, taken: [] };
    for (const block of page.blocks)
      for (const unit of block.units) {
        const { rule } = unit;
        const here = entries.get(rule.key);
        if (!here) continue;
        const isLeft = excepted.has(`${rule.key}\n`) || excepted.has(`${rule.key}\n${page.path}`);
        const text = block.stays === undefined ? movableText(unit, block, page.text, sheet) : { reason: block.stays };
        if (typeof text !== 'string') {
          if (!isLeft) left.push({ page: page.path, label: rule.label, family: rule.family, reason: text.reason });
          continue;
        }
        for (const { key, rule: one } of here) {
          let own = written.get(key);
          if (own === undefined) written.set(key, (own = writtenText(text, one)));
          const taken = { block, unit, key, text: own, ...(one.dead ? { dead: true } : {}) };
          if (!isLeft) plan.taken.push(taken);
          // versions that leave their pages may share it
          else if (one.only !== undefined) shared.push({ page, empty: [], taken: [taken] });
        }
      }
    if (plan.taken.length > 0) plans.push(plan);
  }
  return { pages: plans, shared };
}

function writtenText(text: string, { selector, only, dead }: WrittenRule): string {
  if (dead || only?.length === 0) return '';
  const part = only === undefined ? text : partOfRule(text, only);
  return selector === undefined || part === '' ? part : withSelector(part, selector);
}

type MarksByPage = ReadonlyMap<string, Readonly<Record<'body' | 'root', readonly string[]>>>;

function marksByPage(marks: readonly PageMark[]): MarksByPage {
  const out = new Map<string, { body: string[]; root: string[] }>();
  for (const { name, on, pages } of marks)
    for (const page of pages) {
      let known = out.get(page);
      if (!known) out.set(page, (known = { body: [], root: [] }));
      known[on].push(name);
    }
  return out;
}

function editPage(plan: PagePlan, sheet: string, { ahead }: GatherSheet, marks: MarksByPage): GatheredPage {
  const { page } = plan;
  const at = ahead && Object.hasOwn(ahead, page.path) ? ahead[page.path] : undefined;
  const edit = editGatheredPage(plan, sheet, false, at === undefined ? { after: [] } : { ahead: at });
  const own = marks.get(page.path);
  if (!own) return edit;
  const edits = [...edit.edits.edits, ...classEdits(page, 'body', own.body), ...classEdits(page, 'root', own.root)];
  const withMarks: FileEdits = { ...edit.edits, edits };
  return { ...edit, edits: withMarks };
}

function classEdits(page: PageReading, on: 'body' | 'root', names: readonly string[]): FileEdits['edits'] {
  const tag = page[on]!;
  const missing = names.filter((name) => !tag.classes.includes(name));
  return missing.length === 0 ? [] : [addClass(page.text, tag, missing.join(' '))];
}

const gatherSheetProblems: ProblemSentences<GatherSheetProblem> = {
  'gather-sheet-path': (problem) => describeSheetPathProblem(problem.path),
  'gather-sheet-opaque': (problem) =>
    `${problem.path} does not encode back to its own bytes, so nothing can be added to it. Choose another sheet.`,
  'gather-sheet-page': (problem) => `There is no page ${problem.path} in this site.`,
  'mark-name': (problem) =>
    `${problem.name} cannot be the class of these pages: letters, digits, hyphens and underscores are allowed, a letter first; no other element and no other mark may have it.`,
  'mark-place': (problem) =>
    `${problem.page} has no ${problem.on === 'body' ? '<body>' : '<html>'} tag in its text, so it cannot get the class ${problem.name}.`,
  'written-selector': (problem) =>
    `${problem.selector} is not a selector. Give a selector list as CSS writes it, for example .news .notice.`,
  'nothing-written': () => 'None of the chosen pages holds any of the chosen rules in a block that can be moved.',
};

const pathText = Type.String({ maxLength: 400 });
const VersionFields = { family: Type.String(), version: Type.String() };

export const gatherSheet = operationType<GatherSheet, GatherSheetProblem>()({
  kind: 'gather-sheet',
  schema: Type.Object(
    {
      kind: Type.Literal('gather-sheet'),
      sheet: fields.sheet,
      pages: fields.pages,
      rules: Type.Array(
        Type.Object(
          {
            ...VersionFields,
            selector: Type.Optional(Type.String({ minLength: 1, maxLength: 20_000 })),
            only: Type.Optional(Type.Array(Type.String({ maxLength: 400 }), { maxItems: 1000 })),
            section: Type.Optional(Type.String({ maxLength: 400 })),
            dead: Type.Optional(Type.Boolean()),
          },
          closed,
        ),
        { minItems: 1, maxItems: 100_000 },
      ),
      marks: Type.Optional(
        Type.Array(
          Type.Object(
            {
              name: Type.String({ minLength: 1, maxLength: 100 }),
              on: Type.Union([Type.Literal('body'), Type.Literal('root')]),
              pages: fields.pages,
            },
            closed,
          ),
          { maxItems: 1000 },
        ),
      ),
      except: Type.Optional(
        Type.Array(Type.Object({ ...VersionFields, page: Type.Optional(pathText) }, closed), { maxItems: 200_000 }),
      ),
      ahead: Type.Optional(Type.Record(Type.String(), Type.Integer({ minimum: 0 }))),
      asked: Type.Optional(PlanSettings),
    },
    closed,
  ),
  plan(site, operation) {
    const plan = planGatherSheet(site, operation);
    if (!plan.ok) return plan;
    const { changes, readings, left, rules, pages, sheet } = plan.value;
    const into = site.files.has(sheet) ? sheet : `${sheet}, a new sheet`;
    const sentence = `Gather ${count(rules, 'rule')} from ${count(pages.length, 'page')} into ${into}`;
    return succeed({ changes, readings, left, sentence, leftOut: leftOutOf(site, sheet, pages) });
  },
  problems: gatherSheetProblems,
});
