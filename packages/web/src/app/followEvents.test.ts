import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { followEvents } from './followEvents.ts';

/** In place of the browser's: streams that the test ends as it likes. */
class Stream {
  static readonly CLOSED = 2;
  static opened: Stream[] = [];
  readyState = 0;
  onmessage: ((event: { readonly data: string }) => void) | undefined;
  onerror: (() => void) | undefined;
  readonly address: string;
  constructor(address: string) {
    this.address = address;
    Stream.opened.push(this);
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

beforeEach(() => {
  jest.useFakeTimers();
  Stream.opened = [];
  Object.assign(globalThis, { EventSource: Stream });
});
afterEach(() => {
  jest.useRealTimers();
  Reflect.deleteProperty(globalThis, 'EventSource');
});

test('a stream that was refused is asked for again; one that broke off is left to the browser', () => {
  const told: unknown[] = [];
  const stop = followEvents('/api/x', (reply) => told.push(reply));
  Stream.opened[0]!.says({ version: 1 });
  Stream.opened[0]!.breaks(0);
  jest.runAllTimers();
  expect(Stream.opened).toHaveLength(1);
  Stream.opened[0]!.breaks(Stream.CLOSED);
  jest.runAllTimers();
  expect(Stream.opened.map(({ address }) => address)).toEqual(['/api/x', '/api/x']);
  Stream.opened[1]!.says({ version: 2 });
  expect(told).toEqual([{ version: 1 }, { version: 2 }]);
  stop();
  expect(Stream.opened[1]!.readyState).toBe(Stream.CLOSED);
});

test('nothing is asked for again once nobody follows', () => {
  const stop = followEvents('/api/x', () => undefined);
  Stream.opened[0]!.breaks(Stream.CLOSED);
  stop();
  jest.runAllTimers();
  expect(Stream.opened).toHaveLength(1);
});

test('without events nothing is told', () => {
  Reflect.deleteProperty(globalThis, 'EventSource');
  expect(() => followEvents('/api/x', () => undefined)()).not.toThrow();
});
