import type { MatchedSelector } from '../cascade/indexedSelector.ts';
import type { PageCascade } from '../cascade/pageCascade.ts';
import type { ElementNode } from '../page/nodes.ts';
import type { Sheet } from '../sheet/sheet.ts';
import type { Site, SiteFile } from '../source/site.ts';
import type { LineIndex } from '../source/span.ts';
import type { Family } from '../survey/families.ts';
import type { OpenPage } from '../survey/openPage.ts';
import type { SheetMoves } from '../survey/sheetMoves.ts';
import type { SheetReader } from '../survey/sheetReader.ts';
import type { PageSurvey, Survey } from '../survey/survey.ts';
import type { FindingKind, FoundFinding } from './finding.ts';
import type { PageMarks } from './pageMarks.ts';

/** What every check may ask about the site as a whole. */
export interface CheckContext {
  readonly site: Site;
  readonly sheets: SheetReader;
  /** Site paths by their lower-case spelling. */
  readonly pathOfLowerCase: ReadonlyMap<string, string>;
  /** Site paths by file name in lower case. */
  readonly pathsOfName: ReadonlyMap<string, readonly string[]>;
}

export interface CheckedPage extends OpenPage {
  readonly survey: PageSurvey;
  readonly cascade: PageCascade;
  readonly marks: PageMarks;
}

export interface CheckedSheet {
  readonly file: SiteFile;
  readonly path: string;
  readonly text: string;
  readonly sheet: Sheet;
  readonly lines: LineIndex;
}

/** The whole site, once every page and sheet was looked at. */
export interface CheckedSite {
  readonly survey: Survey;
  readonly families: readonly Family[];
}

/**
 * One check. What a page shows is seen by a check of that page's own, which is kept as long as the page is what it was; what the site
 * shows by another one, which sees each sheet, then takes over what was seen of each page, in page order, and says what it found.
 * A check of a page holds no tree.
 */
export interface Check {
  sheet?(sheet: CheckedSheet): void;
  page?(page: CheckedPage): void;
  /** `matched` at rest, weakest first. */
  element?(page: CheckedPage, element: ElementNode, matched: readonly MatchedSelector[]): void;
  /** Of a page's own check: the same where rules of sheets stand elsewhere now; itself where it holds no places in sheets. */
  moved?(sheets: ReadonlyMap<string, SheetMoves>): Check;
  /** Takes over what a check of the same kind has seen of one page; that one stays as it is. */
  merge?(page: this): void;
  findings(site: CheckedSite): readonly FoundFinding[];
}

export interface CheckMaker {
  readonly kinds: readonly FindingKind[];
  readonly make: (context: CheckContext) => Check;
}
