import { EditorState, Text } from '@codemirror/state';

/** What ends a line in a text, as the editor parts it. */
export const lineEndIn = (text: string): '\r\n' | '\n' => (text.includes('\r\n') ? '\r\n' : '\n');

/** The text as the editor counts it: one code unit for each line end. */
export const editorText = (text: string): string => (lineEndIn(text) === '\r\n' ? text.replaceAll('\r\n', '\n') : text);

/** The offset in the file's text that an offset in the editor stands for. */
export function toFile(text: string, offset: number): number {
  if (lineEndIn(text) === '\n') return offset;
  let at = 0;
  let left = offset;
  for (let next = text.indexOf('\r\n'); next >= 0 && next - at < left; next = text.indexOf('\r\n', at)) {
    left -= next - at + 1;
    at = next + 2;
  }
  return at + left;
}

/** And the other way round. */
export const toEditor = (text: string, offset: number): number => editorText(text.slice(0, offset)).length;

/**
 * What is pasted, mended or moved brings line ends of its own, and the editor parts lines at those of the file alone: the others would
 * stay inside of lines, and in the file. Here they become line ends like the rest.
 */
export const ownLineEnds = EditorState.transactionFilter.of((transaction) => {
  if (!transaction.docChanged) return transaction;
  const changes: { readonly from: number; readonly to: number; readonly insert: Text }[] = [];
  transaction.changes.iterChanges((_fromA, _toA, from, _toB, inserted) => {
    if (inserted.length === 0) return;
    for (const { index, 0: found } of inserted.toString().matchAll(/\r\n|\n|\r/g)) {
      const isOwn = found === '\n' && inserted.lineAt(index).to === index;
      if (!isOwn) changes.push({ from: from + index, to: from + index + found.length, insert: Text.of(['', '']) });
    }
  });
  return changes.length === 0 ? transaction : [transaction, { changes, sequential: true }];
});
