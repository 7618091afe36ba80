import { afterEach, expect, test } from '@jest/globals';
import { act, screen, waitFor } from '@testing-library/react';
import { at, openAt, recordedSite } from '../../testing/recordedSite.tsx';
import { Stream, streams } from '../../testing/streams.ts';

const server = recordedSite();
const opened = streams();
afterEach(() => void Reflect.deleteProperty(document, 'visibilityState'));

const sort = { kind: 'sort-rules', sheet: 'css/site.css' } as const;
const ofDraft = () => opened.filter(({ address }) => address.endsWith('/draft/events'));
const draftSays = (words: string) =>
  waitFor(() => expect(screen.getByRole('region', { name: 'Draft' }).textContent).toContain(words));
const tell = (): void => {
  const { base, version } = server.draft();
  act(() => ofDraft().at(-1)!.says({ base, version }));
};
const open = async (): Promise<void> => {
  openAt('links');
  await draftSays('The draft is empty');
  await waitFor(() => expect(ofDraft()).toHaveLength(1));
};
const isSeen = (seen: boolean): void => {
  Object.defineProperty(document, 'visibilityState', { configurable: true, get: () => (seen ? 'visible' : 'hidden') });
  act(() => void document.dispatchEvent(new Event('visibilitychange')));
};

test('what somebody else puts in the draft shows', async () => {
  await open();
  server.changeElsewhere([sort]);
  tell();
  await draftSays('1 operation');
});

test('what somebody else saves shows as the next revision', async () => {
  await open();
  server.stand();
  tell();
  expect(await screen.findByRole('button', { name: 'Revision r2' })).toBeTruthy();
  expect(server.asked).toContain(`GET ${at}/revisions/2/survey`);
});

test('a window that is not seen follows nothing, and follows again once it is', async () => {
  await open();
  isSeen(false);
  expect(ofDraft().map(({ readyState }) => readyState)).toEqual([Stream.CLOSED]);
  server.changeElsewhere([sort]);
  isSeen(true);
  expect(ofDraft()).toHaveLength(2);
  tell();
  await draftSays('1 operation');
});
