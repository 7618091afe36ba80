import { useEffect, useRef, type RefObject } from 'react';
import { closeBrackets, closeBracketsKeymap, completionKeymap } from '@codemirror/autocomplete';
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { css } from '@codemirror/lang-css';
import { bracketMatching, foldGutter, foldKeymap } from '@codemirror/language';
import { nextDiagnostic, previousDiagnostic } from '@codemirror/lint';
import { highlightSelectionMatches, searchKeymap } from '@codemirror/search';
import { Annotation, ChangeSet, EditorState, MapMode, StateEffect, StateField, Transaction } from '@codemirror/state';
import { EditorView, highlightActiveLine, highlightActiveLineGutter, keymap, lineNumbers } from '@codemirror/view';
import { ruleAt, smallestEdit, type OutlinedRule, type SiteWords } from '@syndeton/core';
import type { Looked } from '../writing/answers.ts';
import { WritingHelp } from '../writing/WritingHelp.ts';
import { completion } from './completion.ts';
import { codeLook } from '../../../ui/codeLook.ts';
import { findingLines, showFindings } from './findingLines.ts';
import { moveRule } from './moveRule.ts';
import { editorText, lineEndIn, ownLineEnds, toFile } from './lineEnds.ts';
import { outline, ruleMarks, showRules, type Reach } from './ruleMarks.ts';

/** The rule at the cursor, as the text has it, and where it starts in the draft's text; undefined there for a new one. */
export interface RuleHere {
  readonly rule: OutlinedRule;
  readonly start: number | undefined;
  /** The same in the draft's text as the editor counts it. */
  readonly before: number | undefined;
}

/** Ways to act on the text from outside; each is one step that can be taken back by Ctrl+Z. */
export interface EditorHandle {
  readonly replace: (from: number, to: number, text: string) => void;
  readonly text: () => string;
  /** To the rule that starts there in the draft's text. */
  readonly goToRule: (start: number) => void;
  readonly goToLine: (line: number) => void;
  /** How far down in the window the middle of a line is, in CSS pixels; undefined when it is scrolled away. */
  readonly lineMiddle: (at: number) => number | undefined;
  /** A new rule at the end, the cursor in it. */
  readonly writeRule: (selector: string) => void;
}

interface Props {
  /** As the draft has it. */
  readonly base: string;
  /** As it was typed so far. */
  readonly typed: string;
  readonly label: string;
  readonly inQuirks: boolean;
  readonly words: SiteWords;
  /** By where rules start in the draft's text. */
  readonly reach: ReadonlyMap<number, Reach>;
  readonly line: number | undefined;
  readonly handle: RefObject<EditorHandle | undefined>;
  readonly onChange: (text: string) => void;
  readonly onLooked: (looked: Looked, before: readonly OutlinedRule[]) => void;
  /** The text could not be looked at; it is tried again with the next change. */
  readonly onUnlooked: () => void;
  readonly onRule: (here: RuleHere | undefined) => void;
  readonly onAdd: () => void;
}

const rebased = StateEffect.define<ChangeSet>();
/** A change that nobody typed. */
const fromOutside = Annotation.define<boolean>();

/** What was changed since the draft's text. */
const sinceDraft = StateField.define<ChangeSet>({
  create: (state) => ChangeSet.empty(state.doc.length),
  update(changes, transaction) {
    for (const effect of transaction.effects) if (effect.is(rebased)) return effect.value;
    return transaction.docChanged ? changes.compose(transaction.changes) : changes;
  },
});

const changesBetween = (from: string, to: string): ChangeSet => {
  const edit = smallestEdit(from, to);
  return ChangeSet.of(edit ? { from: edit.span.start, to: edit.span.end, insert: edit.text } : [], from.length);
};

/** The text of a sheet. Line ends stay as the file has them. */
export function SheetEditor(props: Props) {
  const { base, label } = props;
  const box = useRef<HTMLDivElement>(null);
  const now = useRef(props);
  const made = useRef<Made | undefined>(undefined);
  useEffect(() => {
    now.current = props;
  });
  useEffect(() => {
    const editor = makeEditor(box.current!, now);
    made.current = editor;
    now.current.handle.current = editor.handle;
    return () => {
      editor.close();
      made.current = undefined;
    };
  }, [label]);
  useEffect(() => made.current?.rebase(base), [base]);
  useEffect(() => made.current?.showReach(), [props.reach]);
  useEffect(() => {
    if (props.line !== undefined) made.current?.handle.goToLine(props.line);
  }, [props.line, label]);
  return <div ref={box} className="h-full overflow-hidden" />;
}

interface Made {
  readonly handle: EditorHandle;
  /** The draft has another text now: the one in the editor, or one to take over where nothing is unfinished. */
  readonly rebase: (base: string) => void;
  readonly showReach: () => void;
  readonly close: () => void;
}

function makeEditor(parent: HTMLElement, now: RefObject<Props>): Made {
  const { typed, label } = now.current;
  let { base } = now.current;
  const help = new WritingHelp();
  let looked: Looked | undefined;
  let before: readonly OutlinedRule[] = [];
  let beforeByStart: ReadonlyMap<number, OutlinedRule> = new Map<number, OutlinedRule>();
  let asking = false;
  let closed = false;

  const view = new EditorView({
    parent,
    state: EditorState.create({
      doc: base,
      extensions: [
        EditorState.lineSeparator.of(lineEndIn(base)),
        ownLineEnds,
        codeLook,
        lineNumbers(),
        foldGutter({ openText: '⌄', closedText: '›' }),
        highlightActiveLine(),
        highlightActiveLineGutter(),
        highlightSelectionMatches(),
        history(),
        bracketMatching(),
        closeBrackets(),
        css(),
        sinceDraft,
        ruleMarks,
        findingLines,
        completion(
          (text, offset, words) => help.ask({ asks: 'complete', text, offset, words }).catch(() => undefined),
          () => now.current.words,
        ),
        keymap.of([
          { key: 'Mod-s', run: () => (now.current.onAdd(), true) },
          { key: 'Alt-ArrowUp', run: moveRule(-1) },
          { key: 'Alt-ArrowDown', run: moveRule(1) },
          { key: 'F8', run: nextDiagnostic, shift: previousDiagnostic },
          ...closeBracketsKeymap,
          ...completionKeymap,
          ...searchKeymap,
          ...foldKeymap,
          ...defaultKeymap,
          ...historyKeymap,
        ]),
        EditorView.contentAttributes.of({ 'aria-label': label, tabindex: '0', spellcheck: 'false' }),
        EditorView.updateListener.of(({ docChanged, selectionSet, state, transactions }) => {
          if (docChanged) {
            if (!transactions.some((one) => one.annotation(fromOutside))) now.current.onChange(state.sliceDoc());
            look();
          }
          if (docChanged || selectionSet) tellRule();
        }),
      ],
    }),
  });

  /** The rule as the draft has it; many rules are asked about in a row. */
  const baseRules = (): ((rule: OutlinedRule) => OutlinedRule | undefined) => {
    const back = view.state.field(sinceDraft).invertedDesc;
    return ({ start, selector }) => {
      const at = back.mapPos(start, 1, MapMode.TrackDel);
      const old = at === null ? undefined : beforeByStart.get(at);
      return old?.selector === selector ? old : undefined;
    };
  };
  const baseRule = (rule: OutlinedRule): OutlinedRule | undefined => baseRules()(rule);
  const tellRule = (): void => {
    const rule = ruleAt(view.state.field(outline), view.state.selection.main.head);
    const fresh = rule && looked?.rules.find((one) => one.start === rule.start && one.end === rule.end);
    const old = rule && baseRule(fresh ?? rule);
    now.current.onRule(rule && { rule: fresh ?? rule, start: old && toFile(base, old.start), before: old?.start });
  };
  const show = (): void => {
    if (!looked) return;
    const baseOf = baseRules();
    showRules(view, {
      rules: looked.rules,
      reachOf: (rule) => {
        const start = baseOf(rule)?.start;
        return start === undefined ? undefined : now.current.reach.get(toFile(base, start));
      },
      wasOf: (rule, { property, value }) => {
        const was = baseOf(rule)?.declarations.findLast((one) => one.property === property)?.value;
        const isLast = rule.declarations.findLast((one) => one.property === property)?.value === value;
        return was !== value && isLast ? was : undefined;
      },
    });
    tellRule();
  };
  const look = (): void => {
    if (asking || closed) return;
    asking = true;
    const { doc } = view.state;
    const said = (answer: Looked | undefined): void => {
      asking = false;
      if (closed) return;
      if (!view.state.doc.eq(doc)) {
        look();
        return;
      }
      if (!answer) {
        now.current.onUnlooked();
        return;
      }
      looked = answer;
      show();
      showFindings(view, answer.findings);
      now.current.onLooked(answer, before);
    };
    help.ask({ asks: 'look', text: doc.toString(), inQuirks: now.current.inQuirks }).then(said, () => said(undefined));
  };

  const readBase = (): void => {
    const known = (rules: readonly OutlinedRule[]): void => {
      before = rules;
      beforeByStart = new Map(rules.map((rule) => [rule.start, rule]));
      look();
    };
    help.ask({ asks: 'look', text: editorText(base), inQuirks: false }).then(
      ({ rules }) => known(rules),
      () => known([]),
    );
  };
  const takeOver = (text: string): void =>
    view.dispatch({
      changes: changesBetween(view.state.doc.toString(), editorText(text)),
      annotations: [Transaction.addToHistory.of(false), fromOutside.of(true)],
    });
  takeOver(typed);
  readBase();

  const go = (at: number): void => {
    view.dispatch({ selection: { anchor: at }, effects: EditorView.scrollIntoView(at, { y: 'center' }) });
    view.focus();
  };
  return {
    handle: {
      replace: (from, to, text) => view.dispatch({ changes: { from, to, insert: text }, userEvent: 'input' }),
      text: () => view.state.doc.toString(),
      goToRule: (start) => {
        const old = before.find((one) => toFile(base, one.start) === start);
        if (old) go(view.state.field(sinceDraft).mapPos(old.start, 1));
      },
      goToLine: (line) => go(view.state.doc.line(Math.max(1, Math.min(line, view.state.doc.lines))).from),
      lineMiddle: (at) => {
        const line = at <= view.state.doc.length ? view.coordsAtPos(at) : null;
        const box = view.scrollDOM.getBoundingClientRect();
        const middle = line ? (line.top + line.bottom) / 2 : -1;
        return middle < box.top || middle > box.bottom ? undefined : middle;
      },
      writeRule: (selector) => {
        const text = view.state.doc.toString();
        const gap = text === '' || text.endsWith('\n') ? '' : '\n';
        const at = text.length + gap.length + selector.length + 2;
        view.dispatch({
          changes: { from: text.length, insert: `${gap}${selector} {\n}\n` },
          selection: { anchor: at },
          effects: EditorView.scrollIntoView(at, { y: 'center' }),
          userEvent: 'input',
        });
      },
    },
    rebase: (next) => {
      if (next === base) return;
      const hadNothingTyped = view.state.doc.toString() === editorText(base);
      base = next;
      if (hadNothingTyped) takeOver(next);
      const changes = changesBetween(editorText(base), view.state.doc.toString());
      view.dispatch({ effects: rebased.of(changes) });
      readBase();
    },
    showReach: show,
    close: () => {
      closed = true;
      help.close();
      view.destroy();
    },
  };
}
