import { expect, jest, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type {
  ElementTableReply,
  QuestionReply,
  TableEntryReply,
  TableRowReply,
  ValueDeciderReply,
} from '@syndeton/contract';
import { DecisionTable } from './DecisionTable.tsx';
import { QuestionView, type Question } from './QuestionView.tsx';

Object.assign(globalThis, { CSS: { supports: () => true } });

type Source = ElementTableReply['sources'][number];
const source = (id: string, kind: Source['kind'], more: Partial<Source> = {}): Source => ({
  id,
  kind,
  path: '',
  place: 1,
  media: '',
  line: 3,
  says: 1,
  peeled: false,
  pages: [],
  ...more,
});
const entry = (from: string, value: string, more: Partial<TableEntryReply> = {}): TableEntryReply => ({
  id: `${from}@${value}`,
  source: from,
  declared: '',
  value,
  important: false,
  selector: 'h1',
  rule: 'h1',
  specificity: '(0,0,1)',
  file: 'a.html',
  line: 7,
  state: 'loses',
  reason: { kind: 'order', words: 'comes before' },
  ...more,
});
const row = (property: string, entries: TableEntryReply[], more: Partial<TableRowReply> = {}): TableRowReply => ({
  property,
  longhands: [property],
  entries,
  sentence: { lead: 'The embedded block wins.', rest: 'It stands after `s.css`.', kind: 'order' },
  inheritedFrom: null,
  value: entries.find(({ state }) => state === 'wins')?.value ?? '',
  ...more,
});
const sources = [
  source('browser', 'browser'),
  source('0:s.css', 'linked', { path: 'css/s.css', place: 2, media: 'print' }),
  source('1:a.html', 'embedded', { path: 'a.html', place: 11 }),
  source('attribute', 'attribute', { line: 20 }),
];

function table(rows: TableRowReply[], computed: Record<string, string> = {}, peeled: string[] = []) {
  const acts = { onPeel: jest.fn(), onElement: jest.fn(), onFile: jest.fn() };
  render(<DecisionTable sources={sources} rows={rows} peeled={new Set(peeled)} computed={computed} {...acts} />);
  return acts;
}

test('sources stand across, each with where it is; all but the browser can be peeled', async () => {
  const { onPeel } = table([]);
  const heads = screen.getAllByRole('columnheader').map((one) => one.textContent.trim());
  expect(heads.slice(1)).toEqual([
    'browserdefaultalways there',
    's.csslinked, 2nd, print Peel',
    '<style>block, line 3 Peel',
    'style="…"on it, line 20 Peel',
  ]);
  await userEvent.click(screen.getAllByRole('button', { name: /Peel/ })[1]!);
  expect(onPeel).toHaveBeenCalledWith('1:a.html');
});

test('who wins is said in a sentence; each declaration leads to its line and can be peeled for itself', async () => {
  const wins = entry('1:a.html', 'teal', { state: 'wins', reason: null, line: 9 });
  const acts = table([
    row('color', [
      entry('0:s.css', 'navy', { file: 'css/s.css', line: 4 }),
      wins,
      entry('attribute', 'red', { important: true }),
    ]),
  ]);
  expect(screen.getByText('The embedded block wins.')).toBeTruthy();
  expect(screen.getByText('!')).toBeTruthy();
  await userEvent.click(screen.getByRole('button', { name: 'navy' }));
  expect(acts.onFile).toHaveBeenCalledWith('css/s.css', 4);
  await userEvent.click(screen.getByRole('button', { name: 'Peel teal' }));
  expect(acts.onPeel).toHaveBeenCalledWith('1:a.html@teal');
  // the reason opens an explanation with the author's own two
  await userEvent.click(screen.getAllByRole('button', { name: 'comes before' })[0]!);
  const told = await screen.findByRole('dialog');
  expect(told.textContent).toMatch(
    /counts h1 \{ teal \} in a\.html, line 9.*does not h1 \{ navy \} in css\/s\.css, line 4/,
  );
});

test('what an ancestor gives leads to it; what this browser makes of a value is said where it is another', async () => {
  const given = entry('ancestor', '1.2em', { state: 'wins', file: '', reason: null });
  const acts = table(
    [
      row('font-size', [given], { inheritedFrom: { path: 'html>body', name: 'body' } }),
      row('margin-top', [entry('1:a.html', '0', { state: 'wins' })]),
    ],
    { 'font-size': '19.2px', 'margin-top': '0px' },
  );
  await userEvent.click(screen.getByRole('button', { name: 'See body' }));
  expect(acts.onElement).toHaveBeenCalledWith('html>body');
  expect(screen.getAllByText(/Computed here/)).toHaveLength(1);
  expect(screen.getByText('19.2px')).toBeTruthy();
  // the browser's own sheet has no line to go to
  expect(screen.getByRole<HTMLButtonElement>('button', { name: '1.2em' }).disabled).toBe(true);
});

const decider = (more: Partial<ValueDeciderReply> = {}): ValueDeciderReply => ({
  kind: 'embedded',
  path: 'a.html',
  selector: 'h1',
  specificity: '(0,0,1)',
  important: false,
  property: 'color',
  value: 'teal',
  inheritedFrom: null,
  sentence: { lead: 'It comes later.', rest: '', kind: 'order' },
  copies: false,
  over: null,
  pages: ['a.html'],
  elements: 1,
  first: { page: 'a.html', element: 'html>body>h1', name: 'h1', text: 'Fares' },
  ...more,
});
const value = (said: string, deciders: ValueDeciderReply[]): QuestionReply['values'][number] => {
  const pages = deciders.flatMap((one) => one.pages);
  return { value: said, pages, elements: pages.length, deciders };
};

function asked(answer: Partial<QuestionReply> | undefined, failed?: string) {
  const acts = {
    onAsk: jest.fn<(question: Question) => void>(),
    onMedium: jest.fn(),
    onPages: jest.fn(),
    onElement: jest.fn(),
    onValue: jest.fn(),
    onAdd: jest.fn(),
  };
  render(
    <QuestionView
      question={{ selector: 'h1', property: 'color' }}
      medium="screens"
      answer={answer && { pages: 3, elements: 3, without: 0, values: [], ...answer }}
      failed={failed}
      before={[]}
      busy={false}
      {...acts}
    />,
  );
  return acts;
}

test('a question is typed or taken; while every page is asked it is said, and so is a refusal', async () => {
  const { onAsk } = asked(undefined);
  expect(screen.getByRole('status').textContent).toBe('Asking every page …');
  const property = screen.getByRole('textbox', { name: 'Property' });
  await userEvent.clear(property);
  await userEvent.type(property, ' margin {Enter}');
  expect(onAsk).toHaveBeenLastCalledWith({ selector: 'h1', property: 'margin' });
  await userEvent.click(screen.getByRole('button', { name: 'link colour' }));
  expect(onAsk).toHaveBeenLastCalledWith(expect.objectContaining({ selector: 'a', property: 'color' }));
  asked(undefined, 'colr is no property.');
  expect(screen.getByRole('alert').textContent).toBe('colr is no property.');
});

test('values, who decides them, and what can be done about each', async () => {
  const acts = asked({
    values: [
      value('teal', [decider({ kind: 'linked', path: 'css/s.css', pages: ['a.html', 'b.html'] })]),
      value('red', [
        decider({
          kind: 'attribute',
          value: 'red',
          over: { path: 'css/s.css', selector: 'h1', value: 'teal' },
          pages: ['c.html'],
        }),
      ]),
    ],
  });
  expect(screen.getByText(/2 values from 2 places/).textContent).toMatch(/2 pages look alike; c stands alone/);
  await userEvent.click(screen.getByRole('button', { name: 'Choose these 2' }));
  expect(acts.onPages).toHaveBeenCalledWith(['a.html', 'b.html']);
  await userEvent.click(screen.getByRole('button', { name: 'Drop it' }));
  expect(acts.onAdd).toHaveBeenCalledWith({
    kind: 'drop-declaration',
    where: 'attribute',
    property: 'color',
    value: 'red',
    pages: ['c.html'],
  });
  await userEvent.click(screen.getByRole('button', { name: 'See what wins next' }));
  expect(acts.onElement).toHaveBeenCalledWith('a.html', 'html>body>h1');
});

test('copies go by one act; pages without such an element are counted; no element at all is said', async () => {
  const acts = asked({
    without: 1,
    values: [value('teal', [decider({ copies: true, pages: ['a.html', 'b.html'] })])],
  });
  expect(screen.getByText(/All pages look alike/).textContent).toContain('1 page has no such element.');
  await userEvent.click(screen.getByRole('button', { name: 'Drop the copies' }));
  expect(acts.onAdd).toHaveBeenCalledWith(
    expect.objectContaining({ where: 'block', selector: 'h1', pages: ['a.html', 'b.html'] }),
  );
  asked({});
  expect(screen.getByText(/No page has an element/)).toBeTruthy();
});
