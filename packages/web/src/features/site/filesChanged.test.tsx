import { expect, jest, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ChangedSiteReply } from '@syndeton/contract';
import { FilesChanged } from './FilesChanged.tsx';

const onLink = jest.fn();
const none = { number: 3, added: [], replaced: [], removed: [], lacking: [] } as unknown as ChangedSiteReply;
const said = (change: Partial<ChangedSiteReply>): string | null => {
  render(<FilesChanged done={{ ...none, ...change }} onLink={onLink} />);
  return screen.getByRole('status').textContent;
};

test('says what went in, was replaced and was taken out, and nothing of what did not happen', () => {
  expect(said({ added: ['a.html'], replaced: ['b.html', 'c.css'], removed: ['old/d.html'] })).toBe(
    'Saved as r3: 1 file put in (a), 2 files replaced (b, c.css), 1 file taken out (old/d).',
  );
});

test('a page that lacks what those beside it link is offered it', async () => {
  const text = said({ added: ['new.html'], lacking: [{ page: 'new.html', sheets: ['s.css'] }] });
  expect(text).toContain('new does not link s.css, as the pages beside it do.');
  await userEvent.click(screen.getByRole('button', { name: 'Link it alike' }));
  expect(onLink).toHaveBeenCalled();
});

test('of several pages each sheet is named once', () => {
  const lacking = ['x.html', 'y.html'].map((page) => ({ page, sheets: ['s.css'] }));
  expect(said({ added: ['x.html', 'y.html'], lacking })).toContain(
    'x, y do not link s.css, as the pages beside them do.',
  );
});
