import { expect, jest, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { PageBandsReply } from '@syndeton/contract';
import { PageView } from './PageView.tsx';
import { sourceLines } from './sourceLines.ts';
import { tokensOfHtml } from './tokensOfHtml.ts';

Object.assign(globalThis, {
  ResizeObserver: class {
    observe(): void {}
    disconnect(): void {}
  },
  CSS: { supports: () => true },
});
Element.prototype.scrollIntoView = jest.fn();

const text = [
  '<!doctype html>',
  '<title>t</title>',
  '<link rel=stylesheet href=s.css>',
  '<style>',
  ...Array.from({ length: 40 }, (_, i) => `.r${i} { color: red }`),
  '</style>',
  '<p>1',
  '<p>2',
  '<p>3',
  '<p>4',
  '<p style="top:0">x',
].join('\r\n');
const spanOf = (part: string) => ({ start: text.indexOf(part), end: text.indexOf(part) + part.length });
const lineOf = (part: string): number => text.slice(0, text.indexOf(part)).split('\r\n').length;
const rule = (label: string, part: string | undefined, over: object = {}) => ({
  label,
  declarations: [{ property: 'color', value: 'red', important: false }],
  line: part === undefined ? 1 : lineOf(part),
  spans: part === undefined ? [] : [spanOf(part)],
  elements: 1,
  loses: 0,
  family: null,
  ...over,
});
const band = { problem: null, media: '', bytes: 100 };
const style = { start: text.indexOf('<style>'), end: text.indexOf('</style>') + 8 };
const page: PageBandsReply = {
  path: 'a.html',
  text,
  bands: [
    {
      ...band,
      kind: 'linked',
      name: 's.css',
      span: spanOf('<link rel=stylesheet href=s.css>'),
      line: 3,
      endLine: 3,
      rules: [rule('h1', undefined, { loses: 2 }), rule('h2', undefined), rule('h3', undefined, { elements: 0 })],
    },
    {
      ...band,
      kind: 'embedded',
      name: '',
      span: style,
      line: 4,
      endLine: 45,
      rules: Array.from({ length: 40 }, (_, i) =>
        rule(`.r${i}`, `.r${i} { color: red }`, { elements: i === 1 ? 0 : 1, family: `.r${i}` }),
      ),
    },
    {
      ...band,
      kind: 'attribute',
      name: '',
      span: null,
      line: 50,
      endLine: 50,
      rules: [rule('p', 'style="top:0"', { elements: 3 })],
    },
  ],
};

const told = (lines: ReturnType<typeof sourceLines>): string[] =>
  lines.map((line) =>
    line.kind === 'fold'
      ? `${line.from}-${line.to}${line.block === undefined ? '' : ` ${line.rules} rules`}`
      : String(line.number),
  );

test('lines without styling fold; a long block folds in the middle', () => {
  expect(told(sourceLines(text, page.bands, new Set(), new Set()))).toEqual([
    ...Array.from({ length: 14 }, (_, i) => String(i + 1)),
    '15-43 29 rules',
    '44',
    '45',
    '46-49',
    '50',
  ]);
});

test('the chosen rule’s lines stay, and what was unfolded', () => {
  expect(told(sourceLines(text, page.bands, new Set([30]), new Set([46]))).slice(14)).toEqual([
    '15-29 15 rules',
    '30',
    '31-43 13 rules',
    '44',
    '45',
    '46',
    '47',
    '48',
    '49',
    '50',
  ]);
});

test('every character of the text is in one piece, lit where it bears style', () => {
  const lines = sourceLines(text, page.bands, new Set(Array.from({ length: 60 }, (_, i) => i)), new Set());
  expect(lines.map((line) => (line.kind === 'line' ? line.pieces.map((p) => p.text).join('') : '')).join('\r\n')).toBe(
    text,
  );
  const lit = lines.flatMap((line) =>
    line.kind === 'line' ? line.pieces.filter((p) => p.band !== undefined).map((p) => p.text) : [],
  );
  expect(lit).toHaveLength(42);
  expect(lit.at(-1)).toBe('style="top:0"');
});

test.each([
  ['<p class="a">x', false, ['tag:<p', 'name: class', 'str:"a"', 'tag:>']],
  ['a:hover, b { color: #fff; }', true, ['sel:a:hover, b ', 'prop:color', 'val:#fff']],
  ['/* c */ @media print {', true, ['note:/* c */', 'sel: @media print ']],
])('code is told apart: %s', (line, css, kinds) => {
  const tokens = tokensOfHtml(line, css);
  expect(tokens.map((t) => t.text).join('')).toBe(line);
  expect(tokens.filter((t) => t.kind !== '').map((t) => `${t.kind}:${t.text}`)).toEqual(kinds);
});

test('bands say what each source does there; a rule chosen is pressed and lit', async () => {
  const on = { onAll: jest.fn(), onNext: jest.fn(), onBack: jest.fn(), onSheet: jest.fn(), onPropose: jest.fn() };
  render(
    <PageView
      page={page}
      number={2}
      of={26}
      line={undefined}
      pagesOf={
        new Map([
          ['.r0', 25],
          ['.r2', 1],
        ])
      }
      override={undefined}
      {...on}
    />,
  );
  expect(screen.getByRole('heading', { level: 1 }).textContent).toBe(
    'a.html takes its look from 3 sources; 0.2 kB stands in the page.',
  );
  expect(screen.getByRole('region', { name: 's.css, line 3' }).textContent).toContain('loses 2');
  expect(screen.getByRole('region', { name: 's.css, line 3' }).textContent).toContain(
    '1 more of its 3 rules match here',
  );
  const block = screen.getByRole('region', { name: '<style>, lines 4–45' });
  expect(block.textContent).toContain('on 25 pages');
  expect(block.textContent).toContain('only here');
  expect(block.textContent).toContain('nothing here has it');
  expect(screen.getByRole('region', { name: /^style attributes/ }).textContent).toContain('3 times');
  await userEvent.click(screen.getByRole('button', { name: '33 more rules' }));
  const chosen = screen.getByRole('button', { name: /^\.r30/ });
  await userEvent.click(chosen);
  expect(chosen.getAttribute('aria-pressed')).toBe('true');
  expect(document.getElementById('line-35')!.dataset['current']).toBe('true');
  await userEvent.click(screen.getByRole('button', { name: 'lines 46–49: no styling' }));
  expect(document.getElementById('line-47')).not.toBeNull();
  await userEvent.click(screen.getByRole('button', { name: 's.css' }));
  expect(on.onSheet).toHaveBeenCalledWith('s.css');
});
