import type { MatchedSelector } from '../cascade/matchElement.ts';
import type { PageCascade } from '../cascade/pageCascade.ts';
import type { ElementNode } from '../page/nodes.ts';
import type { Sheet } from '../sheet/sheet.ts';
import type { Site, SiteFile } from '../source/site.ts';
import type { LineIndex } from '../source/span.ts';
import type { Family } from '../survey/families.ts';
import type { OpenPage } from '../survey/openPage.ts';
import type { SheetReader } from '../survey/sheetReader.ts';
import type { PageSurvey, Survey } from '../survey/survey.ts';
import type { FindingKind, FoundFinding } from './finding.ts';

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
 * One check: sees each sheet, then each page in page order with each of its elements and the rules that reach it, and says
 * in the end what it found.
 */
export interface Check {
  sheet?(sheet: CheckedSheet): void;
  page?(page: CheckedPage): void;
  /** `matched` at rest, weakest first. */
  element?(page: CheckedPage, element: ElementNode, matched: readonly MatchedSelector[]): void;
  findings(site: CheckedSite): readonly FoundFinding[];
}

export interface CheckMaker {
  readonly kinds: readonly FindingKind[];
  readonly make: (context: CheckContext) => Check;
}
