import { Command, CommanderError } from 'commander';
import { addCheck } from './commands/check.ts';
import { addGather } from './commands/gather.ts';
import { addLinks } from './commands/links.ts';
import { addPatch } from './commands/patch.ts';
import { addPrecedence } from './commands/precedence.ts';
import { addProof } from './commands/proof.ts';
import { addRecipe } from './commands/recipe.ts';
import { addRename } from './commands/rename.ts';
import { addReport } from './commands/report.ts';
import type { Session } from './commands/session.ts';
import { addSurvey } from './commands/survey.ts';
import { readSiteFolder, runPages, UsageProblem } from './siteFolder.ts';

/** Runs the command line; gives the exit code: 0 same or nothing to object, 1 differs or something to object, 2 bad input, 3 cannot be told. */
export async function main(
  args: readonly string[],
  print: (text: string) => void,
  printError: (text: string) => void,
): Promise<number> {
  let code = 0;
  const program = new Command('syndeton')
    .description(
      'Moves embedded CSS out of hand-coded pages into shared sheets, and proves that no page looks different.',
    )
    .option(
      '--run-pages <endings>',
      'files with these endings are pages too, which a server runs before it sends them: php,asp,jsp',
    )
    .exitOverride()
    .configureOutput({ writeOut: (text) => print(text.trimEnd()), writeErr: (text) => printError(text.trimEnd()) });
  const endings = (): ReadonlySet<string> | undefined => runPages(program.opts<{ runPages?: string }>().runPages);
  const session: Session = {
    print,
    site: (folder) => readSiteFolder(folder, endings()),
    end: (ended) => (code = ended),
  };
  for (const add of [
    addSurvey,
    addCheck,
    addLinks,
    addGather,
    addRename,
    addProof,
    addPatch,
    addReport,
    addRecipe,
    addPrecedence,
  ])
    add(program, session);
  try {
    await program.parseAsync([...args], { from: 'user' });
    return code;
  } catch (error) {
    if (error instanceof CommanderError) return error.exitCode === 0 ? 0 : 2;
    if (!(error instanceof UsageProblem)) throw error;
    printError(error.message);
    return 2;
  }
}
