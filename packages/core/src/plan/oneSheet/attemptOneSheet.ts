import { planGatherSheet, type GatherSheet } from '../../operations/gather/gatherSheet.ts';
import { SheetNames } from '../../operations/gather/sheetNames.ts';
import { applyPlan } from '../../operations/readings.ts';
import type { Site } from '../../source/site.ts';
import { folderOf } from '../../source/sitePath.ts';
import type { Attempt, AttemptPages, PlanOptions } from '../planOptions.ts';
import type { OneSheetOptions } from './oneSheetOptions.ts';
import { planOneSheet } from './planOneSheet.ts';

/** One sheet for what the rules alone allow; with `folders` one more for each folder. */
export function oneSheet(
  site: Site,
  sheet: string,
  { sharing, strict, unmarkable }: AttemptPages,
  { oldBrowsers, singlePage, keepAttributes, sheets: kinds, maxSheets = Infinity }: PlanOptions,
): Attempt {
  const singlesStay = singlePage === 'stay' || singlePage === 'own';
  const inFolders = kinds === 'folders';
  const options: OneSheetOptions = {
    sheet,
    pages: sharing,
    stays: (pages) => (singlesStay && pages.length === 1) || (inFolders && folderAlone(pages) !== undefined),
    ...(strict ? { strict } : {}),
    ...(unmarkable ? { unmarkable } : {}),
    ...(oldBrowsers ? { oldBrowsers } : {}),
  };
  const main = mainSheet(site, options, keepAttributes === true);
  return inFolders
    ? withFolders(main, { ...options, stays: (pages) => singlesStay && pages.length === 1 }, maxSheets)
    : main;
}

/** The folder that all these pages lie in, when it is not the site's own. */
function folderAlone(pages: readonly string[]): string | undefined {
  const [first, ...others] = new Set(pages.map(folderOf));
  return others.length === 0 && first !== '' ? first : undefined;
}

/** What only the pages of one folder have goes to a sheet of that folder's. */
function withFolders(main: Attempt, options: OneSheetOptions, most: number): Attempt {
  const names = new SheetNames(main.site, folderOf(options.sheet));
  names.take(options.sheet);
  const folders = [...new Set(options.pages.map(folderOf))].filter((folder) => folder !== '').sort();
  let at = main;
  for (const folder of folders) {
    if (at.sheets.length >= most) break;
    const pages = options.pages.filter((page) => folderOf(page) === folder);
    const holding = pages.filter((page) => /<style/i.test(at.site.files.get(page)?.text ?? ''));
    const operation =
      holding.length === 0 ? undefined : planOneSheet(at.site, { ...options, pages, sheet: names.propose(pages, []) });
    const next = operation && applied(at.site, operation);
    if (!operation || !next) continue;
    const why = `Only pages in ${folder} have these rules.`;
    at = {
      ...at,
      operations: [...at.operations, operation],
      sheets: [...at.sheets, ...next.sheets.map((one) => ({ ...one, why }))],
      site: next.site,
    };
  }
  return at;
}

function mainSheet(site: Site, options: OneSheetOptions, keepAttributes: boolean): Attempt {
  const { pages: sharing } = options;
  const alone = planOneSheet(site, options);
  const nothing = { operations: [], sheets: [], site };
  if (!alone) return nothing;
  const holding = new Set(alone.pages);
  const others = keepAttributes ? [] : sharing.filter((page) => !holding.has(page) && hasAttributes(site, page));
  const together = others.length === 0 ? alone : planOneSheet(site, { ...options, alsoLinking: others });
  const asGood =
    together !== undefined && costOf(together) <= costOf(alone) && together.rules.length === alone.rules.length;
  const operation = asGood ? together : alone;
  const next = applied(site, operation);
  return next ? { operations: [operation], ...next, attributesApart: !asGood } : nothing;
}

function applied(site: Site, operation: GatherSheet): Pick<Attempt, 'sheets' | 'site'> | undefined {
  const plan = planGatherSheet(site, operation);
  const next = plan.ok ? applyPlan(site, plan.value) : undefined;
  if (!plan.ok || !next?.ok) return undefined;
  const { rules, pages } = plan.value;
  const sheets = rules === 0 ? [] : [{ path: plan.value.sheet, rules, pages, why: undefined }];
  return { sheets, site: next.value };
}

const hasAttributes = (site: Site, page: string): boolean => /\sstyle\s*=/i.test(site.files.get(page)?.text ?? '');

/** Marks weigh most; then how many rules ask for one. */
const costOf = ({ marks = [], rules }: GatherSheet): number =>
  marks.length * 1000 + rules.filter(({ selector }) => selector !== undefined).length;
