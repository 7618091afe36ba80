import { expect, jest, test } from '@jest/globals';
import { act, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { undo } from '@codemirror/commands';
import { EditorView } from '@codemirror/view';
import { noWords } from '@syndeton/core';
import { lookingThread } from '../../../testing/lookingThread.ts';
import type { Looked } from '../writing/answers.ts';
import type { Reach } from './ruleMarks.ts';
import { SheetEditor, type EditorHandle, type RuleHere } from './SheetEditor.tsx';

const thread = lookingThread();

type More = Partial<Parameters<typeof SheetEditor>[0]>;

/** An editor on a text, and what it told. */
function opened(base: string, more: More = {}) {
  const handle: { current: EditorHandle | undefined } = { current: undefined };
  const told = { texts: [] as string[], looked: [] as Looked[], rule: undefined as RuleHere | undefined };
  const onAdd = jest.fn();
  const onUnlooked = jest.fn();
  const element = (now: More = {}) => (
    <SheetEditor
      base={base}
      typed={base}
      label="Text of css/site.css"
      inQuirks={false}
      words={noWords}
      reach={new Map()}
      line={undefined}
      handle={handle}
      onChange={(text) => void told.texts.push(text)}
      onLooked={(looked) => void told.looked.push(looked)}
      onUnlooked={onUnlooked}
      onRule={(here) => void (told.rule = here)}
      onAdd={onAdd}
      {...more}
      {...now}
    />
  );
  const { rerender, unmount } = render(element());
  const content = screen.getByRole('textbox', { name: 'Text of css/site.css' });
  const view = EditorView.findFromDOM(content)!;
  const change = (from: number, to: number, text: string) => act(() => handle.current!.replace(from, to, text));
  const isLooked = (times = 1) => waitFor(() => expect(told.looked.length).toBeGreaterThanOrEqual(times));
  return {
    handle,
    told,
    onAdd,
    onUnlooked,
    again: (now: More) => rerender(element(now)),
    unmount,
    content,
    view,
    change,
    isLooked,
  };
}

/** The words of the lines below a line, and of the marks in it. */
const wordsOf = (content: HTMLElement, selector: string): string[] =>
  [...content.querySelectorAll(selector)].map((one) => one.textContent);

test('what is typed is told with the line ends of the file', async () => {
  const { told, change, isLooked } = opened('a { top: 0 }\r\nb { top: 0 }\r\n');
  await isLooked();
  change(13, 13, 'i { top: 0 }\n');
  expect(told.texts).toEqual(['a { top: 0 }\r\ni { top: 0 }\r\nb { top: 0 }\r\n']);
});

test.each([
  [
    'lines of another system into a sheet of Windows',
    'a { top: 0 }\r\n',
    'i {\n  top: 0\n}\n',
    'i {\r\n  top: 0\r\n}\r\na { top: 0 }\r\n',
  ],
  [
    'lines of Windows into a sheet of another',
    'a { top: 0 }\n',
    'i {\r\n  top: 0\r\n}\r\n',
    'i {\n  top: 0\n}\na { top: 0 }\n',
  ],
  ['lines of an old system', 'a { top: 0 }\n', 'i {\r}\r', 'i {\n}\na { top: 0 }\n'],
])('pasted: %s', async (_shows, base, pasted, text) => {
  const { told, view, content, isLooked } = opened(base);
  await isLooked();
  const event = new Event('paste', { bubbles: true, cancelable: true });
  Object.assign(event, { clipboardData: { getData: () => pasted } });
  act(() => view.dispatch({ selection: { anchor: 0 } }));
  act(() => void content.dispatchEvent(event));
  expect(told.texts).toEqual([text]);
  // the cursor stands behind what was pasted
  expect(view.state.sliceDoc(view.state.selection.main.head)).toBe(base);
});

test('moved, mended and new rules end their lines as the file does', async () => {
  const { told, view, content, handle, isLooked } = opened('a { colr: red }\r\nb {\r\n  top: 0\r\n}\r\n');
  await isLooked();
  act(() => view.dispatch({ selection: { anchor: 16 } }));
  act(() => view.focus());
  await userEvent.keyboard('{Alt>}{ArrowUp}{/Alt}');
  expect(told.texts).toEqual(['b {\r\n  top: 0\r\n}\r\na { colr: red }\r\n']);
  act(() => handle.current!.writeRule('.notice'));
  expect(told.texts.at(-1)).toMatch(/red \}\r\n\.notice \{\r\n\}\r\n$/);
  await waitFor(() => expect(wordsOf(content, '.fnd .err')).toHaveLength(1));
  expect(told.texts.join('').replaceAll('\r\n', '')).not.toMatch(/[\r\n]/);
});

test('the rule at the cursor is told by where it starts in the file as the draft has it', async () => {
  const { told, view, change, isLooked } = opened('a { top: 0 }\r\nb { top: 0 }\r\n');
  await isLooked();
  act(() => view.dispatch({ selection: { anchor: 15 } }));
  expect(told.rule).toMatchObject({ rule: { selector: 'b' }, start: 14, before: 13 });
  // something typed above it: the rule is further down, its place in the draft is the same
  change(0, 0, 'i { left: 0 }\n');
  await waitFor(() => expect(told.rule).toMatchObject({ rule: { selector: 'b', start: 27 }, start: 14 }));
  // and one with another selector is no rule of the draft
  change(27, 28, 'u');
  await waitFor(() => expect(told.rule).toMatchObject({ rule: { selector: 'u' }, start: undefined }));
});

test('the draft changes: where nothing is unfinished its text is taken over, and Ctrl+Z leaves it', async () => {
  const { told, again, view, isLooked } = opened('a { top: 0 }\n');
  await isLooked();
  again({ base: 'a { top: 1px }\n', typed: 'a { top: 1px }\n' });
  expect(view.state.sliceDoc()).toBe('a { top: 1px }\n');
  act(() => void undo(view));
  expect(view.state.sliceDoc()).toBe('a { top: 1px }\n');
  expect(told.texts).toEqual([]);
});

test('the draft changes: what is unfinished stays', async () => {
  const { told, again, change, handle, view, isLooked } = opened('a { top: 0 }\nb { top: 0 }\n');
  await isLooked();
  change(0, 0, 'i { left: 0 }\n');
  again({ base: '/* by hand */\na { top: 0 }\nb { top: 0 }\n' });
  expect(view.state.sliceDoc()).toBe('i { left: 0 }\na { top: 0 }\nb { top: 0 }\n');
  await waitFor(() => {
    act(() => handle.current!.goToRule(27));
    expect(told.rule).toMatchObject({ rule: { selector: 'b' }, start: 27 });
  });
});

test('it opens with what was unfinished, which Ctrl+Z does not take away', async () => {
  const { view, isLooked } = opened('a { top: 0 }\n', { typed: 'a { top: 0 }\nb { left: 0 }\n' });
  await isLooked();
  act(() => void undo(view));
  expect(view.state.sliceDoc()).toBe('a { top: 0 }\nb { left: 0 }\n');
});

test('former values stand behind what was changed, and only there', async () => {
  const { content, change, isLooked } = opened('a { color: #f00; top: 0 }\n');
  await isLooked();
  expect(wordsOf(content, '.was')).toEqual([]);
  change(11, 15, 'blue');
  await waitFor(() => expect(wordsOf(content, '.was')).toEqual(['was #f00']));
  change(11, 15, '#f00');
  await waitFor(() => expect(wordsOf(content, '.was')).toEqual([]));
});

test('what is wrong is said below its line, and mended by its button', async () => {
  const { content, view, told } = opened('a { colr: red }\n');
  await waitFor(() => expect(wordsOf(content, '.fnd .err')).toHaveLength(1));
  const mend = within(content).getByRole('button');
  expect(mend.textContent).toMatch(/color/);
  await userEvent.click(mend);
  expect(view.state.sliceDoc()).toBe('a { color: red }\n');
  expect(told.texts).toEqual(['a { color: red }\n']);
  await waitFor(() => expect(wordsOf(content, '.fnd')).toEqual([]));
});

test('what was typed while the thread looked is looked at next; what it said of the old text is not shown', async () => {
  thread.isLate = true;
  const { told, content, change } = opened('a { colr: red }\n');
  const answer = () => act(async () => thread.waiting.shift()?.());
  await answer();
  // now it looks at the text
  change(4, 8, 'color');
  await answer();
  expect([told.looked.length, wordsOf(content, '.fnd')]).toEqual([0, []]);
  await answer();
  expect(told.looked.map(({ findings }) => findings)).toEqual([[]]);
  expect(thread.waiting).toEqual([]);
});

test('a text that cannot be looked at is said to be, and is tried again with the next change', async () => {
  thread.isOdd = true;
  const { told, onUnlooked, change, isLooked } = opened('a { top: 0 }\n');
  await waitFor(() => expect(onUnlooked).toHaveBeenCalledTimes(1));
  thread.isOdd = false;
  change(9, 10, '1px');
  await isLooked();
  expect(told.looked[0]!.rules.map(({ selector }) => selector)).toEqual(['a']);
});

test('closed before the thread answered: nothing is told any more', async () => {
  thread.isLate = true;
  const { told, unmount } = opened('a { top: 0 }\n');
  unmount();
  await act(async () => thread.waiting.forEach((say) => say()));
  expect(told.looked).toEqual([]);
});

test('how far each rule reaches, as strokes over its pages', async () => {
  const reach = new Map<number, Reach>([
    [0, { elements: 14, pages: 2, strip: [4, 0, 10] }],
    [14, { elements: 0, pages: 0, strip: [] }],
  ]);
  const { view, again, isLooked } = opened('a { top: 0 }\r\nb { top: 0 }\r\n');
  await isLooked();
  again({ reach });
  const shown = [...view.dom.querySelectorAll('.cm-strips .rch')];
  expect(shown.map((one) => one.textContent)).toEqual(['14', 'no page has it0']);
  const picture = within(shown[0] as HTMLElement).getByRole('img', { name: 'on 2 pages', hidden: true });
  expect([...picture.querySelectorAll('rect')].map((one) => one.getAttribute('height'))).toEqual(['7', '1.5', '7']);
});

test('a new rule is written at the end, the cursor in it, as one step', async () => {
  const { handle, view, told, isLooked } = opened('a { top: 0 }');
  await isLooked();
  act(() => handle.current!.writeRule('.notice'));
  expect(told.texts).toEqual(['a { top: 0 }\n.notice {\n}\n']);
  expect(view.state.doc.lineAt(view.state.selection.main.head).number).toBe(2);
  act(() => void undo(view));
  expect(view.state.sliceDoc()).toBe('a { top: 0 }');
});

test('a line asked for is gone to, one beyond the end is the last', async () => {
  const { view, again, isLooked } = opened('a { top: 0 }\nb { top: 0 }\n', { line: 2 });
  await isLooked();
  expect(view.state.selection.main.head).toBe(13);
  again({ line: 40 });
  expect(view.state.selection.main.head).toBe(26);
});

test('by key: into the draft, and a rule over the one before it', async () => {
  const { onAdd, view, told, isLooked } = opened('a { top: 0 }\nb { top: 0 }\n');
  await isLooked();
  act(() => view.dispatch({ selection: { anchor: 13 } }));
  act(() => view.focus());
  await userEvent.keyboard('{Control>}s{/Control}');
  expect(onAdd).toHaveBeenCalledTimes(1);
  await userEvent.keyboard('{Alt>}{ArrowUp}{/Alt}');
  expect(told.texts).toEqual(['b { top: 0 }\na { top: 0 }\n']);
});
