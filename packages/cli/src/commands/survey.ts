import { checkSite } from '@syndeton/core';
import { printSurvey, printWholeSurvey } from '../printReport.ts';
import type { Command } from 'commander';
import type { Session } from './session.ts';

/** Adds `syndeton survey` to the program. */
export function addSurvey(program: Command, session: Session): void {
  const { print, site } = session;
  program
    .command('survey <dir>')
    .description('pages with their sources, counts and bytes; repeated blocks; families; what is wrong')
    .option('--json', 'as JSON')
    .action(async (dir: string, options: { json?: boolean }) => {
      const check = checkSite(await site(dir));
      print(options.json ? printWholeSurvey(check) : printSurvey(check));
    });
}
