import { linter, setDiagnostics, type Diagnostic } from '@codemirror/lint';
import { StateEffect, StateField, type EditorState, type Extension, type Range } from '@codemirror/state';
import { Decoration, EditorView, WidgetType, type DecorationSet } from '@codemirror/view';
import type { TextFinding } from '@syndeton/core';
import { actLook } from '../../../ui/looks.ts';

const found = StateEffect.define<readonly TextFinding[]>();
/** More would only be noise, and slow. */
const mostShown = 300;

/** Each finding as a line of words below its own, with the act that mends it; the bad word is marked by the lint package. */
const lines = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update(shown, transaction) {
    let next = shown.map(transaction.changes);
    for (const effect of transaction.effects)
      if (effect.is(found)) next = Decoration.set(linesFor(effect.value, transaction.state), true);
    return next;
  },
  provide: (field) => EditorView.decorations.from(field),
});

export const findingLines: Extension = [lines, linter(null, { tooltipFilter: () => [] })];

export function showFindings(view: EditorView, findings: readonly TextFinding[]): void {
  const shown = findings.slice(0, mostShown);
  const diagnostics = shown.map(({ span, severity, sentence }): Diagnostic => {
    // only the first line of what is wrong is marked
    const line = view.state.doc.lineAt(Math.min(span.start, view.state.doc.length));
    const to = Math.max(Math.min(span.end, line.to), span.start);
    return { from: span.start, to, severity: severityOf[severity], message: plain(sentence) };
  });
  view.dispatch(setDiagnostics(view.state, diagnostics), { effects: found.of(shown) });
}

const severityOf = { breaks: 'error', wrong: 'warning', note: 'info' } as const;

const linesFor = (findings: readonly TextFinding[], state: EditorState): Range<Decoration>[] =>
  findings.map((finding) => {
    const at = state.doc.lineAt(Math.min(finding.span.start, state.doc.length)).to;
    return Decoration.widget({ widget: new FindingLine(finding), block: true, side: 1 }).range(at);
  });

class FindingLine extends WidgetType {
  private readonly finding: TextFinding;

  constructor(finding: TextFinding) {
    super();
    this.finding = finding;
  }

  override eq({ finding }: FindingLine): boolean {
    return (
      finding.sentence === this.finding.sentence && JSON.stringify(finding.mend) === JSON.stringify(this.finding.mend)
    );
  }

  override toDOM(view: EditorView): HTMLElement {
    const { sentence, severity, mend } = this.finding;
    const line = document.createElement('div');
    line.className = 'fnd';
    const words = document.createElement('span');
    words.className = severity === 'note' ? 'note text-ink-3' : 'err font-medium text-error';
    words.append(...coded(sentence));
    line.append(words);
    if (mend) {
      const act = document.createElement('button');
      act.type = 'button';
      act.className = actLook;
      act.append(...coded(mend.label));
      act.addEventListener('click', () => {
        view.dispatch({
          changes: mend.edits.map(({ span, text }) => ({ from: span.start, to: span.end, insert: text })),
          userEvent: 'input.mend',
        });
        view.focus();
      });
      line.append(' ', act);
    }
    return line;
  }

  /** The button is pressed, not the text behind it. */
  override ignoreEvent(): boolean {
    return true;
  }
}

const plain = (sentence: string): string => sentence.replaceAll('`', '');

function coded(sentence: string): Node[] {
  return sentence.split('`').map((part, i) => {
    if (i % 2 === 0) return document.createTextNode(part);
    const code = document.createElement('code');
    code.textContent = part;
    return code;
  });
}
