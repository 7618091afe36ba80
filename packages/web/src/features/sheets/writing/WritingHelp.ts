import type { Answer, Question } from './answers.ts';

interface Reply {
  readonly id: number;
  readonly answer: unknown;
}

/** Language work in a thread of its own, so that typing never waits for it. */
export class WritingHelp {
  private readonly worker = new Worker(new URL('./writing.worker.ts', import.meta.url), { type: 'module' });
  private readonly waiting = new Map<number, (answer: never) => void>();
  private last = 0;

  constructor() {
    this.worker.onmessage = ({ data }: MessageEvent<Reply>) => {
      this.waiting.get(data.id)?.(data.answer as never);
      this.waiting.delete(data.id);
    };
  }

  ask<Asked extends Question>(question: Asked): Promise<Answer<Asked>> {
    const id = ++this.last;
    this.worker.postMessage({ id, question });
    return new Promise((resolve) => this.waiting.set(id, resolve));
  }

  close(): void {
    this.worker.terminate();
    this.waiting.clear();
  }
}
