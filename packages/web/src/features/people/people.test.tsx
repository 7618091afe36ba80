import { expect, test } from '@jest/globals';
import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Provider } from 'react-redux';
import { MemoryRouter } from 'react-router';
import { makeStore } from '../../app/store.ts';
import { answeringServer } from '../../testing/answeringServer.ts';
import { useSitesQuery } from '../site/index.ts';
import { PersonMenu, SignedIn } from './index.ts';

const mara = { id: '00000000-0000-4000-8000-000000000001', name: 'Mara', isAdministrator: true };
const joss = { id: '00000000-0000-4000-8000-000000000002', name: 'Joss', isAdministrator: false };
const site = { id: '00000000-0000-4000-8000-00000000000a', name: 'Ferry' };

const server = answeringServer(() => ({ 'GET /api/who': () => [200, { accounts: true, person: mara }] }));

function Sites() {
  const { data = [], refetch } = useSitesQuery();
  return (
    <>
      <p>{data.length} sites</p>
      <button onClick={() => void refetch()}>Look again</button>
    </>
  );
}

const show = (what = <Sites />) =>
  render(
    <Provider store={makeStore()}>
      <MemoryRouter>
        <SignedIn>{what}</SignedIn>
      </MemoryRouter>
    </Provider>,
  );

test('without accounts everything is there, and nothing about people', async () => {
  server.says['GET /api/who'] = () => [200, { accounts: false, person: null }];
  server.says['GET /api/sites'] = () => [200, { sites: [] }];
  show(
    <>
      <Sites />
      <PersonMenu />
    </>,
  );
  expect(await screen.findByText('0 sites')).toBeTruthy();
  expect(screen.queryByRole('button', { name: /Signed in/ })).toBeNull();
});

test('who is not signed in sees a page to sign in; a wrong password is said, the right one leads in', async () => {
  let isIn = false;
  server.says['GET /api/who'] = () => [200, { accounts: true, person: isIn ? joss : null }];
  server.says['GET /api/sites'] = () => [200, { sites: [] }];
  server.says['POST /api/session'] = (body) => {
    isIn = (body as { password: string }).password === 'salt and rope';
    return isIn ? [200, { accounts: true, person: joss }] : [401, { detail: 'This name and password do not belong together.' }];
  };
  show();
  await userEvent.type(await screen.findByLabelText('Name'), 'Joss');
  await userEvent.type(screen.getByLabelText('Password'), 'rope{Enter}');
  expect((await screen.findByRole('alert')).textContent).toContain('do not belong together');
  expect(screen.queryByText('0 sites')).toBeNull();
  await userEvent.type(screen.getByLabelText('Password'), 'salt and rope{Enter}');
  expect(await screen.findByText('0 sites')).toBeTruthy();
}); // oxfmt-ignore

test('who is signed out meanwhile is led to sign in again', async () => {
  let isIn = true;
  server.says['GET /api/who'] = () => [200, { accounts: true, person: isIn ? joss : null }];
  server.says['GET /api/sites'] = () => (isIn ? [200, { sites: [] }] : [401, { detail: 'Sign in first.' }]);
  show();
  await screen.findByText('0 sites');
  isIn = false;
  await userEvent.click(screen.getByRole('button', { name: 'Look again' }));
  expect(await screen.findByRole('heading', { name: 'Who are you?' })).toBeTruthy();
});

const openMenu = async (item: string | RegExp): Promise<void> => {
  await userEvent.click(await screen.findByRole('button', { name: 'Signed in as Mara' }));
  await userEvent.click(await screen.findByRole('menuitem', { name: item }));
};

test('rights on a site are given, changed and taken back; a refusal is said', async () => {
  let rights = [{ name: 'Mara', right: 'own' }];
  const path = `/api/sites/${site.id}/people`;
  server.says[`GET ${path}`] = () => [200, { mine: 'own', rights }];
  server.says[`PUT ${path}`] = (body) => {
    const { name, right } = body as { name: string; right: string };
    if (name === 'Nobody') return [404, { detail: 'Nobody here is named Nobody.' }];
    rights = [...rights.filter((one) => one.name !== name), ...(right === 'none' ? [] : [{ name, right }])];
    return [200, { mine: 'own', rights }];
  };
  show(<PersonMenu site={site} />);
  await openMenu('Who may see Ferry');
  const box = within(await screen.findByRole('dialog'));
  await userEvent.type(box.getByLabelText(/Name of somebody/), 'Nobody');
  await userEvent.click(box.getByRole('button', { name: 'Give it' }));
  expect((await box.findByRole('alert')).textContent).toBe('Nobody here is named Nobody.');
  await userEvent.clear(box.getByLabelText(/Name of somebody/));
  await userEvent.type(box.getByLabelText(/Name of somebody/), 'Joss');
  await userEvent.selectOptions(box.getByLabelText('What they may do'), 'read');
  await userEvent.click(box.getByRole('button', { name: 'Give it' }));
  await userEvent.selectOptions(await box.findByLabelText('What Joss may do'), 'edit');
  await userEvent.click(box.getByRole('button', { name: 'Take it back from Joss' }));
  expect(server.asked.filter((one) => one.startsWith('PUT')).slice(1)).toEqual(
    ['read', 'edit', 'none'].map((right) => `PUT ${path} ${JSON.stringify({ name: 'Joss', right })}`),
  );
});

test('who may only look sees who else may, and gives nothing', async () => {
  server.says[`GET /api/sites/${site.id}/people`] = () => [
    200,
    { mine: 'read', rights: [{ name: 'Joss', right: 'own' }] },
  ];
  show(<PersonMenu site={site} />);
  await openMenu('Who may see Ferry');
  const box = within(await screen.findByRole('dialog'));
  expect(await box.findByText('owns')).toBeTruthy();
  expect(box.getAllByRole('button').map((one) => one.textContent)).toEqual(['Close']);
});

test('somebody is let in, and removed only when asked twice; oneself is not', async () => {
  let people = [joss, mara];
  server.says['GET /api/people'] = () => [200, { people }];
  server.says['POST /api/people'] = (body) => {
    const added = { ...(body as typeof joss), id: '00000000-0000-4000-8000-000000000003' };
    people = [...people, added];
    return [201, added];
  };
  server.says[`DELETE /api/people/${joss.id}`] = () => {
    people = people.filter(({ id }) => id !== joss.id);
    return [204];
  };
  show(<PersonMenu />);
  await openMenu('People');
  const box = within(await screen.findByRole('dialog'));
  await userEvent.type(box.getByLabelText('Name'), 'Ines');
  await userEvent.type(box.getByLabelText(/First password/), 'ten letter');
  await userEvent.click(box.getByRole('button', { name: 'Let in' }));
  expect(await box.findByText('Ines')).toBeTruthy();
  const [first] = await box.findAllByRole('button', { name: 'Remove' });
  await userEvent.click(first!);
  expect(people).toHaveLength(3);
  await userEvent.click(box.getByRole('button', { name: 'Remove Joss for good' }));
  expect(people.map(({ name }) => name)).toEqual(['Mara', 'Ines']);
  expect(box.getByText('you')).toBeTruthy();
});

test('a key is shown once, and taken back', async () => {
  let tokens: { id: string; label: string; createdAt: string }[] = [];
  const made = { id: '00000000-0000-4000-8000-0000000000aa', label: 'build', createdAt: '2026-11-29T10:00:00.000Z' };
  server.says['GET /api/tokens'] = () => [200, { tokens }];
  server.says['POST /api/tokens'] = () => {
    tokens = [made];
    return [201, { ...made, token: 'k-e-y' }];
  };
  server.says[`DELETE /api/tokens/${made.id}`] = () => {
    tokens = [];
    return [204];
  };
  show(<PersonMenu />);
  await openMenu('Keys for programs');
  const box = within(await screen.findByRole('dialog'));
  await userEvent.type(box.getByLabelText('What it is for'), 'build');
  await userEvent.click(box.getByRole('button', { name: 'Make a key' }));
  expect(await box.findByText('k-e-y')).toBeTruthy();
  await userEvent.click(await box.findByRole('button', { name: 'Take it back' }));
  expect(tokens).toEqual([]);
});

test('a password is changed when it is the same twice and long enough', async () => {
  server.says['PUT /api/session/password'] = (body) =>
    (body as { old: string }).old === 'old one' ? [204] : [403, { detail: 'That is not your password until now.' }];
  show(<PersonMenu />);
  await openMenu('Change your password');
  const box = within(await screen.findByRole('dialog'));
  const change = box.getByRole('button', { name: 'Change it' }) as HTMLButtonElement;
  await userEvent.type(box.getByLabelText(/until now/), 'wrong');
  await userEvent.type(box.getByLabelText(/^New password/), 'ten letters');
  await userEvent.type(box.getByLabelText('Once more'), 'ten');
  expect([change.disabled, box.getByRole('alert').textContent]).toEqual([true, 'These are two passwords.']);
  await userEvent.type(box.getByLabelText('Once more'), ' letters');
  await userEvent.click(change);
  expect((await box.findByRole('alert')).textContent).toContain('not your password');
  await userEvent.clear(box.getByLabelText(/until now/));
  await userEvent.type(box.getByLabelText(/until now/), 'old one');
  await userEvent.click(change);
  expect(screen.queryByRole('dialog')).toBeNull();
});
