import { SheetCache } from '../cascade/sheetCache.ts';
import { changedFiles } from '../source/changeSet.ts';
import type { Site, SiteFile } from '../source/site.ts';
import type { BlockCollector } from '../survey/blockCollector.ts';
import type { PageRules } from '../survey/families.ts';
import { movedReach, rulesOfSheet, type PageReach, type RuleTable } from '../survey/reach.ts';
import type { SheetMoves } from '../survey/sheetMoves.ts';
import { SheetReader } from '../survey/sheetReader.ts';
import type { PageSurvey, SurveySource } from '../survey/survey.ts';
import { unchangedPages } from '../survey/unchangedPages.ts';
import type { Check } from './check.ts';
import { isBaseline } from './isBaseline.ts';

/** What was seen of one page, without its tree. */
export interface SeenPage {
  readonly file: SiteFile;
  readonly survey: PageSurvey;
  readonly blocks: BlockCollector;
  /** None of a page that cannot be read. */
  readonly rules: PageRules | undefined;
  readonly reach: PageReach;
  /** One for each kind of check, in the order of `checkMakers`. */
  readonly checks: readonly Check[];
}

type Seen = ReadonlyMap<string, SeenPage>;

/**
 * What was seen of pages in one state of a site and is true in another. Pages may ask which files there are and about any that is no
 * page: while all these stay, everything is; where only plain rules of sheets changed, what was seen of pages that none of them reaches,
 * with the places it has now.
 */
export function keptPages(then: Site, seen: Seen, now: Site, table: RuleTable): Seen {
  const changes = changedFiles(then, now);
  const kindOf = (path: string): string | undefined => now.files.get(path)?.kind;
  if (changes.some(({ path, change }) => change !== 'edited' || kindOf(path) === 'other')) return new Map();
  const sheets = changes.map(({ path }) => path).filter((path) => kindOf(path) === 'sheet');
  if (sheets.length === 0) return seen;
  const [before, after] = [new SheetReader(then), new SheetReader(now)];
  const unchanged = sheets.every((path) => isOfOneSort(before, after, path)) ? unchangedPages(then, now) : undefined;
  if (!unchanged) return new Map();
  const move = moverTo(now, after, unchanged.moves, table);
  const kept = new Map<string, SeenPage>();
  for (const [path, page] of seen)
    if (now.files.get(path) === page.file && (page.file.text === undefined || unchanged.has(page.file)))
      kept.set(path, move(page));
  return kept;
}

/** A sheet that comes to be a baseline, or ceases to be one or to have rules, is told of otherwise on all pages. */
function isOfOneSort(before: SheetReader, after: SheetReader, path: string): boolean {
  const [old, fresh] = [before.read(path), after.read(path)];
  return (
    old !== undefined &&
    fresh !== undefined &&
    old.rules > 0 &&
    fresh.rules > 0 &&
    isBaseline(old.sheet) === isBaseline(fresh.sheet)
  );
}

function moverTo(
  site: Site,
  reader: SheetReader,
  moves: ReadonlyMap<string, SheetMoves>,
  table: RuleTable,
): (page: SeenPage) => SeenPage {
  const cache = new SheetCache();
  const rules = new Map([...moves.keys()].map((path) => [path, rulesOfSheet(site, path, cache, table)]));
  const isChanged = ({ target, problem }: SurveySource): boolean =>
    problem === undefined && target !== undefined && moves.has(target);
  return (page) => {
    if (!page.survey.sources.some(isChanged)) return page;
    return {
      ...page,
      survey: surveyAfter(page.survey, isChanged, reader),
      reach: movedReach(page.reach, moves, rules),
      checks: page.checks.map((check) => check.moved?.(moves) ?? check),
    };
  };
}

function surveyAfter(
  survey: PageSurvey,
  isChanged: (source: SurveySource) => boolean,
  reader: SheetReader,
): PageSurvey {
  const sources = survey.sources.map((source) => {
    if (!isChanged(source)) return source;
    const { rules, declarations, bytes } = reader.read(source.target!)!;
    return { ...source, rules, declarations, bytes };
  });
  const shared = sources.filter(({ kind }) => kind === 'linked' || kind === 'imported');
  return { ...survey, sources, sharedBytes: shared.reduce((sum, { bytes }) => sum + bytes, 0) };
}
