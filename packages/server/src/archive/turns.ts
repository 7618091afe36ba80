import { Refusal } from '../http/refusal.ts';

/** So many things at once, the others after them in their order; what comes when too many wait is refused. */
export class Turns {
  private running = 0;
  private readonly waiting: (() => void)[] = [];
  private readonly atOnce: number;
  private readonly mostWaiting: number;

  constructor(atOnce: number, mostWaiting: number) {
    this.atOnce = atOnce;
    this.mostWaiting = mostWaiting;
  }

  async run<T>(act: () => Promise<T>, signal?: AbortSignal): Promise<T> {
    if (this.running >= this.atOnce) {
      if (this.waiting.length >= this.mostWaiting)
        throw new Refusal('busy', `${this.mostWaiting} archives wait to be read already. Try again in a minute.`);
      await new Promise<void>((resolve) => this.waiting.push(resolve));
    } else this.running++;
    try {
      signal?.throwIfAborted();
      return await act();
    } finally {
      const next = this.waiting.shift();
      // the place goes over to the next one
      if (next) next();
      else this.running--;
    }
  }
}
