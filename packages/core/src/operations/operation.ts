import { applyPlan, type ReadingMakers } from './readings.ts';
import { describeChangeProblem, type ChangeProblem, type ChangeSet } from '../source/changeSet.ts';
import { fail, succeed, type Result } from '../source/result.ts';
import type { Site } from '../source/site.ts';
import { describeEditSheetProblem, planEditSheet, type EditSheet, type EditSheetProblem } from './sheets/editSheet.ts';
import {
  describeGatherProblem,
  planGatherRules,
  type GatherProblem,
  type GatherRules,
  type LeftRule,
} from './gather/gatherRules.ts';
import {
  describeAttributesProblem,
  planGatherAttributes,
  type AttributesProblem,
  type GatherAttributes,
} from './gather/gatherAttributes.ts';
import {
  describeGatherBlocksProblem,
  planGatherBlocks,
  type GatherBlocks,
  type GatherBlocksProblem,
} from './gather/gatherBlocks.ts';
import { describeHintsProblem, planGatherHints, type GatherHints, type HintsProblem } from './gather/gatherHints.ts';
import { describeLinkProblem, type LinkProblem } from './links/linkProblems.ts';
import { planLinks, type LinkOperation } from './links/planLinks.ts';
import { describeOverrideProblem, planOverride, type OverrideOperation } from './overrides/planOverrides.ts';
import type { ShareProblem } from './overrides/shareDeclaration.ts';
import { describeLinkAlikeProblem, planLinkAlike, type LinkAlike, type LinkAlikeProblem } from './links/linkAlike.ts';
import { describeMendProblem, planMend, type MendFinding, type MendProblem } from './pages/mend.ts';
import { describeSettleProblem, planSettleDrift, type SettleDrift, type SettleProblem } from './gather/settleDrift.ts';
import { describeWrapProblem, planWrapContent, type WrapContent, type WrapProblem } from './pages/wrapContent.ts';

/** One described change of a site. */
export type Operation =
  | WrapContent
  | GatherHints
  | GatherRules
  | GatherBlocks
  | SettleDrift
  | GatherAttributes
  | EditSheet
  | MendFinding
  | LinkAlike
  | LinkOperation
  | OverrideOperation;

export type OperationProblem =
  | WrapProblem
  | HintsProblem
  | SettleProblem
  | GatherProblem
  | GatherBlocksProblem
  | AttributesProblem
  | EditSheetProblem
  | MendProblem
  | LinkAlikeProblem
  | LinkProblem
  | ShareProblem
  | ChangeProblem;

export interface OperationPlan {
  readonly changes: ChangeSet;
  readonly readings?: ReadingMakers;
  readonly sentence: string;
  readonly left: readonly LeftRule[];
}

/** What an operation would change, and in one sentence. */
export function planOperation(site: Site, operation: Operation): Result<OperationPlan, OperationProblem> {
  switch (operation.kind) {
    case 'gather-rules': {
      const plan = planGatherRules(site, operation);
      if (!plan.ok) return plan;
      const { changes, readings, left, moved, pages, sheet } = plan.value;
      const into = site.files.has(sheet) ? sheet : `${sheet}, a new sheet`;
      return succeed({
        changes,
        readings,
        left,
        sentence: `Gather ${count(moved.length, 'rule')} from ${count(pages.length, 'page')} into ${into}`,
      });
    }
    case 'gather-blocks': {
      const plan = planGatherBlocks(site, operation);
      if (!plan.ok) return plan;
      const { changes, sheets } = plan.value;
      const pages = new Set(sheets.flatMap((sheet) => sheet.pages)).size;
      const into = sheets.length === 1 ? sheets[0]!.path : `${sheets.length} sheets of their own`;
      const sentence = `Turn the blocks left on ${count(pages, 'page')} into ${into}`;
      return succeed({ changes, left: [], sentence });
    }
    case 'settle-drift': {
      const plan = planSettleDrift(site, operation);
      if (!plan.ok) return plan;
      const { changes, label, pages } = plan.value;
      return succeed({
        changes,
        left: [],
        sentence: `Let ${label} say the same on ${count(pages.length, 'more page')}`,
      });
    }
    case 'edit-sheet': {
      const plan = planEditSheet(site, operation);
      return plan.ok ? succeed({ changes: plan.value, left: [], sentence: `Edit ${operation.path}` }) : plan;
    }
    case 'gather-attributes': {
      const plan = planGatherAttributes(site, operation);
      if (!plan.ok) return plan;
      const { changes, readings, groups, sheet } = plan.value;
      const elements = groups.reduce((sum, group) => sum + group.elements, 0);
      const classes = `${groups.length} ${groups.length === 1 ? 'class' : 'classes'}`;
      const sentence = `Gather ${count(elements, 'style attribute')} into ${classes} of ${sheet}`;
      return succeed({ changes, readings, left: [], sentence });
    }
    case 'gather-hints': {
      const plan = planGatherHints(site, operation);
      if (!plan.ok) return plan;
      const { changes, groups, sheet } = plan.value;
      const elements = groups.reduce((sum, group) => sum + group.elements, 0);
      const sentence =
        changes.created.length === 0
          ? `Turn ${count(elements, 'font or center element')} into plain ones`
          : `Turn what ${count(elements, 'element')} ${elements === 1 ? 'says' : 'say'} by presentational markup into ${sheet}, a new sheet linked first`;
      return succeed({ changes, left: [], sentence });
    }
    case 'wrap-content': {
      const plan = planWrapContent(site, operation);
      if (!plan.ok) return plan;
      const { pages, name } = operation;
      return succeed({
        changes: plan.value,
        left: [],
        sentence: `Put ${name} round the content of ${count(pages.length, 'page')}`,
      });
    }
    case 'link-alike': {
      const plan = planLinkAlike(site, operation);
      return plan.ok ? succeed({ ...plan.value, left: [] }) : plan;
    }
    case 'link-sheet':
    case 'unlink-sheet':
    case 'move-link':
    case 'set-link':
    case 'import-to-link':
    case 'link-to-import':
    case 'copy-links':
    case 'add-baseline':
    case 'rename-sheet': {
      const plan = planLinks(site, operation);
      return plan.ok ? succeed({ ...plan.value, left: [] }) : plan;
    }
    case 'drop-declaration':
    case 'share-declaration':
    case 'drop-block':
    case 'drop-attribute': {
      const plan = planOverride(site, operation);
      return plan.ok ? succeed({ ...plan.value, left: [] }) : plan;
    }
    case 'mend': {
      const plan = planMend(site, operation);
      return plan.ok ? succeed({ ...plan.value, left: [] }) : plan;
    }
  }
}

const count = (n: number, word: string): string => `${n.toLocaleString('en')} ${word}${n === 1 ? '' : 's'}`;

export function describeOperationProblem(problem: OperationProblem): string {
  switch (problem.kind) {
    case 'sheet-path':
    case 'no-such-page':
    case 'no-such-rule':
    case 'scope-name':
    case 'nothing-to-gather':
      return describeGatherProblem(problem);
    case 'block-sheet-path':
    case 'block-sheet-taken':
    case 'no-blocks':
      return describeGatherBlocksProblem(problem);
    case 'wrap-name':
    case 'no-page-to-wrap':
    case 'wrapped-already':
    case 'no-body-tags':
      return describeWrapProblem(problem);
    case 'hints-sheet-path':
    case 'hints-sheet-taken':
    case 'no-hints':
      return describeHintsProblem(problem);
    case 'no-such-version':
    case 'nothing-to-settle':
      return describeSettleProblem(problem);
    case 'sheet-opaque':
    case 'no-such-sheet':
    case 'sheet-changed':
    case 'page-markup':
      return describeEditSheetProblem(problem);
    case 'attributes-sheet-path':
    case 'class-name':
    case 'class-taken':
    case 'no-attributes':
      return describeAttributesProblem(problem);
    case 'linked-alike':
      return describeLinkAlikeProblem(problem);
    case 'not-said-there':
    case 'no-shared-rule':
    case 'address-not-shared':
      return describeOverrideProblem(problem);
    case 'page-not-found':
    case 'sheet-not-there':
    case 'bad-host':
    case 'linked-already':
    case 'base-elsewhere':
    case 'not-linked-there':
    case 'stands-there':
    case 'says-so-already':
    case 'no-imports':
    case 'no-plain-link':
    case 'new-sheet-path':
    case 'baseline-path':
    case 'name-taken':
    case 'sheet-not-moved':
    case 'links-alike':
    case 'baseline-first':
      return describeLinkProblem(problem);
    case 'no-such-finding':
    case 'nothing-to-mend':
      return describeMendProblem(problem);
    case 'file-exists':
    case 'bad-file-path':
    case 'file-missing':
    case 'file-changed':
    case 'file-opaque':
    case 'not-in-encoding':
    case 'bad-edit':
      return describeChangeProblem(problem);
  }
}

/** The site after operations lined up one after the other, each planned on what the ones before it leave. */
export interface DraftSite {
  readonly site: Site;
  readonly steps: readonly OperationPlan[];
}

export function applyOperations(
  site: Site,
  operations: readonly Operation[],
): Result<DraftSite, { readonly index: number; readonly problem: OperationProblem }> {
  let at = site;
  const steps: OperationPlan[] = [];
  for (const [index, operation] of operations.entries()) {
    const plan = planOperation(at, operation);
    if (!plan.ok) return fail({ index, problem: plan.problem });
    const next = applyPlan(at, plan.value);
    if (!next.ok) return fail({ index, problem: next.problem });
    at = next.value;
    steps.push(plan.value);
  }
  return succeed({ site: at, steps });
}
