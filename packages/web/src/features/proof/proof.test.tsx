import { describe, expect, jest, test } from '@jest/globals';
import { render, renderHook, screen } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import userEvent from '@testing-library/user-event';
import type { ProofReply } from '@syndeton/contract';
import { CausesList } from './CausesList.tsx';
import { outlinesIn } from './outlinesIn.ts';
import { ProofView } from './ProofView.tsx';
import { StatesChosen } from './StatesChosen.tsx';
import { useStates } from './useStates.ts';
import { verdictMark } from './VerdictMark.tsx';

Object.assign(globalThis, { CSS: { supports: () => true } });
globalThis.ResizeObserver = class {
  observe(): void {}
  unobserve(): void {}
  disconnect(): void {}
};

type PageProof = ProofReply['pages'][number];
type Cause = PageProof['causes'][number];
const cause: Cause = {
  pseudoElement: '',
  property: 'color',
  before: {
    property: 'color',
    value: '#7a3b12',
    important: false,
    source: 'embedded',
    selector: 'h2',
    specificity: [0, 0, 1],
  },
  after: {
    property: 'color',
    value: '#0b5563',
    important: true,
    source: 'linked',
    selector: 'h2',
    specificity: [0, 0, 1],
  },
  reason: '`h2` in s.css, (0,0,1) decides now.',
  elements: [
    { path: 'html>body:nth-child(2)>h2:nth-child(1)', name: 'h2', line: 9 },
    { path: 'html>body:nth-child(2)>h2:nth-child(2)', name: 'h2.x', line: 12 },
  ],
};
const page = (path: string, verdict: PageProof['verdict'], causes: Cause[] = []): PageProof => ({
  path,
  verdict,
  elements: 10,
  differingElements: causes.length > 0 ? 2 : 0,
  causes,
  notes: [],
  doubts: [],
});
const proof: ProofReply = {
  verdict: 'differs',
  elements: 20,
  pages: [page('a.html', 'same'), page('b.html', 'differs', [cause])],
};
const common = {
  siteId: 'S',
  states: { from: 3, to: 'draft', other: undefined } as const,
  chooser: { choose: () => undefined, revisions: [], inDraft: true, others: [] },
  failed: undefined,
  seconds: 0.9,
  nextPage: undefined,
  missing: [],
  version: 1,
  onOpen: () => {},
  onGather: () => {},
  onKeep: undefined,
  busy: false,
  problem: undefined,
};

test('the verdict in a sentence, and the page before and after in frames that can run nothing', () => {
  render(<ProofView {...common} proof={proof} path="b.html" />);
  expect(screen.getByRole('heading', { level: 1 }).textContent).toBe('1 page looks the same, 1 differs.');
  const frames = [screen.getByTitle('b.html before'), screen.getByTitle('b.html after')];
  expect(frames.map((f) => [f.getAttribute('src'), f.getAttribute('sandbox')])).toEqual([
    ['/preview/S/r3/b.html', 'allow-same-origin'],
    ['/preview/S/draft/b.html', 'allow-same-origin'],
  ]);
  expect(screen.getByText('2 elements differ for 1 reason')).toBeTruthy();
});

test('the edge moves by arrow keys, and stops at the ends', async () => {
  render(<ProofView {...common} proof={proof} path="b.html" />);
  const edge = screen.getByRole('slider', { name: 'Edge between before and after' });
  edge.focus();
  await userEvent.keyboard('{ArrowRight}{ArrowRight}{ArrowLeft}');
  expect(edge.getAttribute('aria-valuenow')).toBe('52');
  await userEvent.keyboard('{End}{ArrowRight}');
  expect(edge.getAttribute('aria-valuenow')).toBe('100');
  await userEvent.keyboard('{Home}');
  expect(edge.getAttribute('aria-valuenow')).toBe('0');
});

test('with nothing in the draft and nothing saved there is one thing to do', async () => {
  const onGather = jest.fn();
  const choose = jest.fn();
  const chooser = {
    choose,
    revisions: [{ number: 1, message: '' }],
    inDraft: false,
    others: [{ id: 'O', name: 'On the server', revision: 2 }],
  };
  render(
    <ProofView {...common} states={undefined} chooser={chooser} proof={undefined} path="a.html" onGather={onGather} />,
  );
  await userEvent.click(screen.getByRole('button', { name: 'Gather the rules' }));
  expect(onGather).toHaveBeenCalled();
  await userEvent.click(screen.getByRole('button', { name: 'Compare it with another site' }));
  await userEvent.click(screen.getByRole('menuitem', { name: /On the server/ }));
  expect(choose).toHaveBeenCalledWith(2, 1, 'O');
});

test('a cause: elements, property, before and after, the reason', () => {
  render(<CausesList causes={[cause, { ...cause, before: undefined }]} busy={false} onKeep={undefined} />);
  const [first, second] = screen.getAllByRole('listitem');
  expect(first!.textContent).toContain('h2 and 1 more, from line 9');
  expect(first!.textContent).toContain('#0b5563 !important');
  expect(first!.querySelector('code')!.textContent).toBe('h2');
  expect(second!.textContent).toContain('not set');
});

test('the old look is kept, also where nobody said anything, but not where somebody chose the new one or an address stood', async () => {
  const onKeep = jest.fn();
  const said = { ...cause.before!, value: 'url(x.png)' };
  render(
    <CausesList
      causes={[cause, { ...cause, before: undefined }, { ...cause, intended: true }, { ...cause, before: said }]}
      busy={false}
      onKeep={onKeep}
    />,
  );
  const acts = screen.getAllByRole('button', { name: 'Keep the old look' });
  for (const act of acts) await userEvent.click(act);
  expect(onKeep.mock.calls).toEqual([[cause], [{ ...cause, before: undefined }]]);
});

test.each([
  [page('a', 'same'), '='],
  [page('a', 'differs', [cause]), '≠ 2'],
  [page('a', 'removed'), '≠ '],
  [page('a', 'unsure'), '?'],
  [undefined, ''],
])('the rail says %#', (one, text) => {
  const { container } = render(<>{verdictMark(one)}</>);
  expect(container.textContent).toBe(text);
});

test('what cannot be told stands apart, with the line and what settles it', () => {
  const doubt = {
    sentence: 'menu.js, line 4: a script sets the class of elements.',
    elements: [{ path: 'html', name: 'p#a', line: 7 }],
  };
  const pages = [page('a.html', 'same'), { ...page('b.html', 'unsure'), doubts: [doubt] }];
  render(<ProofView {...common} proof={{ verdict: 'unsure', elements: 20, pages }} path="b.html" />);
  expect(screen.getByRole('heading', { level: 1 }).textContent).toBe('1 page looks the same, of 1 it cannot be told.');
  const apart = screen.getByRole('region', { name: 'What cannot be told' });
  expect(apart.textContent).toContain('menu.js, line 4');
  expect(apart.textContent).toContain('p#a in line 7');
  expect(apart.textContent).toContain('in a browser settles it');
});

test('outlines are found by path, with the number of their cause; what is not there is passed over', () => {
  document.body.innerHTML = '<h2>a</h2>';
  Element.prototype.getBoundingClientRect = () => ({ left: 1, top: 2, width: 30, height: 10 }) as DOMRect;
  expect(outlinesIn(document, [cause]).map((o) => [o.number, o.key])).toEqual([
    [1, 'html>body:nth-child(2)>h2:nth-child(1)'],
  ]);
  expect(outlinesIn(null, [cause])).toEqual([]);
});

describe('which two states are compared', () => {
  const statesAt = (address: string, newest: number, inDraft: boolean) =>
    renderHook(() => useStates(newest, inDraft), {
      wrapper: ({ children }) => <MemoryRouter initialEntries={[address]}>{children}</MemoryRouter>,
    }).result.current.states;
  test.each([
    ['the draft against its revision', '/', 3, true, [3, 'draft']],
    ['an empty draft: what was saved last', '/', 3, false, [2, 3]],
    ['as the address says', '/?from=1&to=3', 3, false, [1, 3]],
    ['the draft against an older one', '/?from=1&to=draft', 3, true, [1, 'draft']],
    ['a draft that is not there any more', '/?from=1&to=draft', 3, false, [1, 3]],
    ['never a state against itself or a later one', '/?from=3&to=2', 3, false, [1, 2]],
    ['a revision that is not there', '/?from=x&to=9', 3, false, [2, 3]],
    ['another site, also where this one has one state', '/?other=O&from=4&to=1', 1, false, [4, 1, 'O']],
  ] as const)('%s', (_shows, address, newest, inDraft, wanted) => {
    const states = statesAt(address, newest, inDraft);
    expect([states?.from, states?.to, ...(states?.other === undefined ? [] : [states.other])]).toEqual(wanted);
  });
  test('a site with one state has nothing to compare', () => {
    expect(statesAt('/', 1, false)).toBeUndefined();
  });
  test('both are words to change', async () => {
    const choose = jest.fn();
    const revisions = [1, 2, 3].map((number) => ({ number, message: `Did ${number}` }));
    const chooser = { choose, revisions, inDraft: false, others: [] };
    render(<StatesChosen states={{ from: 2, to: 3, other: undefined }} chooser={chooser} />);
    await userEvent.click(screen.getByRole('button', { name: 'r2' }));
    await userEvent.click(screen.getByRole('menuitem', { name: /r1/ }));
    expect(choose).toHaveBeenCalledWith(1, 3);
  });
});
