import { expect, test } from '@jest/globals';
import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { OperationBody } from '@syndeton/contract';
import { at, openAt, recordedSite } from '../../testing/recordedSite.tsx';

const server = recordedSite();
const bar = () => screen.getByRole('region', { name: 'Draft' });
const saves = () => server.written().filter((one) => one.startsWith('POST revisions')).length;

test('a save that came too late is not done by pressing the keys again: what is there now was not seen', async () => {
  server.changeElsewhere([{ kind: 'sort-rules', sheet: 'css/site.css' } as OperationBody]);
  server.says[`POST ${at}/revisions`] = () => [409, { detail: 'In another window 1 operation was put in meanwhile.' }];
  openAt('survey');
  await waitFor(() => expect(bar().textContent).toContain('1 operation'));
  await userEvent.click(screen.getByRole('button', { name: /^Save as r2/ }));
  await waitFor(() => expect(bar().textContent).toContain('Not done.'));
  const before = saves();
  expect(before).toBeGreaterThan(0);
  await userEvent.keyboard('{Control>}{Enter}{/Control}');
  await userEvent.keyboard('{Control>}{Enter}{/Control}');
  expect(saves()).toBe(before);
});
