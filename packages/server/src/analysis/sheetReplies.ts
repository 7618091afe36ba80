import {
  changesOfLook,
  linkedSheets,
  ruleScore,
  selectorReach,
  sheetOutline,
  siteWords,
  type Environment,
  type KeptOutcomes,
  type Proof,
  type Site,
} from '@syndeton/core';
import type { EffectReply, RuleScoreReply, SheetReachReply, SiteWordsReply } from '@syndeton/contract';

/** More pages than this are summed up, so many strokes that a strip stays one. */
const mostStrokes = 60;
const mostChanges = 200;

export function sheetReachReply(site: Site, outcomes: KeptOutcomes, path: string): SheetReachReply | undefined {
  const file = site.files.get(path);
  if (file?.kind !== 'sheet') return undefined;
  const pages = linkedSheets(site).find((sheet) => sheet.path === path)?.pages ?? [];
  const linking = new Set(pages);
  const place = new Map(pages.map((page, i) => [page, i]));
  const perStroke = Math.ceil(pages.length / mostStrokes);
  const rules = sheetOutline(file.text ?? '')
    .filter(({ isNested }) => !isNested)
    .map(({ start, selector }) => {
      const reach = selectorReach(outcomes, selector, linking);
      const strip = new Array<number>(pages.length === 0 ? 0 : Math.ceil(pages.length / perStroke)).fill(0);
      for (const page of reach?.pages ?? []) strip[Math.floor(place.get(page.path)! / perStroke)]! += page.elements;
      return { start, elements: reach?.elements ?? 0, strip, pages: reach?.pages.length ?? 0 };
    });
  return { path, hash: file.hash, pages: [...pages], rules };
}

export function ruleScoreReply(
  outcomes: KeptOutcomes,
  { path, start, environment }: { path: string; start: number; environment: Environment },
): RuleScoreReply {
  const { specificity, declarations, beaters } = ruleScore(outcomes, environment, { path, start });
  return {
    specificity: specificity ?? null,
    declarations: declarations.map((one) => ({ ...one, pages: [...one.pages] })),
    beaters: beaters.map((one) => ({
      ...one,
      sheet: one.sheet ?? null,
      start: one.start ?? null,
      specificity: one.specificity ?? null,
      properties: [...one.properties],
      pages: [...one.pages],
    })),
  };
}

export function wordsReply(site: Site, outcomes: KeptOutcomes): SiteWordsReply {
  const { elements, classes, ids, customProperties, colours, fonts } = siteWords(site, outcomes);
  return {
    elements: [...elements],
    classes: [...classes],
    ids: [...ids],
    customProperties: [...customProperties],
    colours: [...colours],
    fonts: [...fonts],
  };
}

export function effectReply({ pages }: Pick<Proof, 'pages'>): EffectReply {
  const those = (verdict: string): string[] => pages.flatMap((page) => (page.verdict === verdict ? [page.path] : []));
  const said = (of: (page: Proof['pages'][number]) => readonly string[]): string[] => [...new Set(pages.flatMap(of))];
  return {
    differing: those('differs'),
    unsure: those('unsure'),
    elements: pages.reduce((sum, page) => sum + page.differingElements, 0),
    changes: changesOfLook(pages)
      .slice(0, mostChanges)
      .map((one) => ({ ...one, before: one.before ?? null, after: one.after ?? null, pages: [...one.pages] })),
    notes: said((page) => page.notes).slice(0, 50),
    doubts: said((page) => page.doubts.map(({ sentence }) => sentence)).slice(0, 50),
  };
}
