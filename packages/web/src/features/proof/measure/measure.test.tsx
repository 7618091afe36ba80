import { beforeEach, expect, jest, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ProofReply } from '@syndeton/contract';
import { EqualChains } from './EqualChains.ts';
import { compareDocuments } from './compareDocuments.ts';
import { disagreements, keepMeasured, nothingMeasured, readMeasured, type Measured } from './measuredPages.ts';
import { MeasureSection } from './MeasureSection.tsx';

beforeEach(() => localStorage.clear());

const page = (path: string, verdict: 'same' | 'differs') => ({
  path,
  verdict,
  elements: 3,
  differingElements: 0,
  causes: [],
  notes: [],
  doubts: [],
});
const proof: ProofReply = { verdict: 'differs', elements: 6, pages: [page('a.html', 'same'), page('b.html', 'differs')] }; // oxfmt-ignore
const differing = { count: 2, named: [{ element: 'html>body:nth-child(2)', property: 'color', before: 'red', after: 'blue', view: '1280 px' }] }; // oxfmt-ignore
const measured: Measured = { ...nothingMeasured, pages: { 'a.html': differing, 'b.html': differing } };
const show = (now: Measured) => {
  const on = { start: jest.fn(), stop: jest.fn(), onPage: jest.fn(), onSave: jest.fn() };
  render(
    <MeasureSection
      measuring={{ measured: now, start: on.start, stop: on.stop }}
      proof={proof}
      onPage={on.onPage}
      onSave={on.onSave}
    />,
  );
  return on;
};

function frameOf(html: string): Document {
  const frame = document.createElement('iframe');
  document.body.append(frame);
  frame.contentDocument!.write(html);
  frame.contentDocument!.close();
  return frame.contentDocument!;
}

test('elements of two documents; what they compute is asked of a real browser in e2e', () => {
  const compared = (before: string, after: string) =>
    compareDocuments(
      { document: frameOf(before), root: 'http://x/r1/' },
      { document: frameOf(after), root: 'http://x/r2/' },
    );
  const same = compared('<style>p { color: red }</style><p>x', '<p style="color: red">x');
  expect(same).toEqual({ count: 0, named: [] });
  expect(compared('<p>x', '<div>x').named).toMatchObject([{ property: 'element', before: 'p', after: 'div' }]);
  expect(compared('<font>x</font>', '<span>x</span>').count).toBe(0);
});

test('of elements like others that were equal only layout is read; what another sheet or name makes of them is found', () => {
  const chains = new EqualChains();
  const html = (style: string, body: string) => frameOf(`<!DOCTYPE html><style>${style}</style>${body}`);
  const compared = (one: Document, other: Document) =>
    compareDocuments({ document: one, root: 'r1/' }, { document: other, root: 'r2/' }, chains, '1280 px');
  const reads = jest.spyOn(CSSStyleDeclaration.prototype, 'getPropertyValue');
  const body = '<p>a<p>b';
  expect(compared(html('p { color: red }', body), html('p { color: red }', body)).count).toBe(0);
  const first = reads.mock.calls.length;
  reads.mockClear();
  expect(compared(html('p { color: red }', body), html('p { color: red }', '<p>other<p>text')).count).toBe(0);
  expect(reads.mock.calls.length).toBeLessThan(first);
  expect(
    compared(html('p { color: red }', body), html('p { color: blue }', body)).named.map(({ property }) => property),
  ).toContain('color');
  expect(
    compared(html('p { color: red }', body), html('p { color: red }', '<p>a<p style="color: blue">b')).count,
  ).toBeGreaterThan(0);
  reads.mockClear();
  // what stands before counts as well, and what cannot be told from that is read again
  const has = ':has(b) { top: 0 } p + p { color: red }';
  expect(compared(html(has, body), html(has, body)).count).toBe(0);
  const once = reads.mock.calls.length;
  reads.mockClear();
  compared(html(has, body), html(has, body));
  expect(reads.mock.calls.length).toBe(once);
  reads.mockRestore();
});

test('kept for the states that were measured, and no others', () => {
  keepMeasured('s', 'r1 r2 ', measured);
  expect(readMeasured('s', 'r1 r2 ')).toEqual(measured);
  expect(readMeasured('s', 'r1 draft 4')).toBeUndefined();
  expect(readMeasured('t', 'r1 r2 ')).toBeUndefined();
});

test('only a difference that the proof denies is a disagreement; what shows it can be saved', async () => {
  expect(disagreements(proof, measured)).toEqual(['a.html']);
  const on = show(measured);
  expect(screen.getByRole('status').textContent).toBe('2 pages at 1280 px: 0 the same, 2 not. ');
  await userEvent.click(screen.getByRole('button', { name: 'Save what shows it' }));
  expect(on.onSave).toHaveBeenCalledWith('a.html');
});

test('agreement is said plainly; what could not be measured is none', () => {
  const unmeasured = { count: 0, named: [], failed: 'The page did not come within 20 seconds.' };
  show({ ...measured, pages: { 'a.html': unmeasured, 'b.html': differing } });
  expect(screen.getByRole('status').textContent).toBe(
    '2 pages at 1280 px: 0 the same, 1 not, 1 could not be measured. It shows no difference that the proof does not tell.',
  );
});

test('views are chosen; while it runs it can be stopped', async () => {
  const on = show(nothingMeasured);
  await userEvent.click(screen.getByRole('checkbox', { name: 'in print' }));
  await userEvent.click(screen.getByRole('button', { name: 'Measure 2 pages' }));
  expect(on.start).toHaveBeenCalledWith([
    { width: 1280, medium: 'screen' },
    { width: 700, medium: 'print' },
  ]);
  const running = show({ ...nothingMeasured, pages: { 'a.html': differing }, running: true });
  await userEvent.click(screen.getByRole('button', { name: 'Stop' }));
  expect(running.stop).toHaveBeenCalled();
  expect(screen.getByRole('progressbar').getAttribute('value')).toBe('1');
});
