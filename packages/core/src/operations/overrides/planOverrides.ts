import type { ChangeSet } from '../../source/changeSet.ts';
import { succeed, type Result } from '../../source/result.ts';
import type { Site } from '../../source/site.ts';
import { planDropDeclaration, printed, type DropDeclaration } from './dropDeclaration.ts';
import { planDropAttribute, planDropBlock, type DropAttribute, type DropBlock } from './dropSource.ts';
import { planShareDeclaration, type ShareDeclaration, type ShareProblem } from './shareDeclaration.ts';

/** Operations on what pages say over shared sheets. */
export type OverrideOperation = DropDeclaration | ShareDeclaration | DropBlock | DropAttribute;

export function planOverride(
  site: Site,
  operation: OverrideOperation,
): Result<{ readonly changes: ChangeSet; readonly sentence: string }, ShareProblem> {
  switch (operation.kind) {
    case 'drop-declaration': {
      const plan = planDropDeclaration(site, operation);
      return plan.ok ? said(plan.value, `Drop ${printed(operation)} from ${on(plan.value.pages)}`) : plan;
    }
    case 'share-declaration': {
      const plan = planShareDeclaration(site, operation);
      const { property, value, rule, sheet } = operation;
      return plan.ok ? said(plan.value, `Let ${rule} in ${sheet} say ${property}: ${value}, and drop that from ${on(plan.value.pages)}`) : plan; // prettier-ignore
    }
    case 'drop-block': {
      const plan = planDropBlock(site, operation);
      return plan.ok ? said(plan.value, `Drop an embedded block from ${on(plan.value.pages)}`) : plan;
    }
    case 'drop-attribute': {
      const plan = planDropAttribute(site, operation);
      return plan.ok ? said(plan.value, `Drop the style attribute of ${plan.value.places} ${plan.value.places === 1 ? 'element' : 'elements'} on ${on(plan.value.pages)}`) : plan; // prettier-ignore
    }
  }
}

const said = ({ changes }: { readonly changes: ChangeSet }, sentence: string) => succeed({ changes, sentence });

const on = (pages: readonly string[]): string => (pages.length === 1 ? pages[0]! : `${pages.length} pages`);

export function describeOverrideProblem(problem: ShareProblem): string {
  switch (problem.kind) {
    case 'page-not-found':
      return `There is no page ${problem.page} in this site.`;
    case 'not-said-there':
      return `These pages do not hold ${problem.what}. It was dropped already, or the pages changed.`;
    case 'no-shared-rule':
      return `${problem.sheet} has no rule ${problem.rule}.`;
    case 'address-not-shared':
      return `${problem.what} holds an address that means different files on these pages. Make it shared for pages of one folder.`;
  }
}
