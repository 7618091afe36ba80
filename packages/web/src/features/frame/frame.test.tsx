import { describe, expect, jest, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { DraftReply, ProofReply } from '@syndeton/contract';
import { useKeys } from '../../ui/useKeys.ts';
import { DraftBar } from './DraftBar.tsx';
import { KeysHelp } from './KeysHelp.tsx';
import { SaveWithNote } from './SaveWithNote.tsx';
import { proofWords } from './proofWords.ts';
import { unknownAddress } from './unknownAddress.ts';
import { stationFigures } from './stationFigures.ts';

const proofOf = (...verdicts: ('same' | 'intended' | 'unsure' | 'differs')[]): ProofReply => ({
  verdict: verdicts.includes('differs') ? 'differs' : verdicts.includes('unsure') ? 'unsure' : 'same',
  elements: 10,
  pages: verdicts.map((verdict, i) => ({
    path: `${i}.html`,
    verdict,
    elements: 5,
    differingElements: verdict === 'differs' ? 2 : 0,
    causes: [],
    notes: [],
    doubts: [],
  })),
});

test.each([
  [proofOf('same', 'same'), 'All 2 pages look the same.', undefined],
  [proofOf('same'), 'The page looks the same.', undefined],
  [proofOf('same', 'differs'), '1 page looks the same;', '1 looks different'],
  [proofOf('differs', 'differs', 'same', 'same'), '2 pages look the same;', '2 pages look different'],
  [proofOf('same', 'unsure'), '1 page looks the same;', 'of 1 it cannot be told'],
  [
    proofOf('same', 'unsure', 'unsure', 'differs'),
    '1 page looks the same;',
    '3 looks different; of 2 it cannot be told',
  ],
  [proofOf('same', 'intended'), '1 page looks the same;', '1 looks as you chose'],
  [
    proofOf('intended', 'differs', 'intended'),
    '0 pages look the same;',
    '1 looks different; 2 pages look as you chose',
  ],
])('what the proof says', (proof, same, differs) => {
  expect(proofWords(proof)).toEqual({ same, differs });
});

const draftOf = (operations: number, base = 1): DraftReply => ({
  base,
  version: 1,
  operations: Array.from({ length: operations }, () => ({ kind: 'gather-rules', sheet: 'a.css' })),
  steps: Array.from({ length: operations }, () => ({ sentence: 'Gather 2 rules', left: [] })),
  changes: [{ path: 'a.css', change: 'created', bytesBefore: 0, bytesAfter: 9, kind: 'sheet' }],
  sheets: [],
  missing: [],
  mistakes: [],
});

describe('draft bar', () => {
  const actions = () => ({
    onSave: jest.fn(),
    onDiscard: jest.fn(),
    onRedo: jest.fn(),
    onLeave: jest.fn(),
    onAgain: undefined,
    onRemove: jest.fn(),
    onProof: jest.fn(),
    onLine: jest.fn(),
    onBroughtIn: jest.fn(),
    onTexts: jest.fn(),
  });
  const common = {
    progress: undefined,
    failed: undefined,
    revision: 1,
    idle: 'The draft is empty.',
    unfinished: [],
    problem: undefined,
    busy: false,
  };

  test('an empty draft', () => {
    const on = actions();
    render(<DraftBar {...common} {...on} draft={draftOf(0)} proof={undefined} />);
    expect(screen.getByText('The draft is empty.')).toBeTruthy();
    screen.getByRole('button', { name: 'Files of the site' }).click();
    expect(on.onBroughtIn).toHaveBeenCalled();
    expect(screen.queryByRole('button', { name: /What r/ })).toBeNull();
  });

  test('what was saved last can be read as text, and so can each file of the draft', async () => {
    const on = actions();
    const { rerender } = render(<DraftBar {...common} {...on} revision={3} draft={draftOf(0)} proof={undefined} />);
    await userEvent.click(screen.getByRole('button', { name: 'What r3 changed' }));
    expect(on.onTexts).toHaveBeenCalledWith();
    rerender(<DraftBar {...common} {...on} draft={draftOf(1)} proof={proofOf('same')} />);
    await userEvent.click(screen.getByRole('button', { name: 'Review' }));
    await userEvent.click(screen.getByRole('button', { name: 'a.css' }));
    expect(on.onTexts).toHaveBeenLastCalledWith('a.css');
  });

  test('a draft that looks the same: saving takes the accent', async () => {
    const on = actions();
    render(<DraftBar {...common} {...on} draft={draftOf(2)} proof={proofOf('same', 'same')} />);
    expect(screen.getByRole('region', { name: 'Draft' }).textContent).toContain(
      '2 operations change 1 file. All 2 pages look the same.',
    );
    const save = screen.getByRole('button', { name: /Save as r2/ });
    expect(save.className).toContain('bg-thread');
    await userEvent.click(save);
    expect(on.onSave).toHaveBeenCalled();
  });

  test('a draft that looks different: the words lead to the proof, saving stays plain', async () => {
    const on = actions();
    render(<DraftBar {...common} {...on} draft={draftOf(1)} proof={proofOf('same', 'differs')} />);
    expect(screen.getByRole('button', { name: /Save as r2/ }).className).not.toContain('bg-thread');
    await userEvent.click(screen.getByRole('button', { name: '1 looks different' }));
    expect(on.onProof).toHaveBeenCalled();
  });

  test('what looks different is saved with the reason its author gives', async () => {
    const on = actions();
    render(<DraftBar {...common} {...on} draft={draftOf(1)} proof={proofOf('same', 'differs')} />);
    await userEvent.click(screen.getByRole('button', { name: /Save as r2/ }));
    expect(on.onSave).not.toHaveBeenCalled();
    await userEvent.type(screen.getByRole('textbox', { name: /Why/ }), 'as agreed');
    await userEvent.click(screen.getByRole('button', { name: 'Save as r2' }));
    expect(on.onSave).toHaveBeenCalledWith('as agreed');
  });

  test('the keys save as the button does', async () => {
    const on = actions();
    const { rerender } = render(<DraftBar {...common} {...on} draft={draftOf(1)} proof={proofOf('same')} />);
    await userEvent.keyboard('{Control>}{Enter}{/Control}');
    expect(on.onSave).toHaveBeenCalledTimes(1);
    rerender(<DraftBar {...common} {...on} draft={draftOf(1)} proof={proofOf('differs')} />);
    await userEvent.keyboard('{Control>}{Enter}{/Control}');
    expect(on.onSave).toHaveBeenCalledTimes(1);
    await userEvent.keyboard('because{Control>}{Enter}{/Control}');
    expect(on.onSave).toHaveBeenLastCalledWith('because');
  });

  test('what is wrong in a sheet of the draft is said, and leads to its line', async () => {
    const on = actions();
    const draft = { ...draftOf(1), mistakes: [{ path: 's.css', line: 4, sentence: 'No property has this name.' }] };
    render(<DraftBar {...common} {...on} draft={draft} proof={proofOf('same')} />);
    await userEvent.click(screen.getByRole('button', { name: '1 mistake in s.css' }));
    expect(on.onLine).toHaveBeenCalledWith('s.css', 4);
  });

  test('text of a sheet that is not in the draft is named, and leads there', async () => {
    const on = actions();
    const { rerender } = render(
      <DraftBar {...common} {...on} unfinished={['s.css']} draft={draftOf(0)} proof={undefined} />,
    );
    await userEvent.click(screen.getByRole('button', { name: 'The edit of s.css' }));
    expect(on.onLine).toHaveBeenCalledWith('s.css', 1);
    rerender(
      <DraftBar {...common} {...on} unfinished={['s.css', 't.css']} draft={draftOf(1)} proof={proofOf('same')} />,
    );
    expect(screen.getByRole('region', { name: 'Draft' }).textContent).toContain(
      'Edits of 2 sheets wait for your word.',
    );
  });

  test('what came too late: nothing is lost, mine can be redone on top, or left', async () => {
    const on = actions();
    const problem = { detail: 'In another window 1 operation was put in meanwhile.', late: true, redo: 'some-id' };
    render(<DraftBar {...common} {...on} draft={draftOf(1)} proof={undefined} problem={problem} />);
    expect(screen.getByText('Not done.')).toBeTruthy();
    expect(screen.getByRole('region', { name: 'Draft' }).textContent).toContain(problem.detail);
    await userEvent.click(screen.getByRole('button', { name: 'Redo mine on top' }));
    expect(on.onRedo).toHaveBeenCalled();
    await userEvent.click(screen.getByRole('button', { name: 'Leave mine' }));
    expect(on.onLeave).toHaveBeenCalled();
  });

  test('what was refused is said, also when the draft is empty', () => {
    const problem = { detail: 'There is no finding of this name any more.', late: false, redo: undefined };
    for (const operations of [0, 1]) {
      const { unmount } = render(
        <DraftBar {...common} {...actions()} draft={draftOf(operations)} proof={undefined} problem={problem} />,
      );
      expect(screen.getByText(problem.detail)).toBeTruthy();
      unmount();
    }
  });

  test('each operation can be taken out', async () => {
    const on = actions();
    render(<DraftBar {...common} {...on} draft={draftOf(2)} proof={proofOf('same')} />);
    await userEvent.click(screen.getByRole('button', { name: 'Review' }));
    await userEvent.click(screen.getByRole('button', { name: 'Remove operation 1 from the draft' }));
    expect(on.onRemove).toHaveBeenCalledWith(0);
  });
});

test('before the pages are read the stations claim nothing', () => {
  expect(
    Object.values(stationFigures(undefined, undefined, undefined, undefined)).every(
      (f) => f.number === '' && f.words === '' && !f.tied,
    ),
  ).toBe(true);
});

test.each<readonly [given: string, opened: string | undefined, what: RegExp | undefined]>([
  ['survey', undefined, undefined],
  ['survey', 'a.html', undefined],
  ['sheets', 'css/a.css', undefined],
  ['links', 'css/gone.css', undefined],
  ['handoff', undefined, /^There is no station “handoff”. The stations are Survey, Gather, .* Hand-off\.$/],
  ['proof', 'b.html', /^There is no page b\.html in r3 or the draft\.$/],
  ['sheets', 'css/b.css', /^There is no sheet css\/b\.css in r3 or the draft\.$/],
])('the address of %s with %s open', (given, opened, what) => {
  const view = {
    siteId: 's',
    given,
    station: given === 'handoff' ? 'survey' : given,
    opened,
    pages: ['a.html'],
    site: { revision: 3 },
  };
  const found = unknownAddress(view as never, ['css/a.css']);
  if (what === undefined) expect(found).toBeUndefined();
  else expect(found!.what).toMatch(what);
});

test('the stations count what is there', () => {
  const survey = {
    pages: [{ path: 'a.html', embeddedRules: 3, styleAttributes: 2, sources: [] }],
    sheets: [],
    drifted: 1,
    findings: [{ kind: 'drift' }, { kind: 'link-missing' }, { kind: 'override' }, { kind: 'override' }],
    otherFiles: 0,
    repeatedBytes: 0,
  };
  expect(stationFigures(survey as never, draftOf(1), proofOf('same', 'unsure'), undefined).proof).toEqual({
    tied: false,
    waiting: 1,
    number: '1',
    words: 'cannot be told',
  });
  const figures = stationFigures(survey as never, draftOf(1), proofOf('differs', 'differs'), undefined);
  expect([
    figures.gather.number,
    figures.gather.waiting,
    figures.links.waiting,
    figures.precedence.words,
    figures.proof.waiting,
    figures.proof.words,
  ]).toEqual(['5', 1, 1, 'who decides', 2, 'pages differ']);
  // one count: that of the list, once it is known
  const counted = stationFigures(survey as never, draftOf(1), undefined, undefined, 62).precedence;
  expect(counted).toEqual({ tied: false, waiting: 62, number: '62', words: 'overrides' });
});

test('single keys can be switched off; those with Ctrl act still, and so does Escape', async () => {
  const acts: string[] = [];
  function Keys() {
    useKeys({
      m: () => void acts.push('m'),
      escape: () => void acts.push('escape'),
      'ctrl+k': () => void acts.push('ctrl+k'),
    });
    return null;
  }
  const { rerender } = render(<Keys />);
  const press = () => userEvent.keyboard('m{Escape}{Control>}k{/Control}');
  await press();
  rerender(<KeysHelp open onClose={() => undefined} />);
  const box = screen.getByRole('checkbox', { name: /Single keys act/ });
  await userEvent.click(box);
  expect((box as HTMLInputElement).checked).toBe(false);
  rerender(<Keys />);
  await press();
  expect(acts).toEqual(['m', 'escape', 'ctrl+k', 'escape', 'ctrl+k']);
  localStorage.clear();
});

test('a change of look is saved by the keys with what was said about it', async () => {
  const saved: string[] = [];
  render(
    <SaveWithNote
      proof={proofOf('differs')}
      revision={3}
      onSave={(note) => saved.push(note)}
      onClose={() => undefined}
    />,
  );
  const beyond: boolean[] = [];
  const heard = (event: KeyboardEvent): void => void (event.key === 'Enter' && beyond.push(event.defaultPrevented));
  window.addEventListener('keydown', heard);
  await userEvent.type(screen.getByRole('textbox'), 'Wider on purpose{Control>}{Enter}{/Control}');
  window.removeEventListener('keydown', heard);
  expect(saved).toEqual(['Wider on purpose']);
  // the draft bar, which hears of the same keys, does not take them for its own
  expect(beyond).toEqual([true]);
});
