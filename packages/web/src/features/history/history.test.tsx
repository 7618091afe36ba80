import { expect, jest, test } from '@jest/globals';
import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { RevisionRow } from './RevisionRow.tsx';

const revision = { number: 2, message: 'Gather 3 rules', savedAt: '2026-11-29T10:00:00.000Z', changedFiles: 4, steps: ['Gather 3 rules', 'Sort the rules of s.css'], note: 'as agreed', by: 'Mara' }; // oxfmt-ignore

const acts = () => ({
  onWords: jest.fn(),
  onTexts: jest.fn(),
  onCompare: jest.fn(),
  onBack: jest.fn(),
  onWithout: jest.fn(),
});

test('what a revision did, its note, and the ways back', async () => {
  const on = acts();
  render(<RevisionRow revision={revision} newest={4} {...on} />);
  expect(screen.getByText('“as agreed”')).toBeTruthy();
  await userEvent.click(screen.getByRole('button', { name: 'Go back to r2' }));
  await userEvent.click(screen.getByRole('button', { name: 'Compare r2 with r4' }));
  await userEvent.click(screen.getByRole('button', { name: 'Texts that r2 changed' }));
  expect([on.onBack.mock.calls, on.onCompare.mock.calls, on.onTexts.mock.calls]).toEqual([[[]], [[4]], [[]]]);
  await userEvent.click(screen.getByText('2 operations'));
  await userEvent.click(within(screen.getAllByRole('listitem').at(-1)!).getByRole('button', { name: /Undo/ }));
  expect(on.onWithout).toHaveBeenCalledWith(1);
});

test('the newest and the first have no way to themselves', () => {
  const { rerender } = render(<RevisionRow revision={revision} newest={2} {...acts()} />);
  expect(screen.queryByRole('button', { name: /Go back/ })).toBeNull();
  rerender(<RevisionRow revision={{ ...revision, number: 1, steps: [], note: '', by: '' }} newest={2} {...acts()} />);
  expect(screen.queryByRole('button', { name: /Texts/ })).toBeNull();
});

test('a name is given in place; Escape leaves it, an empty one is none', async () => {
  const on = acts();
  render(<RevisionRow revision={revision} newest={4} {...on} />);
  const name = async (typed: string): Promise<void> => {
    await userEvent.click(screen.getByRole('button', { name: 'Name r2' }));
    await userEvent.clear(screen.getByRole('textbox', { name: 'Name of r2' }));
    await userEvent.type(screen.getByRole('textbox', { name: 'Name of r2' }), typed);
  };
  await name('One sheet{Enter}');
  await name('Another{Escape}');
  await name('{Enter}');
  expect(on.onWords.mock.calls).toEqual([[{ message: 'One sheet' }]]);
});
