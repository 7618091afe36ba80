import {
  describeAttributeStays,
  describeOperationProblem,
  describeStayReason,
  embeddedBlocks,
  freeSheetName,
  pagesOf,
  parsePage,
  planGatherRules,
  applyChangeSet,
  attributesSheetBeside,
  planLookKeepingAttributes,
  planLookKeepingGather,
  proveSites,
  type GatherPlan,
  type PlannedSheet,
  type LeftRule,
  type Proof,
  type Site,
} from '@syndeton/core';
import type { GatherReportReply } from '@syndeton/contract';
import { plural, printProof } from './printReport.ts';
import { checkTarget, readSiteFolder, UsageProblem, writeSiteFolder } from './siteFolder.ts';

export interface GatherOptions {
  readonly out: string;
  readonly sheet: string | undefined;
  readonly json: boolean;
  readonly allowDifferences: boolean;
  /** Style attributes stay on their elements. */
  readonly keepAttributes: boolean;
}

type WrittenSheet = Omit<PlannedSheet, 'why'> & { readonly why?: string | undefined };

interface Outcome {
  readonly site: Site;
  readonly proof: Proof;
  readonly sheets: readonly WrittenSheet[];
  readonly stayed: readonly { readonly page: string | null; readonly rule: string | null; readonly reason: string }[];
}

/** `syndeton gather`: 0 when every page looks the same, 1 when one differs. */
export async function runGather(
  folder: string,
  options: GatherOptions,
  print: (text: string) => void,
): Promise<number> {
  await checkTarget(options.out);
  const before = await readSiteFolder(folder);
  const sheet = options.sheet ?? freeSheetName(before.files.keys());
  const blocks = options.allowDifferences ? gatherAll(before, sheet) : gatherSafely(before, sheet);
  const outcome = options.keepAttributes ? blocks : withAttributes(before, blocks, sheet);
  const same = outcome.proof.verdict === 'same';
  const written = same || options.allowDifferences;
  if (written) await writeSiteFolder(outcome.site, options.out);
  const report = makeReport(before, outcome, written);
  print(options.json ? JSON.stringify(report, null, 2) : printGather(report, options.out));
  return same ? 0 : 1;
}

function gatherSafely(site: Site, sheet: string): Outcome {
  const planned = planLookKeepingGather(site, sheet);
  if (!planned.ok) throw new UsageProblem(describeOperationProblem(planned.problem));
  const { value } = planned;
  return {
    site: value.site,
    proof: value.proof,
    sheets: value.sheets,
    stayed: staying(value.site),
  };
}

const sheetOf = ({ sheet, moved, pages }: GatherPlan): WrittenSheet => ({ path: sheet, rules: moved.length, pages });

/** Style attributes as well, as classes of a sheet beside the shared one that every such page links last. */
function withAttributes(before: Site, blocks: Outcome, sheet: string): Outcome {
  const planned = planLookKeepingAttributes(blocks.site, {
    kind: 'gather-attributes',
    sheet: attributesSheetBeside(sheet, blocks.site.files.keys()),
  });
  const left = (
    stayed: readonly {
      readonly page: string;
      readonly line: number;
      readonly reason: Parameters<typeof describeAttributeStays>[0];
    }[],
  ): Outcome['stayed'] =>
    stayed.map(({ page, line, reason }) => ({
      page,
      rule: `style attribute, line ${line}`,
      reason: describeAttributeStays(reason),
    }));
  if (!planned.ok) return blocks;
  const { site, plan, stayed } = planned.value;
  return {
    site,
    proof: proveSites(before, site),
    sheets: [
      ...blocks.sheets,
      { path: plan.sheet, rules: plan.groups.length, pages: [...new Set(plan.groups.flatMap((group) => group.pages))] },
    ],
    stayed: [
      ...blocks.stayed,
      ...left(plan.left),
      ...stayed.map(({ key, page, reason }) => ({ page, rule: `style="${key}"`, reason })),
    ],
  };
}

function gatherAll(site: Site, sheet: string): Outcome {
  const plan = planGatherRules(site, { kind: 'gather-rules', sheet });
  if (!plan.ok) {
    if (plan.problem.kind === 'nothing-to-gather')
      return { site, proof: proveSites(site, site), sheets: [], stayed: staying(site) };
    throw new UsageProblem(describeOperationProblem(plan.problem));
  }
  const applied = applyChangeSet(site, plan.value.changes);
  if (!applied.ok) throw new UsageProblem(describeOperationProblem(applied.problem));
  return {
    site: applied.value,
    proof: proveSites(site, applied.value),
    sheets: [sheetOf(plan.value)],
    stayed: leftRules(plan.value.left),
  };
}

function leftRules(left: readonly LeftRule[]): Outcome['stayed'] {
  return left.map(({ page, label, reason }) => ({
    page,
    rule: label,
    reason: reason === 'order-conflict' ? 'pages hold it in orders that cannot be joined' : describeStayReason(reason),
  }));
}

/** The blocks still in pages, and why. */
function staying(site: Site): Outcome['stayed'] {
  return pagesOf(site).flatMap((page) =>
    embeddedBlocks(parsePage(page.text ?? ''), page.path).map((block) => ({
      page: page.path,
      rule: null,
      reason: block.stays
        ? describeStayReason(block.stays)
        : block.units.length === 0
          ? 'it holds no rule'
          : 'it could not be moved with the same look',
    })),
  );
}

function makeReport(before: Site, outcome: Outcome, written: boolean): GatherReportReply {
  const count = (site: Site, path: string): number => {
    const text = site.files.get(path)?.text;
    return text === undefined ? 0 : embeddedBlocks(parsePage(text), path).length;
  };
  const pages = pagesOf(before).map(({ path, bytes }) => ({
    path,
    blocksBefore: count(before, path),
    blocksAfter: count(outcome.site, path),
    attributesBefore: attributesOn(before, path),
    attributesAfter: attributesOn(outcome.site, path),
    bytesBefore: bytes.length,
    bytesAfter: outcome.site.files.get(path)?.bytes.length ?? 0,
  }));
  const sum = (read: (page: (typeof pages)[number]) => number): number =>
    pages.reduce((total, page) => total + read(page), 0);
  return {
    sheets: outcome.sheets.map(({ path, rules, pages }) => ({
      path,
      rules,
      bytes: outcome.site.files.get(path)?.bytes.length ?? 0,
      pages: [...pages],
    })),
    written,
    rules: outcome.sheets.reduce((total, sheet) => total + sheet.rules, 0),
    pages,
    totals: {
      pages: pages.length,
      blocksBefore: sum((p) => p.blocksBefore),
      blocksAfter: sum((p) => p.blocksAfter),
      attributesBefore: sum((p) => p.attributesBefore),
      attributesAfter: sum((p) => p.attributesAfter),
      bytesBefore: sum((p) => p.bytesBefore),
      bytesAfter: sum((p) => p.bytesAfter),
    },
    stayed: [...outcome.stayed],
    proof: outcome.proof as GatherReportReply['proof'],
  };
}

const attributesOn = (site: Site, path: string): number =>
  parsePage(site.files.get(path)?.text ?? '').elements.filter((e) => e.attributes.some((a) => a.name === 'style'))
    .length;

function printGather(report: GatherReportReply, out: string): string {
  const { totals } = report;
  const lines = report.sheets.length === 0 ? ['Nothing was gathered.'] : [];
  for (const { path, rules, bytes, pages } of report.sheets)
    lines.push(
      `${path}: ${plural(rules, 'rule')} gathered, ${bytes.toLocaleString('en')} bytes, linked by ${pages.length === 1 ? pages[0]! : plural(pages.length, 'page')}`,
    );
  lines.push(
    '',
    `Embedded blocks: ${totals.blocksBefore} → ${totals.blocksAfter}. Style attributes: ${totals.attributesBefore} → ${totals.attributesAfter}. Bytes in pages: ${totals.bytesBefore.toLocaleString('en')} → ${totals.bytesAfter.toLocaleString('en')}.`,
  );
  if (report.stayed.length > 0) {
    lines.push('', `Stayed (${report.stayed.length}):`);
    for (const { page, rule, reason } of report.stayed.slice(0, 40))
      lines.push(`  ${rule ?? 'all blocks'}${page === null ? '' : ` (${page})`}: ${reason}`);
    if (report.stayed.length > 40) lines.push(`  and ${report.stayed.length - 40} more (--json lists all)`);
  }
  lines.push('', printProof(report.proof as unknown as Proof));
  lines.push(
    '',
    report.written
      ? `The whole site is in ${out}.`
      : 'Nothing was written. --allow-differences writes it all the same.',
  );
  return lines.join('\n');
}
