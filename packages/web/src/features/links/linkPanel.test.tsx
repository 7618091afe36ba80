import { expect, jest, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { SurveyReply } from '@syndeton/contract';
import { pageOf as page, sourceOf as source, type Page } from '../../testing/surveyPages.ts';
import { linkGrid } from './linkGrid.ts';
import { LinkPanel } from './LinkPanel.tsx';

const linked = page('index.html', [source('linked', 'css/s.css'), source('embedded')]);
const plain = page('tours/a.html', [source('embedded')]);
const importing = page('tours/b.html', [source('imported', 'css/s.css'), source('embedded')]);

function panel(pages: readonly Page[], paths: 'page' | 'root' | { host: string } = 'page', problem?: string) {
  const survey = { pages, findings: [], sheets: [{ path: 'css/s.css' }], repeatedBlocks: [] } as unknown as SurveyReply;
  const scope = pages.map(({ path }) => path);
  const grid = linkGrid(survey, [{ path: 'css/s.css' }]);
  const column = grid.columns.find(({ path }) => path === 'css/s.css')!;
  const acts = {
    onMend: jest.fn(),
    onLink: jest.fn(),
    onUnlink: jest.fn(),
    onMove: jest.fn(),
    onMedia: jest.fn(),
    onPaths: jest.fn(),
    onRename: jest.fn(),
    onImportsToLinks: jest.fn(),
    onToImports: jest.fn(),
    onClose: jest.fn(),
  };
  render(
    <LinkPanel
      column={column}
      grid={grid}
      survey={survey}
      scope={scope}
      busy={false}
      problem={problem}
      paths={paths}
      {...acts}
    />,
  );
  return acts;
}
const act = (name: string | RegExp) => screen.getByRole('button', { name });

test('a sheet that some pages link: the rest is offered it, its place moves, it can be unlinked', async () => {
  const acts = panel([linked, plain]);
  await userEvent.click(act('Link it on the other 1'));
  expect(acts.onLink).toHaveBeenCalledWith({ at: 'before-blocks' });
  await userEvent.click(screen.getByRole('radio', { name: 'last in the head' }));
  expect(acts.onMove).toHaveBeenCalledWith({ at: 'last' });
  await userEvent.click(act('Unlink from 1 page'));
  expect(acts.onUnlink).toHaveBeenCalled();
  await userEvent.click(act('Turn links into imports'));
  expect(acts.onToImports).toHaveBeenCalled();
});

test('a sheet nobody links goes first where it is put; one that is imported may be linked', async () => {
  const acts = panel([plain]);
  await userEvent.click(screen.getByRole('radio', { name: 'first in the head' }));
  expect([acts.onLink.mock.calls, acts.onMove.mock.calls]).toEqual([[[{ at: 'first' }]], []]);
  expect(act('all').hasAttribute('disabled')).toBe(true);
  const other = panel([importing]);
  await userEvent.click(act('Turn imports into links'));
  expect(other.onImportsToLinks).toHaveBeenCalled();
});

test('the tag of each folder is shown by the path that was chosen; a host is typed', async () => {
  const acts = panel([linked, plain], { host: 'https://ferry.test' });
  expect(screen.getByText('<link rel="stylesheet" href="https://ferry.test/css/s.css">')).toBeTruthy();
  const host = screen.getByRole('textbox', { name: 'Address the site stands at' });
  await userEvent.clear(host);
  await userEvent.type(host, 'https://boats.test{Enter}');
  expect(acts.onPaths).toHaveBeenCalledWith({ host: 'https://boats.test' });
});

test('a medium is chosen or written; a slip in it is named with what was meant', async () => {
  const acts = panel([linked]);
  await userEvent.click(act('all'));
  await userEvent.click(await screen.findByRole('menuitem', { name: 'print' }));
  expect(acts.onMedia).toHaveBeenCalledWith('print');
  await userEvent.click(act('all'));
  await userEvent.click(await screen.findByRole('menuitem', { name: /a media query/ }));
  const field = await screen.findByRole('textbox', { name: 'Media query' });
  await userEvent.clear(field);
  await userEvent.type(field, 'screeen');
  await userEvent.click(act('Make it screen'));
  await userEvent.click(act('Set'));
  expect(acts.onMedia).toHaveBeenLastCalledWith('screen');
});

test('a new name is sent without spaces around it; a refusal stands on top', async () => {
  const acts = panel([linked], 'page', 'css/t.css is there already.');
  expect(screen.getByRole('alert').textContent).toBe('css/t.css is there already.');
  expect(act('Rename').hasAttribute('disabled')).toBe(true);
  const name = screen.getByRole('textbox', { name: 'Name and folder of the sheet' });
  await userEvent.clear(name);
  await userEvent.type(name, ' css/u.css {Enter}');
  expect(acts.onRename).toHaveBeenCalledWith('css/u.css');
  await userEvent.click(act('Close'));
  expect(acts.onClose).toHaveBeenCalled();
});
