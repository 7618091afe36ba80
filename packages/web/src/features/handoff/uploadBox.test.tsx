import { beforeEach, expect, jest, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Provider } from 'react-redux';
import { makeStore } from '../../app/store.ts';
import { answeringServer } from '../../testing/answeringServer.ts';
import { UploadBox } from './UploadBox.tsx';

const id = '00000000-0000-4000-8000-00000000000a';
const askKey = `POST /api/sites/${id}/upload/key`;
const upload = `POST /api/sites/${id}/revisions/2/upload`;
const server = answeringServer(() => ({
  [askKey]: () => [200, { key: 'SHA256:abc' }],
  [upload]: () => [202, { id: 'u', status: 'running', done: 0, total: 3 }],
}));
const onClose = jest.fn();
const field = (name: string | RegExp) => screen.getByRole<HTMLInputElement>('textbox', { name });
const button = (name: string | RegExp) => screen.getByRole('button', { name });

function show(): void {
  render(
    <Provider store={makeStore()}>
      <UploadBox siteId={id} revision={2} changed={3} onClose={onClose} />
    </Provider>,
  );
}

async function fill(): Promise<void> {
  await userEvent.type(field('Machine'), 'ferry.test');
  await userEvent.type(field('Name'), 'mara');
  await userEvent.type(screen.getByLabelText(/^Password/), 'secret');
}

/** What was sent to an address, the last time. */
const sent = (to: string): unknown => JSON.parse(server.asked.findLast((one) => one.startsWith(to))!.slice(to.length));

beforeEach(() => {
  localStorage.clear();
  onClose.mockReset();
});

test('nothing is sent before the key of the machine was seen and said to be right; the password is kept nowhere', async () => {
  show();
  await fill();
  await userEvent.click(button('Ask for its key'));
  expect(await screen.findByText('SHA256:abc')).toBeTruthy();
  expect(sent(askKey)).toEqual({ protocol: 'sftp', host: 'ferry.test', port: 22 });
  expect(server.asked).toHaveLength(1);
  await userEvent.click(button('It is the right one: upload'));
  expect(sent(upload)).toEqual({
    protocol: 'sftp',
    host: 'ferry.test',
    port: 22,
    user: 'mara',
    password: 'secret',
    folder: '/',
    key: 'SHA256:abc',
    since: 1,
  });
  expect(onClose).toHaveBeenCalled();
  expect(JSON.stringify({ ...localStorage })).toContain('ferry.test');
  expect(JSON.stringify({ ...localStorage })).not.toContain('secret');
});

test('another machine has another key', async () => {
  show();
  await fill();
  await userEvent.click(button('Ask for its key'));
  await screen.findByText('SHA256:abc');
  await userEvent.type(field('Machine'), 'x');
  expect(screen.queryByText('SHA256:abc')).toBeNull();
  await userEvent.click(screen.getByRole('radio', { name: 'FTPS, FTP with TLS' }));
  expect(field('Port').value).toBe('21');
  expect(button('Ask for its key')).toBeTruthy();
});

test('a machine that does not answer, and an upload that is refused, say why; nothing is lost', async () => {
  server.says[askKey] = () => [502, { detail: 'ferry.test does not answer.' }];
  show();
  await fill();
  await userEvent.click(button('Ask for its key'));
  expect((await screen.findByRole('alert')).textContent).toBe('ferry.test does not answer.');
  server.says[askKey] = () => [200, { key: 'SHA256:abc' }];
  server.says[upload] = () => [409, { detail: 'The machine shows another key now.' }];
  await userEvent.click(button('Ask for its key'));
  await userEvent.click(await screen.findByRole('button', { name: 'It is the right one: upload' }));
  expect((await screen.findByRole('alert')).textContent).toBe('The machine shows another key now.');
  expect(field('Name').value).toBe('mara');
  expect(onClose).not.toHaveBeenCalled();
});

test('the machine of last time is there; what the browser keeps may be spoiled', () => {
  localStorage.setItem(
    `syndeton-machine ${id}`,
    JSON.stringify({ protocol: 'ftps', host: 'old.test', port: '990', user: 'joss', folder: '/www' }),
  );
  show();
  expect([field('Machine').value, field('Port').value, field('Name').value]).toEqual(['old.test', '990', 'joss']);
  localStorage.setItem(`syndeton-machine ${id}`, '{"host"');
  show();
  expect(screen.getAllByRole<HTMLInputElement>('textbox', { name: 'Machine' }).at(-1)!.value).toBe('');
});
