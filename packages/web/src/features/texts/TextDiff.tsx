import { useEffect, useRef } from 'react';
import { css } from '@codemirror/lang-css';
import { html } from '@codemirror/lang-html';
import { goToNextChunk, goToPreviousChunk, MergeView } from '@codemirror/merge';
import { EditorState } from '@codemirror/state';
import { EditorView, keymap, lineNumbers } from '@codemirror/view';
import { codeLook } from '../../ui/codeLook.ts';

/** Changes are lit, with a bar of ink: neither side is wrong. */
const changeLook = EditorView.theme({
  '&.cm-merge-a .cm-changedLine, &.cm-merge-b .cm-changedLine, .cm-inlineChangedLine': {
    backgroundColor: 'var(--lit)',
  },
  '&.cm-merge-a .cm-changedText, &.cm-merge-b .cm-changedText': { background: 'none', fontWeight: '680' },
  '&.cm-merge-a .cm-changedLineGutter, &.cm-merge-b .cm-changedLineGutter': { background: 'var(--ink)' },
});

interface Props {
  readonly path: string;
  readonly before: string;
  readonly after: string;
  readonly beforeName: string;
  readonly afterName: string;
}

/** A file before and after, side by side; what stayed is folded away. Alt with an arrow goes from change to change. */
export function TextDiff({ path, before, after, beforeName, afterName }: Props) {
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const side = (doc: string, name: string) => ({
      doc,
      extensions: [
        codeLook,
        changeLook,
        lineNumbers(),
        EditorView.lineWrapping,
        EditorState.readOnly.of(true),
        /\.css$/i.test(path) ? css() : html(),
        keymap.of([
          { key: 'Alt-ArrowDown', run: goToNextChunk },
          { key: 'Alt-ArrowUp', run: goToPreviousChunk },
        ]),
        EditorView.contentAttributes.of({ 'aria-label': `${path} ${name}`, 'aria-readonly': 'true', tabindex: '0' }),
      ],
    });
    const view = new MergeView({
      parent: box.current!,
      a: side(before, beforeName),
      b: side(after, afterName),
      collapseUnchanged: { margin: 3, minSize: 6 },
      gutter: true,
    });
    return () => view.destroy();
  }, [path, before, after, beforeName, afterName]);
  return <div ref={box} className="tdiff" />;
}
