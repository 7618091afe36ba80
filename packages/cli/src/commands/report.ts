import fs from 'node:fs/promises';
import { gzipSync } from 'node:zlib';
import { checkSite, handoffReport, proveSites, reportCsv, reportHtml, withAbsent } from '@syndeton/core';
import type { Command } from 'commander';
import { UsageProblem } from '../siteFolder.ts';
import type { Session } from './session.ts';
import { addNotHereFlags, takenAsNothing, type NotHereFlags } from './sheetsNotHere.ts';

const formats = ['html', 'csv', 'json'] as const;

/** Adds `syndeton report` to the program. */
export function addReport(program: Command, { print, site, end }: Session): void {
  const command = program
    .command('report <before> <after>')
    .description('what changed between two states of a site, with the proof, what is still wrong, and sizes')
    .requiredOption('--out <file>', 'where it is written; a file that is there is replaced')
    .option('--format <format>', 'html (prints well), csv or json; else as the name of the file says')
    .option('--title <title>', 'what stands at its head', 'Hand-off')
    .addHelpText(
      'after',
      '\nExamples:\n  syndeton report old new --out report.html\n  syndeton report old new --out files.csv --missing nothing',
    );
  addNotHereFlags(command).action(async (before: string, after: string, options: ReportFlags) => {
    const format = formats.find((one) => one === (options.format ?? /\.(\w+)$/.exec(options.out)?.[1]));
    if (!format)
      throw new UsageProblem(
        `${options.format ?? options.out} names no kind of report. html, csv and json are allowed.`,
      );
    const old = await site(before);
    const absent = takenAsNothing(old, options);
    const [start, now] = [withAbsent(old, absent), withAbsent(await site(after), absent)];
    const proof = proveSites(start, now);
    const packed = (bytes: Uint8Array): number => gzipSync(bytes).length;
    const report = handoffReport(start, now, proof, {
      title: options.title,
      from: before,
      to: after,
      check: checkSite(now),
      packed,
    });
    const text =
      format === 'html' ? reportHtml(report) : format === 'csv' ? reportCsv(report) : JSON.stringify(report, null, 2);
    await fs.writeFile(options.out, text);
    print(
      `${options.out}: ${report.files.length} changed files, ${report.proof.same} of ${proof.pages.length} pages the same.`,
    );
    end({ same: 0, intended: 0, differs: 1, unsure: 3 }[proof.verdict]);
  });
}

interface ReportFlags extends NotHereFlags {
  readonly out: string;
  readonly format?: string;
  readonly title: string;
}
