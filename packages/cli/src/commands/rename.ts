import type { Operation } from '@syndeton/core';
import type { Command } from 'commander';
import { UsageProblem } from '../siteFolder.ts';
import { doAndWrite } from './applied.ts';
import type { Session } from './session.ts';

const kinds = { class: 'class', id: 'id', property: 'custom-property' } as const;

interface RenameFlags extends Partial<Record<keyof typeof kinds, string>> {
  readonly out: string;
  readonly allowDifferences?: boolean;
}

/** Adds `syndeton rename` to the program. */
export function addRename(program: Command, session: Session): void {
  program
    .command('rename <dir>')
    .description('gives a class, an ID or a custom property another name, in sheets and pages at once')
    .option('--class <old=new>', 'a class')
    .option('--id <old=new>', 'an ID, with the labels, fragments and ARIA references that follow it')
    .option('--property <old=new>', 'a custom property')
    .requiredOption('--out <out>', 'empty or new folder for the whole resulting site')
    .option('--allow-differences', 'writes it even where pages may look different')
    .addHelpText(
      'after',
      '\nExamples:\n  syndeton rename site --class note=notice --out renamed\n  syndeton rename site --property --sea=--brand --out renamed',
    )
    .action(async (dir: string, options: RenameFlags) => {
      const operations = Object.entries(kinds).flatMap(([flag, of]): readonly Operation[] => {
        const said = options[flag as keyof typeof kinds];
        if (said === undefined) return [];
        const [from, to, ...more] = said.split('=');
        if (!from || !to || more.length > 0)
          throw new UsageProblem(`--${flag} ${said} is not two names. old=new is how they are written.`);
        return [{ kind: 'rename-name', of, from, to }];
      });
      if (operations.length === 0)
        throw new UsageProblem('Say what to rename: --class, --id or --property, each as old=new.');
      const wanted = { folder: dir, out: options.out, allowDifferences: options.allowDifferences ?? false };
      await doAndWrite(await session.site(dir), operations, wanted, session);
    });
}
