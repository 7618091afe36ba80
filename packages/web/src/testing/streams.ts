import { afterEach, beforeEach } from '@jest/globals';

/** A stream of events that the test tells of, and ends as it likes. */
export class Stream {
  static readonly CLOSED = 2;
  readyState = 0;
  onmessage: ((event: { readonly data: string }) => void) | undefined;
  onerror: (() => void) | undefined;
  readonly address: string;
  constructor(address: string) {
    this.address = address;
  }
  says(reply: unknown): void {
    this.onmessage?.({ data: JSON.stringify(reply) });
  }
  breaks(readyState: number): void {
    this.readyState = readyState;
    this.onerror?.();
  }
  close(): void {
    this.readyState = Stream.CLOSED;
  }
}

/** In place of the browser's, in each test of the file: the streams opened so far, in order. */
export function streams(): Stream[] {
  const opened: Stream[] = [];
  beforeEach(() => {
    opened.length = 0;
    class Opened extends Stream {
      constructor(address: string) {
        super(address);
        opened.push(this);
      }
    }
    Object.assign(globalThis, { EventSource: Opened });
  });
  afterEach(() => void Reflect.deleteProperty(globalThis, 'EventSource'));
  return opened;
}
