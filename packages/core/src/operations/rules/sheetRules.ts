import { trimmed } from '../../source/space.ts';
import type { GroupRule, Rule, Sheet, StyleRule } from '../../sheet/sheet.ts';
import { wholeLinesAndGap } from '../../source/removal.ts';
import type { Edit, Span } from '../../source/span.ts';

export interface FoundRule {
  readonly rule: StyleRule;
  /** The at-rules it stands in, outermost first. */
  readonly groups: readonly GroupRule[];
}

/** All style rules that stand in no other style rule, in the order of the text. */
export function rulesOf(sheet: Sheet): readonly FoundRule[] {
  const out: FoundRule[] = [];
  const walk = (rules: readonly Rule[], groups: readonly GroupRule[]): void => {
    for (const rule of rules) {
      if (rule.kind === 'style') out.push({ rule, groups });
      else if (rule.kind === 'group') walk(rule.rules, [...groups, rule]);
    }
  };
  walk(sheet.rules, []);
  return out;
}

/** The at-rules as a reference names them. */
export const underOf = (groups: readonly GroupRule[]): readonly string[] =>
  groups.map(({ name, prelude }) => trimmed(`@${name} ${prelude}`));

/** The rule with the comments that stand right above it, no blank line between. */
export function withLead(text: string, { comments }: Sheet, { span }: { readonly span: Span }): Span {
  let { start } = span;
  for (const comment of [...comments].reverse()) {
    if (comment.end > start) continue;
    const between = text.slice(comment.end, start);
    if (!/^[ \t]*(?:\r\n|\r|\n)?[ \t]*$/.test(between)) break;
    // a comment behind another rule belongs to that one
    if (!/(?:^|[\r\n])[ \t]*$/.test(text.slice(Math.max(0, comment.start - 200), comment.start))) break;
    start = comment.start;
  }
  return { start, end: span.end };
}

/** The edits that take rules out with the comments right above them; an at-rule in which nothing is left goes as a whole. */
export function removals(text: string, sheet: Sheet, rules: readonly StyleRule[]): readonly Edit[] {
  const going = new Set<Rule>(rules);
  const whole = { start: 0, end: text.length };
  const out: Edit[] = [];
  const walk = (list: readonly Rule[]): void => {
    for (const rule of list) {
      const emptied = rule.kind === 'group' && rule.rules.length > 0 && isGoing(rule);
      if (emptied || going.has(rule))
        out.push({ span: wholeLinesAndGap(text, withLead(text, sheet, rule), whole), text: '' });
      else if (rule.kind === 'group') walk(rule.rules);
    }
  };
  const isGoing = (rule: Rule): boolean =>
    going.has(rule) || (rule.kind === 'group' && rule.rules.length > 0 && rule.rules.every(isGoing));
  walk(sheet.rules);
  return out;
}
