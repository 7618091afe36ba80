import type { SinglePage } from '@syndeton/core';
import { UsageProblem } from '../siteFolder.ts';
import type { NotHereFlags } from './sheetsNotHere.ts';

/** The flags of `syndeton gather` as written. */
export interface GatherFlags extends NotHereFlags {
  readonly out: string;
  readonly sheet?: string;
  readonly folder: string;
  readonly keep?: string;
  readonly hints?: boolean;
  readonly ids?: boolean;
  readonly keepImports?: boolean;
  readonly oldBrowsers?: boolean;
  readonly sheets: string;
  readonly important?: boolean;
  readonly singlePage: string;
  readonly maxSheets?: string;
  readonly trade?: string;
  readonly plan?: string;
  readonly json?: boolean;
  readonly allowDifferences?: boolean;
}

/** What the flags ask for. */
export interface GatherOptions extends NotHereFlags {
  readonly out: string;
  readonly sheet: string | undefined;
  /** The folder new sheets go to, when no sheet is named. */
  readonly folder: string | undefined;
  readonly json: boolean;
  readonly allowDifferences: boolean;
  /** Style attributes stay on their elements. */
  readonly keepAttributes: boolean;
  /** Presentational attributes go as well. */
  readonly hints: boolean;
  /** Rules ask for an element's ID where it alone has such a style attribute. */
  readonly ids: boolean;
  /** Imports of embedded blocks stay imports. */
  readonly keepImports: boolean;
  /** No selector with `:where()`. */
  readonly oldBrowsers: boolean;
  /** One new sheet whose rules ask for classes of their pages, one more for each folder, or as many as need no classes. */
  readonly sheets: 'one' | 'folders' | 'own';
  /** Important declarations in place of stronger selectors. */
  readonly important: boolean;
  readonly singlePage: SinglePage | undefined;
  readonly maxSheets: number | undefined;
  /** Trades to take, by their number in the list that the plan without them prints. */
  readonly trade: readonly number[];
  /** A file that holds a plan, or that is written with one. */
  readonly plan: string | undefined;
}

/** The options of flags, or what is wrong with them. */
export function gatherOptions(flags: GatherFlags): GatherOptions {
  const { keep, singlePage, maxSheets, sheets, missing, remote } = flags;
  if (keep !== undefined && keep !== 'attributes')
    throw new UsageProblem(`--keep ${keep} is not known. attributes is allowed.`);
  if (singlePage !== 'shared' && singlePage !== 'own' && singlePage !== 'stay')
    throw new UsageProblem(`--single-page ${singlePage} is not known. shared, own and stay are allowed.`);
  if (sheets !== 'one' && sheets !== 'folders' && sheets !== 'own')
    throw new UsageProblem(`--sheets ${sheets} is not known. one, folders and own are allowed.`);
  if (flags.trade !== undefined && (flags.plan !== undefined || flags.allowDifferences))
    throw new UsageProblem('--trade makes a plan of its own. It goes with neither --plan nor --allow-differences.');
  if (maxSheets !== undefined && !/^[1-9]\d{0,3}$/.test(maxSheets))
    throw new UsageProblem(
      `--max-sheets ${maxSheets} is not a number of sheets. A whole number from 1 to 9999 is allowed.`,
    );
  return {
    out: flags.out,
    sheet: flags.sheet,
    folder: flags.folder,
    json: flags.json ?? false,
    allowDifferences: flags.allowDifferences ?? false,
    keepAttributes: keep === 'attributes',
    hints: flags.hints ?? false,
    ids: flags.ids ?? false,
    keepImports: flags.keepImports ?? false,
    oldBrowsers: flags.oldBrowsers ?? false,
    sheets,
    missing,
    remote,
    important: flags.important ?? false,
    singlePage,
    maxSheets: maxSheets === undefined ? undefined : Number(maxSheets),
    trade: flags.trade === undefined ? [] : flags.trade.split(',').map(tradeNumber),
    plan: flags.plan,
  };
}

function tradeNumber(text: string): number {
  if (!/^[1-9]\d{0,3}$/.test(text))
    throw new UsageProblem(
      `--trade ${text} is no number of a trade. Numbers from the list that gather prints are allowed, as 2 or 1,3.`,
    );
  return Number(text);
}
