import { missingSheets, proveSites, withAbsent } from '@syndeton/core';
import { printProof } from '../printReport.ts';
import { UsageProblem } from '../siteFolder.ts';
import type { Command } from 'commander';
import type { Session } from './session.ts';

/** Adds `syndeton proof` to the program. */
export function addProof(program: Command, session: Session): void {
  const { print, site, end } = session;
  program
    .command('proof <before> <after>')
    .description(
      'compares two states of a site, element by element: 0 every page the same, 1 one differs, 3 it cannot be told of one',
    )
    .option('--missing <what>', 'sheets that pages ask for and BEFORE has not: unknown, or nothing', 'unknown')
    .option('--json', 'as JSON')
    .action(async (before: string, after: string, options: { json?: boolean; missing: string }) => {
      if (!/^(unknown|nothing)$/.test(options.missing))
        throw new UsageProblem(`--missing ${options.missing} is not known. unknown and nothing are allowed.`);
      const [old, now] = [await site(before), await site(after)];
      const absent = options.missing === 'nothing' ? missingSheets(old).map(({ path }) => path) : [];
      const proof = proveSites(withAbsent(old, absent), withAbsent(now, absent));
      print(options.json ? JSON.stringify(proof, null, 2) : printProof(proof, absent));
      end({ same: 0, intended: 0, differs: 1, unsure: 3 }[proof.verdict]);
    });
}
