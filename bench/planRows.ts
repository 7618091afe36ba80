import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';

interface Report {
  readonly totals: { readonly pages: number; readonly blocksAfter: number; readonly attributesAfter: number };
  readonly figures: Readonly<Record<string, number>>;
  readonly proof: { readonly verdict: string };
}

/** What the plan of a folder costs those who keep the site, as rows: a name and a figure. Goals are those of a sheet worth keeping. */
export function planRows(folder: string): readonly (readonly [step: string, figure: string, note: string])[] {
  const out = fs.mkdtempSync(path.join(os.tmpdir(), 'syndeton-bench-'));
  try {
    const args = [
      'packages/cli/bin/syndeton.mjs',
      'gather',
      folder,
      '--missing',
      'nothing',
      '--out',
      path.join(out, 'site'),
      '--json',
    ];
    const report = JSON.parse(execFileSync(process.execPath, args, { encoding: 'utf8', maxBuffer: 1e9 })) as Report;
    const { totals, figures: f, proof } = report;
    const perPage = (links: number): string => (links / totals.pages).toFixed(1);
    return [
      ['new sheets', String(f['newSheets']), `target 1; proof: ${proof.verdict}`],
      ['left in pages', String(totals.blocksAfter + totals.attributesAfter), 'target 0: blocks and style attributes'],
      ['links a page', `${perPage(f['linksBefore']!)} → ${perPage(f['linksAfter']!)}`, ''],
      ['marks', String(f['marks']), `on ${f['markedPages']} of ${totals.pages} pages`],
      ['classes made, names used', `${f['classesMade']}, ${f['namesUsed']}`, ''],
      ['repeated classes', String(f['repeatedClasses']), 'target 0'],
      ['declarations twice', String(f['declarationsTwice']), 'target 0'],
      ['bytes', `${f['bytesBefore']} → ${f['bytesAfter']}`, ''],
      ['compressed', `${f['gzipBefore']} → ${f['gzipAfter']}`, 'pages and sheets, each by itself'],
    ];
  } finally {
    fs.rmSync(out, { recursive: true, force: true });
  }
}
