import { expect, jest, test } from '@jest/globals';
import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { DraftReply, FamilyReply } from '@syndeton/contract';
import { AttributesTable } from './AttributesTable.tsx';
import { FamiliesTable } from './FamiliesTable.tsx';
import { filters, versionKeys } from './familyFilters.ts';
import { choiceCleared, gatherSlice, selectChosen, versionsChosen } from './gatherSlice.ts';
import { GatherView } from './GatherView.tsx';
import { PlanSettingsBox } from './PlanSettingsBox.tsx';
import { SendBox, type SendOptions } from './SendBox.tsx';
import { summaryOf } from '../../ui/summaryOf.ts';
import { VersionsTable } from './VersionsTable.tsx';

Object.assign(globalThis, { CSS: { supports: () => true } });
Element.prototype.scrollIntoView = () => undefined;
globalThis.ResizeObserver = class {
  observe(): void {}
  unobserve(): void {}
  disconnect(): void {}
};

const version = (id: string, pages: string[], color: string): FamilyReply['versions'][number] => ({
  id,
  pages,
  declarations: [{ property: 'color', value: color, important: false }],
  text: `p{color:${color}}`,
  line: 1,
});
const family = (id: string, versions: FamilyReply['versions'], groups: FamilyReply['groups'] = []): FamilyReply => ({
  id,
  label: id,
  groups,
  kind: 'rule',
  versions,
  pages: versions.flatMap((v) => v.pages),
  twins: [],
  elements: 1,
  order: 0,
  drifted: versions.length > 1 ? ['color'] : [],
});
const drifted = family('.notice', [version('a', ['1.html', '2.html'], '#f00'), version('b', ['3.html'], '#00f')]);
const plain = family('h1', [version('x', ['1.html'], '#000')]);
const third = family('h2', [version('y', ['1.html', '2.html'], '#000')]);
const pages = ['1.html', '2.html', '3.html'];

test('a rule in a few words', () => {
  expect(
    summaryOf([
      { property: 'color', value: 'red' },
      { property: 'font', value: '400 18px/1.3 Georgia, serif' },
      { property: 'padding', value: '6px' },
      { property: 'margin', value: '0' },
    ]),
  ).toBe('400 18px/1.3 Georgia, padding 6px, margin 0, …');
});

test.each(filters.map(([name, , holds]) => [name, [drifted, plain, third].filter(holds).map((f) => f.id)] as const))(
  'the filter %s',
  (name, ids) => {
    expect(ids).toEqual(
      {
        all: ['.notice', 'h1', 'h2'],
        identical: ['h2'],
        drifted: ['.notice'],
        'one-page': ['h1'],
        unused: [],
        conditional: [],
      }[name as 'all'],
    );
  },
);

test('choosing is remembered by site and version', () => {
  const of = (gather: typeof state, site: string) => selectChosen({ gather }, site);
  let state = gatherSlice.reducer(undefined, versionsChosen({ site: 's', keys: versionKeys(drifted), on: true }));
  state = gatherSlice.reducer(state, versionsChosen({ site: 's', keys: ['.notice\nb'], on: false }));
  expect([of(state, 's'), of(state, 'another')]).toEqual([['.notice\na'], []]);
  expect(of(gatherSlice.reducer(state, choiceCleared('another')), 's')).toEqual(['.notice\na']);
  expect(of(gatherSlice.reducer(state, choiceCleared('s')), 's')).toEqual([]);
});

test('families: choose one, a run with keys, open one', async () => {
  const user = userEvent.setup();
  const chosen: (readonly [readonly string[], boolean])[] = [];
  const onOpen = jest.fn();
  render(
    <FamiliesTable
      families={[drifted, plain, third]}
      pages={pages}
      chosen={new Set()}
      opened={undefined}
      onOpen={onOpen}
      onChoose={(keys, on) => chosen.push([keys, on])}
      operations={[{ kind: 'gather-rules', sheet: 'css/site.css', rules: [{ family: 'h1' }] }]}
      onSettle={() => {}}
    />,
  );
  expect(
    screen
      .getAllByRole('row')
      .slice(1)
      .map((row) => within(row).getAllByRole('cell').at(-1)!.textContent?.trim()),
  ).toEqual(['undecided', 'site.css', 'undecided']);
  await user.click(screen.getByRole('checkbox', { name: 'Choose .notice' }));
  expect(chosen.at(-1)).toEqual([['.notice\na', '.notice\nb'], true]);
  await user.keyboard('{Shift>}{ArrowDown}{/Shift}');
  expect(chosen.at(-1)).toEqual([['.notice\na', '.notice\nb', 'h1\nx'], true]);
  await user.keyboard('jx');
  expect(chosen.at(-1)).toEqual([['h2\ny'], true]);
  await user.click(screen.getByRole('button', { name: 'h1' }));
  expect(onOpen).toHaveBeenCalledWith('h1');
});

test('in a narrow window a row leaves out what the rules do, and keeps under which condition they count', () => {
  const list = { matches: true, addEventListener: () => undefined, removeEventListener: () => undefined };
  const wide = globalThis.matchMedia;
  globalThis.matchMedia = () => list as never;
  const conditional = family('p', [version('a', ['a.html'], 'red')], [{ name: 'media', prelude: 'print' }]);
  const props = {
    pages,
    chosen: new Set<string>(),
    opened: undefined,
    onOpen: jest.fn(),
    onChoose: jest.fn(),
    operations: [],
    onSettle: jest.fn(),
  };
  render(<FamiliesTable families={[conditional]} {...props} />);
  expect(screen.getAllByRole('columnheader').map((one) => one.textContent)).toEqual([
    '',
    'Selector',
    `Copies, of ${pages.length} pages`,
    'Versions',
    'Goes to',
  ]);
  expect(screen.getByText('only @media print')).toBeTruthy();
  globalThis.matchMedia = wide;
});

test('versions side by side: what differs is lit, each can be chosen, and what becomes of it', async () => {
  const onChoose = jest.fn();
  const onSettle = jest.fn();
  render(
    <VersionsTable
      family={drifted}
      chosen={new Set(['.notice\na'])}
      onChoose={onChoose}
      operations={[{ kind: 'gather-blocks', folder: 'css' }]}
      onSettle={onSettle}
    />,
  );
  const cells = screen.getAllByRole('cell').filter((cell) => cell.classList.contains('lit'));
  expect(cells.map((cell) => cell.textContent?.trim())).toEqual(['#00f']);
  expect(screen.getByText('chosen, to be sent')).toBeTruthy();
  await userEvent.click(screen.getByRole('checkbox', { name: 'Choose version B' }));
  expect(onChoose).toHaveBeenCalledWith(['.notice\nb'], true);
  const becomes = within(screen.getByRole('radiogroup', { name: 'What becomes of version B' }));
  expect((becomes.getByRole('radio', { name: 'its own sheet' }) as HTMLButtonElement).ariaChecked).toBe('true');
  await userEvent.click(becomes.getByText('take A; it looks different'));
  expect(onSettle).toHaveBeenCalledWith(drifted.versions[1], 'take a');
});

const group = { key: 'k', name: 'text-own', selector: '.text-own', tags: ['p'], declarations: [{ property: 'top', value: '0', important: false }], elements: 3, pages: ['1.html'] }; // oxfmt-ignore

test('style attributes: the class can be named, a bad name says why', async () => {
  const user = userEvent.setup();
  const onName = jest.fn((_key: string, name: string) => (name.includes(' ') ? 'No space.' : undefined));
  render(
    <AttributesTable
      groups={[group]}
      state="there"
      left={[{ reason: 'a script sets it', elements: 2, pages: ['2.html'] }]}
      pages={pages}
      chosen={new Set()}
      names={{}}
      goesTo={() => 'css/a.css'}
      onChoose={() => {}}
      onName={onName}
    />,
  );
  const field = screen.getByRole('textbox');
  await user.clear(field);
  await user.type(field, 'two words{Enter}');
  expect(onName).toHaveBeenCalledWith('k', 'two words');
  expect(screen.getByRole('alert').textContent).toBe('No space.');
  await user.clear(field);
  await user.type(field, 'small{Enter}');
  expect(onName).toHaveBeenLastCalledWith('k', 'small');
  expect(screen.queryByRole('alert')).toBeNull();
  expect(screen.getByText('a.css')).toBeTruthy();
  expect(screen.getByText(/2 attributes/).closest('p')!.textContent).toBe('2 attributes on 2: a script sets it.');
});

const sheets: DraftReply['sheets'] = [{ path: 'css/site.css', bytes: 10, rules: 1, pages: ['1.html'], isNew: false }];
const draft: DraftReply = {
  base: 1,
  version: 1,
  operations: [],
  steps: [],
  changes: [],
  missing: [],
  mistakes: [],
  sheets,
};

test('the station says what is there and what to do next', () => {
  const props = {
    families: [drifted, plain],
    shown: [drifted, plain],
    filter: 'all' as const,
    pages,
    scopeSize: 3,
    scoped: false,
    canPropose: true,
    presentational: 0,
    failed: undefined,
    draft,
    opened: undefined,
    proposing: false,
    progress: '',
    notes: [],
    loading: false,
    plan: undefined,
    attributes: { groups: [], state: 'there', left: [], names: {}, goesTo: () => undefined },
  };
  const quiet = {
    onAllPages: () => {},
    onOpen: () => {},
    onFilter: () => {},
    onChoose: () => {},
    onPropose: () => {},
    onSend: () => {},
    onSheet: () => {},
    onMarkName: () => undefined,
    sheetText: undefined,
    onNowhere: () => undefined,
    correctable: new Set<string>(),
    onCorrect: () => undefined,
    onBringIn: () => undefined,
    onTrade: () => undefined,
    onUndo: () => {},
    onSettle: () => {},
    onSettings: () => {},
    onName: () => undefined,
  };
  const { rerender } = render(<GatherView {...props} {...quiet} chosen={new Set()} />);
  expect(screen.getByRole('heading', { level: 1 }).textContent).toBe(
    '3 pages hold 2 families of rules; 1 has drifted.',
  );
  expect(screen.getByRole('button', { name: /Propose a plan/ })).toBeTruthy();
  rerender(<GatherView {...props} {...quiet} chosen={new Set(['h1\nx'])} />);
  expect(screen.getByRole('button', { name: /Send 1 rule to a sheet/ })).toBeTruthy();

  // all rules have their place; of style attributes nothing is known yet, then one is left
  const operation = { kind: 'gather-rules', sheet: 'css/site.css' } as const;
  const planned = { ...draft, operations: [operation] };
  const reading = { ...props.attributes, state: 'reading' };
  rerender(<GatherView {...props} {...quiet} draft={planned} attributes={reading} chosen={new Set()} />);
  expect(screen.queryByRole('button', { name: /Propose|Settings/ })).toBeNull();
  const left = { ...props.attributes, groups: [group] };
  rerender(<GatherView {...props} {...quiet} draft={planned} attributes={left} chosen={new Set()} />);
  expect(screen.getByRole('button', { name: /Propose the rest/ })).toBeTruthy();
  rerender(<GatherView {...props} {...quiet} draft={planned} chosen={new Set()} />);
  expect(screen.queryByRole('button', { name: /Propose/ })).toBeNull();
});

test('a refused name says why under the field and keeps what was typed', async () => {
  const user = userEvent.setup();
  const onSend = jest.fn((_sheet: string, _more: SendOptions) =>
    Promise.reject({ status: 400, data: { detail: 'The name a b holds a space.' } }),
  );
  render(<SendBox sheets={sheets} suggested="css/shared.css" rules={2} pages={3} onSend={onSend} onClose={() => {}} />);
  const box = within(screen.getByRole('dialog'));
  const field = box.getByLabelText(/File, from the site/);
  await user.clear(field);
  await user.type(field, 'a b');
  await user.click(box.getByRole('button', { name: 'Put it in the draft' }));
  expect((await box.findByRole('alert')).textContent).toBe('The name a b holds a space.');
  expect((field as HTMLInputElement).value).toBe('a b');
  expect(onSend).toHaveBeenCalledWith('a b', { keepEmptyBlocks: false, place: undefined });
});

test('in a sheet that is there rules go before one of its own', async () => {
  const user = userEvent.setup();
  const onSend = jest.fn(async (_sheet: string, _more: SendOptions) => undefined);
  const there = [{ path: 'css/base.css', rules: 3, bytes: 90, pages: [], isNew: false }];
  render(
    <SendBox sheets={there} suggested="css/base.css" rules={2} pages={1} onSend={onSend} onClose={() => undefined} />,
  );
  const box = within(screen.getByRole('dialog'));
  await user.click(box.getByRole('radio', { name: 'before a rule' }));
  expect((box.getByRole('button', { name: 'Put it in the draft' }) as HTMLButtonElement).disabled).toBe(true);
  await user.type(box.getByRole('textbox', { name: /by its selector/ }), '.notice');
  await user.click(box.getByRole('button', { name: 'Put it in the draft' }));
  expect(onSend).toHaveBeenCalledWith('css/base.css', { keepEmptyBlocks: false, place: { before: '.notice' } });
});

test('plan settings: taken as chosen, a bad number says what is allowed', async () => {
  const user = userEvent.setup();
  const onSettle = jest.fn();
  const onClose = jest.fn();
  render(<PlanSettingsBox settings={{ folder: 'css' }} onSettle={onSettle} onClose={onClose} />);
  const most = screen.getByLabelText(/At most so many sheets/);
  await user.type(most, 'few');
  await user.click(screen.getByRole('button', { name: 'Use these' }));
  expect(screen.getByRole('alert').textContent).toContain('a whole number from 1');
  await user.clear(most);
  await user.type(most, '3');
  await user.click(screen.getByText('stays in the page'));
  await user.click(screen.getByRole('checkbox', { name: 'Presentational attributes and elements as well' }));
  await user.click(screen.getByRole('button', { name: 'Use these' }));
  expect(onSettle).toHaveBeenCalledWith({
    folder: 'css',
    sheets: 'one',
    singlePage: 'stay',
    maxSheets: 3,
    hints: true,
  });
  expect(onClose).toHaveBeenCalled();
});
