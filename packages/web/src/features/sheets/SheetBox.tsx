import { useState, type FormEvent, type ReactNode } from 'react';
import { baselineText } from '@syndeton/core';
import type { DraftReply, OperationBody } from '@syndeton/contract';
import type { NearValues as Near } from '@syndeton/core';
import { formRowLook } from '../../ui/looks.ts';
import { problemText } from '../../app/api.ts';
import { Field, SelectField } from '../../ui/Field.tsx';
import { Button } from '../../ui/Button.tsx';
import { Act } from '../../ui/Act.tsx';
import { Box } from '../../ui/Box.tsx';
import { Choice } from '../../ui/Choice.tsx';
import { Swatch } from '../../ui/Swatch.tsx';
import { Problem } from '../../ui/Said.tsx';
import { NearValues } from './NearValues.tsx';
import { OtherSitesSheet } from './OtherSitesSheet.tsx';

/** What is asked before a whole sheet, a name or elements are changed. */
export type SheetTask =
  | { readonly does: 'new' }
  | { readonly does: 'rename' | 'merge' }
  /** From the rule at the cursor on. */
  | { readonly does: 'split'; readonly selector: string; readonly operation: (to: string) => OperationBody }
  | { readonly does: 'move'; readonly selector: string; readonly operation: (to: string) => OperationBody }
  | { readonly does: 'name'; readonly name: string }
  /** Colours and fonts that the sheet says several times. */
  | { readonly does: 'values'; readonly values: readonly string[] }
  | { readonly does: 'near'; readonly groups: readonly Near[] }
  /** Rules that only one page has elements for go to a sheet of its own. */
  | { readonly does: 'part' };

interface Props {
  readonly task: SheetTask;
  readonly siteId: string;
  readonly path: string;
  readonly sheets: DraftReply['sheets'];
  readonly pages: readonly string[];
  /** Rejects with the refusal, which stays in the box. */
  readonly onAdd: (title: string, operations: readonly OperationBody[], goTo?: string) => Promise<void>;
  readonly onClose: () => void;
}

type Start = 'empty' | 'set' | 'other';

/** One question, one act; what is refused is said under the field. */
export function SheetBox({ task, siteId, path, sheets, pages, onAdd, onClose }: Props) {
  const [name, setName] = useState(task.does === 'rename' ? path : task.does === 'name' ? task.name : '');
  const [to, setTo] = useState('');
  const [of, setOf] = useState<'class' | 'id' | 'custom-property'>(kindOf(name));
  const [start, setStart] = useState<Start>('empty');
  const [text, setText] = useState<string | undefined>(undefined);
  const [linked, setLinked] = useState<'all' | 'none'>('all');
  const [problem, setProblem] = useState<string | undefined>(undefined);
  const [kept, setKept] = useState<ReadonlyMap<Near, string>>(new Map());
  const [page, setPage] = useState(pages[0] ?? '');
  const [named, setNamed] = useState<Readonly<Record<string, string>>>({});
  const others = sheets.filter((sheet) => sheet.path !== path);
  const into = to === '' ? (others[0]?.path ?? '') : to;

  const act = async (title: string, what: OperationBody | readonly OperationBody[], goTo?: string): Promise<void> => {
    setProblem(undefined);
    try {
      await onAdd(title, [what].flat(), goTo);
      onClose();
    } catch (error) {
      setProblem(problemText(error));
    }
  };
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    switch (task.does) {
      case 'new': {
        const said = start === 'empty' ? '' : start === 'set' ? baselineText : (text ?? '');
        const sheet = name.trim();
        void act(
          `Make ${sheet}?`,
          {
            kind: 'new-sheet',
            sheet,
            text: said,
            ...(linked === 'all' ? { pages: [...pages], place: { at: start === 'set' ? 'first' : 'last' } } : {}),
          },
          withEnding(sheet),
        );
        return;
      }
      case 'rename':
        void act(`Rename ${path}?`, { kind: 'rename-sheet', sheet: path, to: name.trim() }, withEnding(name.trim()));
        return;
      case 'merge':
        void act(`Put ${path} into ${into}?`, { kind: 'merge-sheets', sheet: path, into }, into);
        return;
      case 'split':
        void act(`Part ${path} at ${task.selector}?`, task.operation(name.trim()));
        return;
      case 'move':
        void act(`Move ${task.selector} to ${into}?`, task.operation(into));
        return;
      case 'values': {
        const values = Object.entries(named).flatMap(([value, said]) =>
          said.trim() === '' ? [] : [{ value, name: dashed(said) }],
        );
        void act(`Give values of ${path} names?`, { kind: 'values-to-properties', sheet: path, values });
        return;
      }
      case 'near':
        void act(
          `Unite near values of ${path}?`,
          [...kept].map(([group, to]) => unite(path, group, to)),
        );
        return;
      case 'part':
        void act(`Take the rules of ${page} out?`, {
          kind: 'part-page',
          sheet: path,
          page,
          to: name.trim() || ownSheetOf(page),
        });
        return;
      case 'name':
        void act(`Rename ${name}?`, { kind: 'rename-name', of, from: bare(name), to: bare(to) });
    }
  };
  const field = (label: string, value: string, onChange: (value: string) => void, placeholder = ''): ReactNode => (
    <label className="block text-table">
      {label}
      <Field
        className="mt-1"
        value={value}
        placeholder={placeholder}
        aria-invalid={problem !== undefined}
        autoFocus={value === name}
        onChange={(event) => onChange(event.target.value)}
      />
    </label>
  );
  const choose = (label: string): ReactNode => (
    <label className="block text-table">
      {label}
      <SelectField className="mt-1" value={into} onChange={(event) => setTo(event.target.value)}>
        {others.map((sheet) => (
          <option key={sheet.path}>{sheet.path}</option>
        ))}
      </SelectField>
    </label>
  );
  return (
    <Box open onClose={onClose} title={titleOf(task, path)}>
      <form className="grid gap-3" onSubmit={submit}>
        {task.does === 'new' && (
          <>
            {field('Its path from the root of the site', name, setName, 'css/forms.css')}
            <Choice<Start>
              label="What it begins with"
              value={start}
              options={[
                ['empty', 'nothing'],
                ['set', 'a short set that evens out what browsers bring along'],
                ['other', 'a sheet of another site'],
              ]}
              onChange={setStart}
            />
            {start === 'other' && (
              <>
                <OtherSitesSheet siteId={siteId} onText={setText} />
                <p className="text-note text-ink-3">
                  Addresses in it are written as they were there; what is not here is told of.
                </p>
              </>
            )}
            <Choice<'all' | 'none'>
              label="Pages that link it"
              value={linked}
              options={[
                ['all', pages.length === 1 ? 'link it from the chosen page' : `link it from ${pages.length} pages`],
                ['none', 'link it later'],
              ]}
              onChange={setLinked}
            />
          </>
        )}
        {task.does === 'rename' && field('Its path from the root; links and imports follow', name, setName)}
        {task.does === 'split' && field(`The rest, from ${task.selector} on, goes to`, name, setName, 'css/rest.css')}
        {(task.does === 'merge' || task.does === 'move') && choose('Into which sheet')}
        {task.does === 'name' && (
          <>
            {field(
              'The name as it is',
              name,
              (next) => {
                setName(next);
                if (/^[.#]|^--/.test(next)) setOf(kindOf(next));
              },
              '.notice, #wrap or --brand',
            )}
            <Choice
              label="What it is the name of"
              value={of}
              options={[
                ['class', 'a class'],
                ['id', 'an ID'],
                ['custom-property', 'a custom property'],
              ]}
              onChange={setOf}
            />
            {field('The name it gets, in all sheets and pages', to, setTo)}
          </>
        )}
        {task.does === 'near' && (
          <>
            <p className="text-table">
              Eyes hardly tell these apart. The value that stays takes the place of the others; the proof shows where.
            </p>
            <NearValues
              groups={task.groups}
              chosen={kept}
              onChoose={(group, value) => setKept(withChoice(kept, group, value))}
            />
          </>
        )}
        {task.does === 'part' && (
          <>
            <label className="block text-table">
              The page
              <SelectField className="mt-1" value={page} onChange={(event) => setPage(event.target.value)}>
                {pages.map((one) => (
                  <option key={one}>{one}</option>
                ))}
              </SelectField>
            </label>
            {field('The sheet its rules go to, linked right behind this one', name, setName, ownSheetOf(page))}
          </>
        )}
        {task.does === 'values' && (
          <>
            <p className="text-table">
              A value with a name stands in one place, at the top of the sheet. Those without stay as they are.
            </p>
            <ul className="grid max-h-80 gap-1 overflow-auto">
              {task.values.map((value) => (
                <li key={value}>
                  <label className={`${formRowLook} text-table`}>
                    <span className="m overflow-hidden text-ellipsis whitespace-nowrap">
                      <Swatch colour={value} /> {value}
                    </span>
                    <Field
                      className="col-span-2"
                      placeholder="--brand"
                      value={named[value] ?? ''}
                      onChange={(event) => setNamed({ ...named, [value]: event.target.value })}
                    />
                  </label>
                </li>
              ))}
            </ul>
          </>
        )}
        {problem !== undefined && <Problem className="text-table">{problem}</Problem>}
        <div className="flex items-center gap-4">
          <Button
            type="submit"
            next
            disabled={
              (task.does === 'new' && start === 'other' && text === undefined) ||
              (task.does === 'near' && kept.size === 0)
            }
          >
            Put it into the draft
          </Button>
          <Act onClick={onClose}>Cancel</Act>
        </div>
      </form>
    </Box>
  );
}

const ownSheetOf = (page: string): string => page.replace(/\.[^./]*$/, '.css');

const unite = (sheet: string, { property, values }: Near, to: string): OperationBody => ({
  kind: 'unite-values',
  sheet,
  values: values.map(({ value }) => value).filter((value) => value !== to),
  to,
  ...(property === undefined ? {} : { property }),
});

function withChoice(kept: ReadonlyMap<Near, string>, group: Near, value: string | undefined) {
  const next = new Map(kept);
  if (value === undefined) next.delete(group);
  else next.set(group, value);
  return next;
}

const withEnding = (path: string): string => (/\.css$/i.test(path) ? path : `${path}.css`);
const dashed = (name: string): string => (name.trim().startsWith('--') ? name.trim() : `--${name.trim()}`);
const bare = (name: string): string => name.trim().replace(/^[.#]/, '');
const kindOf = (name: string): 'class' | 'id' | 'custom-property' =>
  name.startsWith('#') ? 'id' : name.startsWith('--') ? 'custom-property' : 'class';

function titleOf(task: SheetTask, path: string): string {
  switch (task.does) {
    case 'new':
      return 'New sheet';
    case 'rename':
      return `Rename or move ${path}`;
    case 'merge':
      return `Put ${path} into another sheet`;
    case 'split':
      return `Part ${path} at ${task.selector}`;
    case 'move':
      return `Move ${task.selector} to another sheet`;
    case 'name':
      return 'Rename a class, an ID or a custom property';
    case 'near':
      return `Unite near values of ${path}`;
    case 'part':
      return `Take one page’s rules out of ${path}`;
    case 'values':
      return `Names for colours and fonts of ${path}`;
  }
}
