import { applyOperations, describeOperationProblem, proveSites, type Operation, type Site } from '@syndeton/core';
import { printProof } from '../printReport.ts';
import { checkTarget, linksOfFolder, UsageProblem, writeSiteFolder } from '../siteFolder.ts';
import type { Session } from './session.ts';

interface Wanted {
  /** The folder the site was read from. */
  readonly folder: string;
  readonly out: string;
  readonly allowDifferences: boolean;
}

/** Does operations to a site, says what each did and what the proof says, and writes the result: all of it, or nothing. */
export async function doAndWrite(
  site: Site,
  operations: readonly Operation[],
  wanted: Wanted,
  session: Session,
): Promise<void> {
  await checkTarget(wanted.out);
  const applied = applyOperations(site, operations);
  if (!applied.ok) throw new UsageProblem(describeOperationProblem(applied.problem.problem));
  for (const { sentence } of applied.value.steps) session.print(`${sentence}.`);
  await proveAndWrite(site, applied.value.site, wanted, session);
}

/** Says what the proof says of the two states, and writes the second where nothing looks different, or that was allowed. */
export async function proveAndWrite(before: Site, after: Site, wanted: Wanted, { print, end }: Session): Promise<void> {
  const proof = proveSites(before, after);
  print(`\n${printProof(proof)}`);
  const isWritten = proof.verdict === 'same' || wanted.allowDifferences;
  if (isWritten) await writeSiteFolder(after, wanted.out, await linksOfFolder(wanted.folder));
  print(
    isWritten
      ? `\nThe whole site is in ${wanted.out}.`
      : '\nNothing was written. --allow-differences writes it all the same.',
  );
  end({ same: 0, intended: 0, differs: 1, unsure: 3 }[proof.verdict]);
}
