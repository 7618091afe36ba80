import { Interner } from '../cascade/interner.ts';
import { CascadeSession } from '../cascade/pageCascade.ts';
import { pagesOf, sheetsOf, byPath, type Site, type SiteFile } from '../source/site.ts';
import { fileNameOf } from '../source/sitePath.ts';
import { LineIndex } from '../source/span.ts';
import { BlockCollector } from '../survey/blockCollector.ts';
import { elementNames } from '../survey/elementNames.ts';
import { FamilyCollector, rulesOfPage, type Family, type WrittenRules } from '../survey/families.ts';
import { openPage } from '../survey/openPage.ts';
import { noReach, PageReachCounter, ReachCollector, type RuleReach, type RuleTable } from '../survey/reach.ts';
import { SheetReader } from '../survey/sheetReader.ts';
import type { PageSurvey, Survey } from '../survey/survey.ts';
import { makeSurvey } from '../survey/surveySite.ts';
import { opaquePage, surveyPage } from '../survey/surveyPage.ts';
import { brokenLinks } from './brokenLinks.ts';
import type { Check, CheckContext, CheckedPage, CheckMaker } from './check.ts';
import { commentedStyles } from './commentedStyles.ts';
import { containers } from './containers.ts';
import { declarations } from './declarations.ts';
import { drift } from './drift.ts';
import { fileNames } from './fileNames.ts';
import type { FindingKind, FoundFinding, Severity } from './finding.ts';
import { fontLists } from './fontLists.ts';
import { keptPages, type SeenPage } from './keptPages.ts';
import { forgottenLinks } from './forgottenLinks.ts';
import { hiddenDeclarations } from './hiddenDeclarations.ts';
import { linkOrder } from './linkOrder.ts';
import { names } from './names.ts';
import { notReached } from './notReached.ts';
import { overrides } from './overrides.ts';
import { pageMarks } from './pageMarks.ts';
import { pageKinds } from './pageKinds.ts';
import { references } from './references.ts';
import { runPages } from './runPages.ts';
import { refusedSheets } from './refusedSheets.ts';
import { repeatedLinks } from './repeatedLinks.ts';
import { sheetFiles } from './sheetFiles.ts';
import { sheetTexts } from './sheetTexts.ts';
import { unusedRules } from './unusedRules.ts';

/** Every check there is. */
export const checkMakers: readonly CheckMaker[] = [
  sheetFiles,
  sheetTexts,
  forgottenLinks,
  brokenLinks,
  refusedSheets,
  linkOrder,
  commentedStyles,
  references,
  containers,
  notReached,
  names,
  drift,
  pageKinds,
  runPages,
  declarations,
  fontLists,
  hiddenDeclarations,
  repeatedLinks,
  fileNames,
  unusedRules,
  overrides,
];

/** All that is to be known of a site before anything is changed. */
export interface SiteCheck {
  readonly survey: Survey;
  readonly families: readonly Family[];
  /** Elements on all pages that a family's rules apply to. */
  readonly elementsOf: (family: string) => number | undefined;
  /** What breaks a page first, then what may look wrong, then what is worth knowing. */
  readonly findings: readonly FoundFinding[];
  readonly reach: readonly RuleReach[];
}

export interface CheckOptions {
  readonly onPage?: (done: number, total: number, page: PageSurvey) => void;
  /** Only the checks that can find one of these. */
  readonly kinds?: readonly FindingKind[];
}

const weight: Readonly<Record<Severity, number>> = { breaks: 0, wrong: 1, note: 2 };

/** Surveys a site and checks it in one pass over its pages. */
export const checkSite = (site: Site, options: CheckOptions = {}): SiteCheck => new SiteChecker().check(site, options);

/**
 * Surveys and checks states of a site one after the other. What was seen of a page is kept as long as the page and all that it may
 * ask about (other files, and which there are) are what they were; only the others are looked at again.
 */
export class SiteChecker {
  private readonly names = new Interner();
  private readonly rules: RuleTable = new Map();
  private readonly written: WrittenRules = new Map();
  /** How many pages had to be read for the last check. */
  pagesRead = 0;
  /** The state that was seen last as a whole. */
  private last: SeenState | undefined;
  /** One that somebody stopped at since. */
  private begun: SeenState | undefined;
  /** The same for all checks ever made here: those of pages outlive the state they were made in. */
  private readonly context: { -readonly [Part in keyof CheckContext]: CheckContext[Part] };

  constructor() {
    this.context = makeContext({ files: new Map() });
  }

  check(site: Site, { onPage, kinds }: CheckOptions = {}): SiteCheck {
    Object.assign(this.context, makeContext(site));
    const files = pagesOf(site);
    const seen = this.stillTrue(site, files);
    // who stops this loses nothing of what is seen until then
    this.begun = { site, seen };
    const session = new CascadeSession();
    this.pagesRead = files.length - seen.size;
    const pages = files.map((file, i) => {
      const page = seen.get(file.path) ?? this.see(site, file, session);
      seen.set(file.path, page);
      if (i % 100 === 99) session.forgetPages();
      onPage?.(i + 1, files.length, page.survey);
      return page;
    });
    this.last = this.begun;
    this.begun = undefined;
    return this.conclude(site, pages, kinds);
  }

  /** What was seen before of pages of this state; of two states before, that which tells more. */
  private stillTrue(site: Site, files: readonly SiteFile[]): Map<string, SeenPage> {
    let most = new Map<string, SeenPage>();
    for (const before of [this.last, this.begun]) {
      if (!before) continue;
      const kept = keptPages(before.site, before.seen, site, this.rules);
      const seen = new Map<string, SeenPage>();
      for (const file of files) {
        const known = kept.get(file.path);
        if (known?.file === file) seen.set(file.path, known);
      }
      if (seen.size > most.size) most = seen;
    }
    return most;
  }

  private see(site: Site, file: SiteFile, session: CascadeSession): SeenPage {
    const blocks = new BlockCollector();
    const page = openPage(file);
    if (page) elementNames(file, page.tree);
    if (!page) return { file, survey: opaquePage(file), blocks, rules: undefined, reach: noReach, checks: [] };
    const survey = surveyPage(page, this.context.sheets, blocks);
    const checks = checkMakers.map((maker) => maker.make(this.context));
    const rules = rulesOfPage(page, this.written);
    const marks = pageMarks(page.tree, this.names);
    const cascade = session.openTree(site, file, page.tree);
    const reach = new PageReachCounter(site, { cascade, blocks: page.blocks }, this.rules);
    look({ ...page, survey, marks, cascade }, checks, reach);
    return { file, survey, blocks, rules, reach: reach.reach, checks };
  }

  private conclude(site: Site, pages: readonly SeenPage[], kinds: readonly FindingKind[] | undefined): SiteCheck {
    const checks = checkMakers.map((maker) => maker.make(this.context));
    this.sheets(site, checks);
    const blocks = new BlockCollector();
    const families = new FamilyCollector();
    const reach = new ReachCollector(this.rules);
    for (const page of pages) {
      blocks.merge(page.blocks);
      if (page.rules) families.add(page.rules);
      reach.add(page.reach);
      page.checks.forEach((check, i) => checks[i]!.merge?.(check));
    }
    const survey = makeSurvey(
      site,
      pages.map((page) => page.survey),
      this.context.sheets,
      blocks,
    );
    const whole = { survey, families: families.families() };
    const isWanted = (i: number): boolean => !kinds || checkMakers[i]!.kinds.some((kind) => kinds.includes(kind));
    const all = checks.flatMap((check, i) => (isWanted(i) ? check.findings(whole) : []));
    const findings = withoutEchoes(all).filter((f) => !kinds || kinds.includes(f.kind));
    findings.sort((a, b) => weight[a.severity] - weight[b.severity]);
    return { ...whole, findings, reach: reach.rules(), elementsOf: elementsBy(reach) };
  }

  private sheets(site: Site, checks: readonly Check[]): void {
    for (const file of sheetsOf(site)) {
      const { path, text } = file;
      const read = this.context.sheets.read(path);
      if (text === undefined || !read) continue;
      const sheet = { file, path, text, sheet: read.sheet, lines: new LineIndex(text) };
      for (const check of checks) check.sheet?.(sheet);
    }
  }
}

/** A state of the site and what was seen of its pages, perhaps of some only. */
interface SeenState {
  readonly site: Site;
  readonly seen: ReadonlyMap<string, SeenPage>;
}

/** A forgotten link explains why a page's classes have no rules; saying both helps nobody. */
function withoutEchoes(all: readonly FoundFinding[]): FoundFinding[] {
  const forgotten = all.filter((f) => f.kind === 'page-without-link');
  return all.filter(({ kind, mends, pages }) => {
    if (kind !== 'rule-not-reached') return true;
    const links = mends.map((m) => m.edits[0]!.text.trim()).join();
    return !forgotten.some(
      (f) =>
        pages.every((page) => f.pages.includes(page)) && f.mends.some((m) => links.includes(m.edits[0]!.text.trim())),
    );
  });
}

/** By itself, so that it holds no more in memory than it asks. */
const elementsBy =
  (reach: ReachCollector): SiteCheck['elementsOf'] =>
  (family) =>
    reach.elementsOf(family);

function look(page: CheckedPage, checks: readonly Check[], reach: PageReachCounter): void {
  for (const check of checks) check.page?.(page);
  const perElement = checks.filter((check) => check.element !== undefined);
  for (const element of page.tree.elements) {
    const matched = page.cascade.matchedAlikeAtRest(element);
    reach.count(matched);
    for (const check of perElement) check.element!(page, element, matched);
  }
}

function makeContext(site: Site): CheckContext {
  const pathOfLowerCase = new Map<string, string>();
  const pathsOfName = new Map<string, string[]>();
  for (const { path } of [...site.files.values()].sort(byPath)) {
    pathOfLowerCase.set(path.toLowerCase(), path);
    const name = fileNameOf(path).toLowerCase();
    pathsOfName.set(name, [...(pathsOfName.get(name) ?? []), path]);
  }
  return { site, sheets: new SheetReader(site), pathOfLowerCase, pathsOfName };
}
