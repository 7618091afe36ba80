import { expect, jest, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import { TypedNotice } from '../TypedNotice.tsx';
import { useTyped } from '../useTyped.ts';
import { answerTo, type Question } from './answers.ts';
import { WritingHelp, type Reply } from './WritingHelp.ts';

/** A thread that answers in its turn, cannot answer about some texts, and ends at others. */
class Thread {
  onmessage: ((event: { data: Reply }) => void) | null = null;
  onerror: (() => void) | null = null;
  readonly terminate = jest.fn();
  postMessage({ id, question }: { id: number; question: Question }): void {
    queueMicrotask(() => {
      if (question.text === 'deadly') this.onerror?.();
      else if (question.text === 'odd') this.onmessage?.({ data: { id, problem: 'no' } });
      else this.onmessage?.({ data: { id, answer: answerTo(question) } });
    });
  }
}

function helped() {
  const threads: Thread[] = [];
  const help = new WritingHelp(() => {
    threads.push(new Thread());
    return threads.at(-1) as unknown as Worker;
  });
  const look = (text: string) => help.ask({ asks: 'look', text, inQuirks: false }).then(({ rules }) => rules.length);
  return { help, threads, look };
}

test('questions are answered each for itself', async () => {
  const { look, threads } = helped();
  expect(await Promise.all([look('a{}'), look('a{} b{}'), look('')])).toEqual([1, 2, 0]);
  expect(threads).toHaveLength(1);
});

test('what cannot be answered is said to be, and hinders nothing else', async () => {
  const { look, threads } = helped();
  const asked = [look('odd'), look('a{}')];
  await expect(asked[0]).rejects.toThrow('no');
  expect(await asked[1]).toBe(1);
  expect(threads).toHaveLength(1);
});

test('a thread that ends leaves nobody waiting; the next question begins another', async () => {
  const { look, threads, help } = helped();
  const asked = [look('deadly'), look('a{}')];
  await expect(Promise.allSettled(asked)).resolves.toMatchObject([{ status: 'rejected' }, { status: 'rejected' }]);
  expect(threads[0]!.terminate).toHaveBeenCalled();
  expect(await look('a{}')).toBe(1);
  expect(threads).toHaveLength(2);
  // the first one says something still
  threads[0]!.onerror?.();
  expect(await look('b{} c{}')).toBe(2);
  help.close();
  expect(threads[1]!.terminate).toHaveBeenCalled();
});

test('an author reads that the text is not checked, and that it is kept', () => {
  function Notice() {
    const typed = useTyped('site', 's.css', { path: 's.css', hash: 'h', text: 'a{}', encoding: 'utf-8' });
    return <TypedNotice typed={typed} path="s.css" isUnlooked onDrop={() => undefined} />;
  }
  render(<Notice />);
  expect(screen.getByRole('alert').textContent).toMatch(/could not be checked just now\. What you type is kept/);
});
