import type { EditorState, TransactionSpec } from '@codemirror/state';
import type { Command } from '@codemirror/view';
import { ruleAt, type OutlinedRule } from '@syndeton/core';
import { outline } from './ruleMarks.ts';

/** Moves the rule whose first line holds the cursor over the one before or behind it, comments right above included. */
export const moveRule =
  (by: -1 | 1): Command =>
  (view) => {
    const spec = movedRule(view.state, by);
    if (!spec) return false;
    view.dispatch(spec);
    return true;
  };

export function movedRule(state: EditorState, by: -1 | 1): TransactionSpec | undefined {
  const rules = state.field(outline).filter(({ isNested }) => !isNested);
  const { head, empty } = state.selection.main;
  const own = ruleAt(rules, head);
  if (!own || !empty || state.doc.lineAt(head).number !== state.doc.lineAt(own.start).number) return undefined;
  const other = rules[rules.indexOf(own) + by];
  // out of an at-rule, or into one, would change what it means
  if (!other || other.under.join('\n') !== own.under.join('\n')) return undefined;
  const [first, second] =
    by < 0 ? [blockOf(state, other), blockOf(state, own)] : [blockOf(state, own), blockOf(state, other)];
  const text = (from: number, to: number): string => state.doc.sliceString(from, to);
  const between = text(first.end, second.start);
  const insert = text(second.start, second.end) + between + text(first.start, first.end);
  const moved = by < 0 ? first.start : first.start + (second.end - second.start) + between.length;
  const mine = by < 0 ? second : first;
  return {
    changes: { from: first.start, to: second.end, insert },
    selection: { anchor: moved + (head - mine.start) },
    userEvent: 'move.rule',
    scrollIntoView: true,
  };
}

/** From the comments right above it. */
function blockOf({ doc }: EditorState, { start, end }: OutlinedRule): { readonly start: number; readonly end: number } {
  const lead = /(?:^|\n)((?:[ \t]*\/\*(?:(?!\*\/)[^])*\*\/[ \t]*\n)*[ \t]*)$/.exec(doc.sliceString(0, start));
  return { start: start - (lead?.[1]?.length ?? 0), end };
}
