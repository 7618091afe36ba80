import { beforeEach, expect, test } from '@jest/globals';
import { act, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { EditorView } from '@codemirror/view';
import type { EffectReply, RuleScoreReply, SheetReachReply } from '@syndeton/contract';
import { lookingThread } from '../../testing/lookingThread.ts';
import { at, openAt, recordedSite, replies, siteId } from '../../testing/recordedSite.tsx';
import { unfinishedSheets } from './unfinished.ts';

const server = recordedSite();
lookingThread();

const text = 'body { margin: 0 }\n\nh2, h3 {\n  color: #0b5563;\n  margin-top: 12px;\n}\n';
const h2 = text.indexOf('h2');
const revision = `GET ${at}/revisions/1`;
const effect = replies[`POST ${at}/draft/effect`] as EffectReply;
const reach: SheetReachReply = {
  path: 'css/site.css',
  hash: 'h1',
  pages: ['index.html', 'prices.html'],
  rules: [
    { start: 0, elements: 2, strip: [1, 1], pages: 2 },
    { start: h2, elements: 5, strip: [2, 3], pages: 2 },
  ],
};
const beaters: RuleScoreReply['beaters'] = [
  { kind: 'embedded', sheet: null, start: null, selector: '#wrap h2', specificity: '(1,0,1)', why: 'specificity', properties: ['color'], value: 'red', elements: 1, pages: ['prices.html'] },
  { kind: 'linked', sheet: 'css/site.css', start: 0, selector: 'body', specificity: '(0,0,1)', why: 'order', properties: ['margin-top'], value: '0', elements: 1, pages: ['prices.html'] },
]; // oxfmt-ignore
const score: RuleScoreReply = {
  specificity: '(0,0,1)',
  declarations: [
    {
      start: h2 + 11,
      property: 'color',
      value: '#0b5563',
      wins: 4,
      loses: 1,
      pages: [{ path: 'index.html', wins: 2, loses: 0 }],
    },
  ],
  beaters,
};

beforeEach(() => {
  server.says[`GET ${at}/files/draft/css/site.css`] = () => [
    200,
    { path: 'css/site.css', hash: 'h1', encoding: 'utf-8', text },
  ];
  server.says[`${revision}/sheet`] = () => [200, reach];
  server.says[`${revision}/rule`] = () => [200, score];
  server.says[`${revision}/words`] = () => [
    200,
    {
      elements: [{ name: 'h2', uses: 5 }],
      classes: [{ name: 'notice', uses: 3 }],
      ids: [],
      customProperties: [],
      colours: [{ name: '#0b5563', uses: 2 }],
      fonts: [],
    },
  ];
  server.says[`${revision}/match`] = () => [
    200,
    {
      elements: 5,
      pages: [
        { path: 'index.html', elements: 2 },
        { path: 'prices.html', elements: 3 },
      ],
    },
  ];
});

/** The sheet, the cursor in its second rule. */
async function opened(): Promise<EditorView> {
  openAt('sheets');
  const editor = EditorView.findFromDOM(await screen.findByRole('textbox', { name: 'Text of css/site.css' }))!;
  // it begins in the first one
  await panel().findAllByText('body');
  act(() => editor.dispatch({ selection: { anchor: h2 + 12 } }));
  await panel().findByText('h2, h3');
  return editor;
}
const panel = () => within(screen.getByRole('complementary', { name: 'What it reaches and does' }));
const type = (editor: EditorView, from: string, to: string) => {
  const start = editor.state.sliceDoc().indexOf(from);
  act(() => editor.dispatch({ changes: { from: start, to: start + from.length, insert: to }, userEvent: 'input' }));
};
const becomes = (operation: object) => waitFor(() => expect(server.draft().operations.at(-1)).toMatchObject(operation));
const choose = async (words: string): Promise<void> => {
  await userEvent.click(panel().getByRole('button', { name: 'This rule …' }));
  await userEvent.click(await screen.findByRole('menuitem', { name: words }));
};

test('the rule at the cursor: what it reaches and wins, on which pages, and who beats it', async () => {
  await opened();
  expect(await panel().findByText(/matches/)).toHaveProperty('textContent', 'matches 5 elements on 2 pages');
  const row = (await panel().findByRole('rowheader', { name: 'color' })).closest('tr')!;
  expect(
    within(row)
      .getAllByRole('cell')
      .slice(-2)
      .map((cell) => cell.textContent),
  ).toEqual(['4', '1']);
  const losses = within(panel().getByRole('list', { name: 'What beats it' })).getAllByRole('listitem');
  expect(losses[0]!.textContent).toMatch(/#wrap h2 in a block of prices beats color/);
});

test('a rule of the same sheet that beats it is gone to; what a block says again can be dropped there', async () => {
  const editor = await opened();
  await userEvent.click(await panel().findByRole('button', { name: /^body in css\/site\.css/ }));
  await waitFor(() => expect(editor.state.selection.main.head).toBe(0));
  act(() => editor.dispatch({ selection: { anchor: h2 + 12 } }));
  server.says[`POST ${at}/draft/effect`] = () => [200, { ...effect, differing: [], unsure: [] }];
  await userEvent.click(await panel().findByRole('button', { name: 'Drop it there' }));
  await becomes({
    kind: 'drop-declaration',
    where: 'block',
    selector: '#wrap h2',
    property: 'color',
    value: 'red',
    pages: ['prices.html'],
  });
});

test('an edit: what it does to every page, then into the draft; a second one becomes one with it', async () => {
  const editor = await opened();
  server.says[`POST ${at}/draft/effect`] = () => [
    200,
    {
      ...effect,
      differing: ['index.html'],
      unsure: [],
      elements: 2,
      changes: [
        {
          pseudoElement: '',
          property: 'color',
          before: '#0b5563',
          after: 'teal',
          reason: '',
          elements: 2,
          pages: [{ path: 'index.html', elements: 2 }],
          sample: { page: 'index.html', element: 'html>body', name: 'h2' },
        },
      ],
    },
  ];
  type(editor, '#0b5563', 'teal');
  expect(
    await panel().findByRole('heading', { name: 'With this edit, 2 elements on 1 page change color' }),
  ).toBeTruthy();
  await userEvent.click(panel().getByRole('button', { name: 'Put it into the draft' }));
  await becomes({ kind: 'edit-sheet', path: 'css/site.css', hash: 'h1', text: text.replace('#0b5563', 'teal') });
  type(editor, '12px', '13px');
  await userEvent.click(await panel().findByRole('button', { name: 'Put it into the draft' }));
  await becomes({ kind: 'edit-sheet', text: text.replace('#0b5563', 'teal').replace('12px', '13px') });
  expect(server.draft().operations).toHaveLength(1);
});

test('an edit that is refused says why, and what was typed stays', async () => {
  const editor = await opened();
  server.says[`PUT ${at}/draft`] = () => [422, { detail: 'css/site.css is not what it was when you began.' }];
  type(editor, '#0b5563', 'teal');
  await userEvent.click(await panel().findByRole('button', { name: 'Put it into the draft' }));
  expect((await panel().findByRole('alert')).textContent).toBe('css/site.css is not what it was when you began.');
  expect(editor.state.sliceDoc()).toContain('teal');
});

test('put back: the text is as the draft has it, and nothing is left of the edit', async () => {
  const editor = await opened();
  type(editor, '#0b5563', 'teal');
  await userEvent.click(await panel().findByRole('button', { name: 'Put it back' }));
  const again = EditorView.findFromDOM(screen.getByRole('textbox', { name: 'Text of css/site.css' }))!;
  expect(again.state.sliceDoc()).toBe(text);
  expect(panel().queryByRole('button', { name: 'Put it into the draft' })).toBeNull();
  expect(unfinishedSheets(siteId)).toEqual([]);
});

test('the rule as a form: what is set and taken out there is an edit of the text', async () => {
  const editor = await opened();
  await userEvent.click(panel().getByRole('button', { name: 'As a form' }));
  await userEvent.selectOptions(await panel().findByLabelText('Unit of margin-top'), 'em');
  await waitFor(() => expect(editor.state.sliceDoc()).toBe(text.replace('12px', '12em')));
  await userEvent.click(panel().getByRole('button', { name: 'Take margin-top out' }));
  await waitFor(() => expect(editor.state.sliceDoc()).toBe(text.replace('  margin-top: 12px;\n', '')));
});

test('a new rule: what it would reach is said first, what browsers cannot read is not written', async () => {
  const editor = await opened();
  await userEvent.click(panel().getByRole('button', { name: 'As a form' }));
  const field = await panel().findByRole('combobox', { name: 'A new rule for' });
  await userEvent.type(field, 'h2 >');
  expect(await panel().findByText(/Browsers cannot read this/)).toBeTruthy();
  await userEvent.type(field, '{Enter}');
  expect(editor.state.sliceDoc()).toBe(text);
  await userEvent.clear(field);
  await userEvent.type(field, '.notice{Enter}');
  expect(editor.state.sliceDoc()).toBe(`${text}.notice {\n}\n`);
});

test.each([
  ['Comment it out', { kind: 'delete-rules', sheet: 'css/site.css', rules: [{ selector: 'h2, h3', nth: 1 }], keep: 'comment' }], // oxfmt-ignore
  ['Delete the rule', { kind: 'delete-rules', sheet: 'css/site.css', rules: [{ selector: 'h2, h3', nth: 1 }] }],
  ['Part it, a rule for each selector', { kind: 'split-rule', sheet: 'css/site.css', rule: { selector: 'h2, h3', nth: 1 } }], // oxfmt-ignore
])('%s', async (words, operation) => {
  await opened();
  server.says[`POST ${at}/draft/effect`] = () => [200, { ...effect, differing: [], unsure: [] }];
  await choose(words);
  await becomes(operation);
});

test('the sheet parted at a rule: where the rest goes is asked', async () => {
  await opened();
  server.says[`POST ${at}/draft/effect`] = () => [200, { ...effect, differing: [], unsure: [] }];
  await choose('Part the sheet here');
  const dialog = within(await screen.findByRole('dialog'));
  const field = dialog.getByRole('textbox');
  await userEvent.clear(field);
  await userEvent.type(field, 'css/rest.css');
  await userEvent.click(dialog.getByRole('button', { name: 'Put it into the draft' }));
  await becomes({
    kind: 'split-sheet',
    sheet: 'css/site.css',
    from: { selector: 'h2, h3', nth: 1 },
    to: 'css/rest.css',
  });
});
