import { sheetsNotHere, type Site } from '@syndeton/core';
import type { Command } from 'commander';
import { UsageProblem } from '../siteFolder.ts';

/** What sheets that are not in the folder are taken to be. */
export interface NotHereFlags {
  readonly missing: string;
  readonly remote: string;
}

/** Adds `--missing` and `--remote`. */
export const addNotHereFlags = (command: Command): Command =>
  command
    .option(
      '--missing <what>',
      'sheets that pages ask for and the folder has not: unknown (they may say anything) or nothing (they are on no server either)',
      'unknown',
    )
    .option(
      '--remote <what>',
      'sheets from other servers: unknown, or nothing (they are gone, or hold fonts alone and say nothing about elements)',
      'unknown',
    );

/** The sheets that count as nothing. */
export function takenAsNothing(site: Site, { missing, remote }: NotHereFlags): readonly string[] {
  for (const [flag, value] of Object.entries({ missing, remote }))
    if (value !== 'unknown' && value !== 'nothing')
      throw new UsageProblem(`--${flag} ${value} is not known. unknown and nothing are allowed.`);
  const wanted = (isRemote: boolean): boolean => (isRemote ? remote : missing) === 'nothing';
  return sheetsNotHere(site)
    .filter(({ isRemote }) => wanted(isRemote))
    .map(({ path }) => path);
}
