import { afterEach, beforeEach } from '@jest/globals';
import { act } from '@testing-library/react';
import { answerTo, type Question } from '../features/sheets/writing/answers.ts';
import type { Reply } from '../features/sheets/writing/WritingHelp.ts';

/** In place of the thread that looks at the texts of sheets: it answers at once, when it is told to, or cannot. */
export interface LookingThread {
  isLate: boolean;
  isOdd: boolean;
  /** What it says once it is let. */
  waiting: (() => void)[];
}

/** For each test of the file; jsdom lays nothing out, so the editor finds no boxes. */
export function lookingThread(): LookingThread {
  const state: LookingThread = { isLate: false, isOdd: false, waiting: [] };
  class Thread {
    onmessage: ((event: { data: Reply }) => void) | null = null;
    onerror: (() => void) | null = null;
    terminate(): void {
      this.onmessage = null;
    }
    postMessage({ id, question }: { id: number; question: Question }): void {
      const say = (): void =>
        this.onmessage?.({ data: state.isOdd ? { id, problem: 'no' } : { id, answer: answerTo(question) } });
      if (state.isLate) state.waiting.push(say);
      else queueMicrotask(() => act(say));
    }
  }
  const real = globalThis.Worker;
  beforeEach(() => {
    Object.assign(state, { isLate: false, isOdd: false, waiting: [] });
    globalThis.Worker = Thread as unknown as typeof Worker;
    Range.prototype.getClientRects = () => [] as unknown as DOMRectList;
  });
  afterEach(() => {
    globalThis.Worker = real;
  });
  return state;
}
