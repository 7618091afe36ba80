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
