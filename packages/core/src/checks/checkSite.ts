import { matchAtRest } from '../cascade/matchElement.ts';
import { CascadeSession } from '../cascade/pageCascade.ts';
import { pagesOf, sheetsOf, byPath, type Site } from '../source/site.ts';
import { fileNameOf } from '../source/sitePath.ts';
import { LineIndex } from '../source/span.ts';
import { BlockCollector } from '../survey/blockCollector.ts';
import { FamilyCollector, type Family } from '../survey/families.ts';
import { openPage } from '../survey/openPage.ts';
import { ReachCollector, type RuleReach } from '../survey/reach.ts';
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
import { forgottenLinks } from './forgottenLinks.ts';
import { hiddenDeclarations } from './hiddenDeclarations.ts';
import { linkOrder } from './linkOrder.ts';
import { names } from './names.ts';
import { notReached } from './notReached.ts';
import { overrides } from './overrides.ts';
import { pageKinds } from './pageKinds.ts';
import { references } from './references.ts';
import { repeatedLinks } from './repeatedLinks.ts';
import { sheetFiles } from './sheetFiles.ts';
import { unusedRules } from './unusedRules.ts';

/** Every check there is. */
export const checkMakers: readonly CheckMaker[] = [sheetFiles, forgottenLinks, brokenLinks, linkOrder, commentedStyles, references, containers, notReached, names, drift, pageKinds, declarations, fontLists, hiddenDeclarations, repeatedLinks, fileNames, unusedRules, overrides]; // prettier-ignore

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
export function checkSite(site: Site, { onPage, kinds }: CheckOptions = {}): SiteCheck {
  const context = makeContext(site);
  const makers = kinds ? checkMakers.filter((maker) => maker.kinds.some((kind) => kinds.includes(kind))) : checkMakers;
  const checks = makers.map((maker) => maker.make(context));
  for (const file of sheetsOf(site)) {
    const { path, text } = file;
    const read = context.sheets.read(path);
    if (text === undefined || !read) continue;
    const sheet = { file, path, text, sheet: read.sheet, lines: new LineIndex(text) };
    for (const check of checks) check.sheet?.(sheet);
  }
  const session = new CascadeSession();
  const blocks = new BlockCollector();
  const families = new FamilyCollector();
  const reach = new ReachCollector(site);
  const files = pagesOf(site);
  const pages = files.map((file, i) => {
    const page = openPage(file);
    const survey = page ? surveyPage(page, context.sheets, blocks) : opaquePage(file);
    if (page) {
      families.add(page);
      look({ ...page, survey, cascade: session.openTree(site, file, page.tree) }, checks, reach);
    }
    if (i % 100 === 99) session.forgetPages();
    onPage?.(i + 1, files.length, survey);
    return survey;
  });
  const whole = { survey: makeSurvey(site, pages, context.sheets, blocks), families: families.families() };
  const all = checks.flatMap((check) => check.findings(whole));
  const findings = withoutEchoes(all).filter((f) => !kinds || kinds.includes(f.kind));
  findings.sort((a, b) => weight[a.severity] - weight[b.severity]);
  return { ...whole, findings, reach: reach.rules(), elementsOf: (family) => reach.elementsOf(family) };
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

function look(page: CheckedPage, checks: readonly Check[], reach: ReachCollector): void {
  for (const check of checks) check.page?.(page);
  const perElement = checks.filter((check) => check.element !== undefined);
  reach.page(page);
  const index = page.cascade.session.sharedIndex(page.cascade.rules, page.cascade.quirks);
  for (const element of page.tree.elements) {
    const matched = matchAtRest(element, index);
    reach.element(matched);
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
