import type { Apart } from './partition.ts';
import type { RuleTable } from './ruleTable.ts';

/** Why a sheet is one of its own, for people. */
export function describeApart(apart: Apart, table: RuleTable, sheet: string): string {
  const rule = table.rules[apart.rule]!;
  const name = `\`${rule.label}\``;
  switch (apart.kind) {
    case 'leak': {
      const page = table.pages[apart.page]!.path;
      const { size } = rule.holders;
      if (apart.drifted) return `${name} differs on ${size === 1 ? 'one page' : `${size} pages`}: ${sheet}.`;
      return `${name} would reach ${page}, which does not have it.`;
    }
    case 'order':
      return `Pages hold ${name} on both sides of rules that it competes with.`;
    case 'segment':
      return `On ${table.pages[apart.page]!.path} a source that stays stands before ${name}.`;
  }
}
