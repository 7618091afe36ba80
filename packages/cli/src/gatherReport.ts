import { gzipSync } from 'node:zlib';
import {
  embeddedBlocks,
  pagesOf,
  parsePage,
  planFigures,
  sheetsOf,
  type Operation,
  type PlannedSheet,
  type Proof,
  type Site,
  type Staying,
  type Trade,
} from '@syndeton/core';
import type { GatherReportReply } from '@syndeton/contract';
import { plural, printProof } from './printReport.ts';
import { printTrades } from './printTrades.ts';

/** What gathering comes to. */
export interface Outcome {
  readonly site: Site;
  readonly proof: Proof;
  readonly sheets: readonly (Omit<PlannedSheet, 'why'> & { readonly why?: string | undefined })[];
  readonly stays: readonly Staying[];
  readonly operations: readonly Operation[];
  /** What could be given up for a simpler sheet. */
  readonly trades?: readonly Trade[];
}

type ReportPage = GatherReportReply['pages'][number];

/** What `syndeton gather --json` prints. */
export function makeGatherReport(before: Site, outcome: Outcome, written: boolean): GatherReportReply {
  const staying = new Map<string, ReportPage['stayed']>();
  for (const { page, kind, line, code, reason } of outcome.stays)
    staying.set(page, [...(staying.get(page) ?? []), { kind, line, code, reason }]);
  const pages = pagesOf(before).map(({ path, size }): ReportPage => {
    const [old, now] = [countIn(before, path), countIn(outcome.site, path)];
    return {
      path,
      blocksBefore: old.blocks,
      blocksAfter: now.blocks,
      attributesBefore: old.attributes,
      attributesAfter: now.attributes,
      bytesBefore: size,
      bytesAfter: outcome.site.files.get(path)?.size ?? 0,
      stayed: staying.get(path) ?? [],
    };
  });
  const sum = (read: (page: ReportPage) => number): number => pages.reduce((total, page) => total + read(page), 0);
  return {
    sheets: outcome.sheets.map(({ path, rules, pages, why }) => ({
      path,
      rules,
      bytes: outcome.site.files.get(path)?.size ?? 0,
      pages: [...pages],
      ...(why === undefined ? {} : { why }),
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
    figures: {
      ...planFigures(before, outcome.site, outcome.operations),
      ...sizes('Before', before),
      ...sizes('After', outcome.site),
    } as GatherReportReply['figures'],
    proof: outcome.proof as GatherReportReply['proof'],
  };
}

/** Of pages and sheets, as they are and compressed. */
function sizes(when: 'Before' | 'After', site: Site): Readonly<Record<string, number>> {
  const files = [...pagesOf(site), ...sheetsOf(site)];
  const sum = (list: readonly number[]): number => list.reduce((total, one) => total + one, 0);
  return {
    [`bytes${when}`]: sum(files.map(({ size }) => size)),
    [`gzip${when}`]: sum(files.map(({ bytes }) => gzipSync(bytes).length)),
  };
}

function countIn(site: Site, path: string): { readonly blocks: number; readonly attributes: number } {
  const text = site.files.get(path)?.text;
  if (text === undefined || !/<style|style\s*=/i.test(text)) return { blocks: 0, attributes: 0 };
  const tree = parsePage(text);
  const attributes = tree.elements.filter((e) => e.attributes.some((a) => a.name === 'style')).length;
  return { blocks: embeddedBlocks(tree, path).length, attributes };
}

export function printGather(
  report: GatherReportReply,
  out: string,
  absent: readonly string[] = [],
  trades: readonly Trade[] = [],
): string {
  const { totals } = report;
  const lines = report.sheets.length === 0 ? ['Nothing was gathered.'] : [];
  for (const { path, rules, bytes, pages, why } of report.sheets) {
    const linked = pages.length === 1 ? pages[0]! : plural(pages.length, 'page');
    lines.push(`${path}: ${plural(rules, 'rule')}, ${bytes.toLocaleString('en')} bytes, linked by ${linked}`);
    if (why !== undefined) lines.push(`  ${why}`);
  }
  lines.push(
    '',
    `Embedded blocks: ${totals.blocksBefore} → ${totals.blocksAfter}. Style attributes: ${totals.attributesBefore} → ${totals.attributesAfter}. Bytes in pages: ${totals.bytesBefore.toLocaleString('en')} → ${totals.bytesAfter.toLocaleString('en')}.`,
  );
  const { figures } = report;
  if (report.rules > 0)
    lines.push(
      `${plural(figures.newSheets, 'new sheet')}; ${(figures.linksBefore / totals.pages).toFixed(1)} → ${(figures.linksAfter / totals.pages).toFixed(1)} links a page; ${plural(figures.marks, 'class', 'classes')} on the body of ${plural(figures.markedPages, 'page')}; for style attributes ${plural(figures.classesMade, 'new class', 'new classes')}, ${plural(figures.namesUsed, 'rule')} by names that were there.`,
      `Pages and sheets: ${figures.bytesBefore.toLocaleString('en')} → ${figures.bytesAfter.toLocaleString('en')} bytes, compressed ${figures.gzipBefore.toLocaleString('en')} → ${figures.gzipAfter.toLocaleString('en')}.`,
    );
  const stayed = report.pages.flatMap(({ path, stayed }) => stayed.map((one) => ({ path, ...one })));
  if (stayed.length > 0) {
    lines.push('', `Stayed (${stayed.length}):`);
    for (const { path, line, kind, reason } of stayed.slice(0, 40))
      lines.push(
        `  ${path}:${line} ${kind === 'block' ? 'block' : kind === 'attribute' ? 'style attribute' : 'presentational part'}: ${reason}`,
      );
    if (stayed.length > 40) lines.push(`  and ${stayed.length - 40} more (--json lists all)`);
  }
  lines.push(...printTrades(trades), '', printProof(report.proof as unknown as Proof, absent));
  lines.push(
    '',
    report.written
      ? `The whole site is in ${out}.`
      : 'Nothing was written. --allow-differences writes it all the same.',
  );
  return lines.join('\n');
}
