import { proveSites, withAbsent } from '@syndeton/core';
import { printProof } from '../printReport.ts';
import type { Command } from 'commander';
import type { Session } from './session.ts';
import { addNotHereFlags, takenAsNothing, type NotHereFlags } from './sheetsNotHere.ts';

/** Adds `syndeton proof` to the program. */
export function addProof(program: Command, session: Session): void {
  const { print, site, end } = session;
  const command = program
    .command('proof <before> <after>')
    .description(
      'compares two states of a site, element by element: 0 every page the same, 1 one differs, 3 it cannot be told of one',
    )
    .option('--json', 'as JSON');
  addNotHereFlags(command).action(
    async (before: string, after: string, options: NotHereFlags & { readonly json?: boolean }) => {
      const [old, now] = [await site(before), await site(after)];
      const absent = takenAsNothing(old, options);
      const proof = proveSites(withAbsent(old, absent), withAbsent(now, absent));
      print(options.json ? JSON.stringify(proof, null, 2) : printProof(proof, absent));
      end({ same: 0, intended: 0, differs: 1, unsure: 3 }[proof.verdict]);
    },
  );
}
