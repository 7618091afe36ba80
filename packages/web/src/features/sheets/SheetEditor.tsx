import { useEffect, useRef } from 'react';
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { css } from '@codemirror/lang-css';
import { HighlightStyle, syntaxHighlighting } from '@codemirror/language';
import { EditorState } from '@codemirror/state';
import { EditorView, highlightActiveLine, highlightActiveLineGutter, keymap, lineNumbers } from '@codemirror/view';
import { tags } from '@lezer/highlight';

/** Code is told apart by weight first; two hues, for values and strings. */
const look = HighlightStyle.define([
  {
    tag: [tags.tagName, tags.className, tags.labelName, tags.definitionKeyword, tags.modifier],
    color: 'var(--code-name)',
    fontWeight: '660',
  },
  { tag: [tags.propertyName, tags.attributeName], color: 'var(--code-prop)' },
  { tag: [tags.number, tags.unit, tags.atom, tags.keyword, tags.color, tags.variableName], color: 'var(--code-value)' },
  { tag: tags.string, color: 'var(--code-string)' },
  { tag: tags.comment, color: 'var(--code-note)', fontStyle: 'italic' },
  { tag: [tags.punctuation, tags.bracket, tags.separator, tags.operator], color: 'var(--code-note)' },
]);

/** Surfaces from the tokens; the editor's own sheet would come last otherwise. */
const surface = EditorView.theme({
  '&': { height: '100%', backgroundColor: 'var(--panel)', color: 'var(--ink)', fontSize: 'var(--fs-code)' },
  '&.cm-focused': { outline: 'none', boxShadow: 'inset 3px 0 0 var(--ink)' },
  '.cm-scroller': { fontFamily: 'var(--font-code)', lineHeight: '19px' },
  '.cm-gutters': { backgroundColor: 'var(--panel)', color: 'var(--ink-3)', border: '0', fontSize: 'var(--fs-note)' },
  '.cm-activeLine, .cm-activeLineGutter': { backgroundColor: 'var(--ground)' },
  '.cm-cursor': { borderLeftColor: 'var(--ink)', borderLeftWidth: '1.6px' },
  '&.cm-focused > .cm-scroller > .cm-selectionLayer .cm-selectionBackground, .cm-selectionBackground': {
    backgroundColor: 'var(--picked)',
  },
});

interface Props {
  readonly text: string;
  readonly label: string;
  readonly onChange: (text: string) => void;
  readonly onLineUp: () => void;
}

/** The text of a sheet. Line ends stay as the file has them. */
export function SheetEditor({ text, label, onChange, onLineUp }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const handlers = useRef({ onChange, onLineUp });
  useEffect(() => {
    handlers.current = { onChange, onLineUp };
  });
  useEffect(() => {
    const lineEnd = text.includes('\r\n') ? '\r\n' : '\n';
    const view = new EditorView({
      parent: box.current!,
      state: EditorState.create({
        doc: text,
        extensions: [
          EditorState.lineSeparator.of(lineEnd),
          surface,
          lineNumbers(),
          highlightActiveLine(),
          highlightActiveLineGutter(),
          history(),
          css(),
          syntaxHighlighting(look),
          keymap.of([
            { key: 'Mod-s', run: () => (handlers.current.onLineUp(), true) },
            ...defaultKeymap,
            ...historyKeymap,
          ]),
          EditorView.contentAttributes.of({ 'aria-label': label, tabindex: '0' }),
          EditorView.updateListener.of((update) => {
            if (update.docChanged) handlers.current.onChange(update.state.sliceDoc());
          }),
        ],
      }),
    });
    return () => view.destroy();
  }, [text, label]);
  return <div ref={box} className="h-full overflow-hidden" />;
}
