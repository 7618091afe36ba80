import fs from 'node:fs/promises';
import { unifiedPatch } from '@syndeton/core';
import type { Command } from 'commander';
import type { Session } from './session.ts';

/** Adds `syndeton patch` to the program. */
export function addPatch(program: Command, session: Session): void {
  const { print, site } = session;
  program
    .command('patch <before> <after>')
    .description('what changed between two states of a site as a unified patch for git apply and patch -p1')
    .requiredOption('--out <file>', 'where the patch is written; a file that is there is replaced')
    .action(async (before: string, after: string, options: { out: string }) => {
      const { bytes, leftOut } = unifiedPatch(await site(before), await site(after));
      await fs.writeFile(options.out, bytes);
      print(`${options.out}: ${bytes.length} bytes.`);
      if (leftOut.length > 0) print(`Left out, no text: ${leftOut.join(', ')}. Copy these yourself.`);
    });
}
