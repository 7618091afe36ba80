import fs from 'node:fs/promises';
import { applyRecipe, makeRecipe, type Recipe } from '@syndeton/core';
import { Recipe as RecipeSchema } from '@syndeton/contract';
import { Ajv2020 } from 'ajv/dist/2020.js';
import type { Command } from 'commander';
import { readPlanFile } from '../planFile.ts';
import { checkTarget, UsageProblem } from '../siteFolder.ts';
import { proveAndWrite } from './applied.ts';
import type { Session } from './session.ts';

interface RecipeFlags {
  readonly out: string;
  readonly make?: string;
  readonly apply?: string;
  readonly allowDifferences?: boolean;
}

/** Adds `syndeton recipe` to the program. */
export function addRecipe(program: Command, session: Session): void {
  program
    .command('recipe [dir]')
    .description('keeps what a plan did as a recipe, or does a recipe to other pages, another folder, another site')
    .option('--make <plan>', 'a plan file, as gather --plan writes it, becomes a recipe')
    .option('--apply <recipe>', 'does this recipe to the site in DIR; what does not fit is left out, and said')
    .requiredOption('--out <out>', 'the recipe, or an empty or new folder for the whole resulting site')
    .option('--allow-differences', 'writes the site even where pages look different')
    .addHelpText(
      'after',
      '\nExamples:\n  syndeton gather site --plan plan.json --out gathered\n  syndeton recipe --make plan.json --out ferry.recipe.json\n  syndeton recipe other --apply ferry.recipe.json --out done',
    )
    .action(async (dir: string | undefined, options: RecipeFlags) => {
      const { make, apply, out } = options;
      if ((make === undefined) === (apply === undefined))
        throw new UsageProblem('Say one of --make PLAN and --apply RECIPE.');
      if (make !== undefined) {
        const operations = await readPlanFile(make);
        if (!operations) throw new UsageProblem(`There is no plan ${make}. gather --plan FILE writes one.`);
        const recipe = makeRecipe('', operations);
        await fs.writeFile(out, `${JSON.stringify(recipe, null, 2)}\n`);
        session.print(`${out}: a recipe of ${recipe.steps.length === 1 ? '1 step' : `${recipe.steps.length} steps`}.`);
        return;
      }
      if (dir === undefined) throw new UsageProblem('--apply needs DIR, the folder of the site.');
      await checkTarget(out);
      const recipe = await readRecipe(apply!);
      const site = await session.site(dir);
      const { site: after, fits, misfits } = applyRecipe(site, recipe);
      for (const sentence of fits) session.print(`${sentence}.`);
      for (const { step, why } of misfits) session.print(`Step ${step + 1} does not fit: ${why}`);
      await proveAndWrite(
        site,
        after,
        { folder: dir, out, allowDifferences: options.allowDifferences ?? false },
        session,
      );
    });
}

async function readRecipe(path: string): Promise<Recipe> {
  let value: unknown;
  try {
    value = JSON.parse(await fs.readFile(path, 'utf8'));
  } catch (error) {
    throw new UsageProblem(`The recipe ${path} cannot be read: ${(error as Error).message}.`);
  }
  const validate = new Ajv2020({ strict: false }).compile(RecipeSchema);
  if (validate(value)) return value;
  const first = validate.errors?.[0];
  throw new UsageProblem(
    `${path} is no recipe: ${first?.instancePath || 'at its top'} ${first?.message ?? 'does not fit'}.`,
  );
}
