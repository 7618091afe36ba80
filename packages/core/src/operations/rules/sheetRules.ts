import type { GroupRule, Rule, Sheet, StyleRule } from '../../sheet/sheet.ts';
import type { Span } from '../../source/span.ts';

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
  groups.map(({ name, prelude }) => `@${name} ${prelude}`.trim());

/** The rule with the comments that stand right above it, no blank line between. */
export function withLead(text: string, { comments }: Sheet, { span }: StyleRule): Span {
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
