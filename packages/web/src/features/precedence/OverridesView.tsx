import { Fragment, useState } from 'react';
import type { OperationBody, OverrideReply, OverridesReply } from '@syndeton/contract';
import { sayLook, sideHeadLook } from '../../ui/looks.ts';
import { Button } from '../../ui/Button.tsx';
import { Act } from '../../ui/Act.tsx';
import { CopiesStrip } from '../../ui/CopiesStrip.tsx';
import { count } from '../../ui/format.ts';
import { Mark } from '../../ui/Mark.tsx';
import { coloursIn, Swatch } from '../../ui/Swatch.tsx';
import { useNarrow } from '../../ui/useNarrow.ts';
import { Problem, Waiting } from '../../ui/Said.tsx';
import { OverrideChoices } from './OverrideChoices.tsx';
import { dropOf, shareOf } from './overrideOperations.ts';

interface Props {
  /** The draft that choices are tried on. */
  readonly on: { readonly id: string; readonly base: number; readonly version: number };
  readonly found: OverridesReply | undefined;
  readonly failed: string | undefined;
  /** In rail order. */
  readonly pages: readonly string[];
  readonly scope: readonly string[];
  readonly scoped: boolean;
  readonly opened: string;
  readonly busy: boolean;
  readonly onOpen: (id: string | undefined) => void;
  readonly onAdd: (operations: readonly OperationBody[]) => void;
  /** Copies to drop. */
  readonly onCopies: (operations: readonly OperationBody[]) => void;
  readonly onPages: (pages: readonly string[]) => void;
  readonly onNote: (override: string, note: string) => void;
  readonly onSheet: (path: string) => void;
}

const causes: readonly (readonly [OverrideReply['cause'], string, string])[] = [
  ['copy', 'Says what the sheet says', 'a copy left behind; the same value comes next'],
  ['order', 'Comes later', 'as strong as the shared rule, and after the link'],
  ['specificity', 'Has the stronger selector', 'an ID or a class more than the shared rule'],
  ['attribute', 'Is a style attribute', 'beats every selector that is not important'],
  ['importance', 'Is important', 'beats everything that is not'],
  ['layer', 'Stands in a stronger layer', ''],
  ['proximity', 'Has the nearer scope', ''],
];

const mostShown = 12;

/** Declarations in pages that beat shared ones, harmless first; each can be dropped, made shared or kept. */
export function OverridesView(props: Props) {
  const isNarrow = useNarrow();
  const { found, failed, scope, scoped, busy, onSheet } = props;
  if (failed !== undefined) return <Problem className="p-6">{failed}</Problem>;
  if (!found) return <Waiting>Comparing what pages and sheets say …</Waiting>;
  const inScope = new Set(scope);
  const shown = scoped ? found.overrides.filter((one) => one.pages.some((page) => inScope.has(page))) : found.overrides;
  const kept = shown.filter((one) => one.note !== null);
  const open = shown.filter((one) => one.note === null);
  const copies = open.filter((one) => one.cause === 'copy');
  const limit = scoped ? scope : undefined;
  return (
    <div className="h-full overflow-auto px-5 pb-6">
      <div className="flex items-center justify-between gap-4 min-h-14">
        <h1 className={sayLook}>
          {open.length === 0 ? (
            <>No declaration in {scoped ? 'these pages' : 'the pages'} beats a shared one.</>
          ) : (
            <>
              <b>{count(open.length, 'declaration')}</b> in pages{' '}
              {open.length === 1 ? 'beats a shared one' : 'beat shared ones'}
              {copies.length > 0 && (
                <>
                  ; <b>{copies.length}</b> only {copies.length === 1 ? 'repeats it' : 'repeat them'}
                </>
              )}
              .
            </>
          )}
        </h1>
        {copies.length > 0 && (
          <Button next disabled={busy} onClick={() => props.onCopies(copies.map((one) => dropOf(one, limit)))}>
            Drop the {copies.length} {copies.length === 1 ? 'copy' : 'copies'}
          </Button>
        )}
      </div>
      {open.length > 0 && (
        <table className="ft ov-t">
          <colgroup>
            <col style={{ width: 22 }} />
            <col />
            <col style={{ width: isNarrow ? 104 : 130 }} />
            <col style={{ width: isNarrow ? 92 : 128 }} />
            <col style={{ width: isNarrow ? 92 : 128 }} />
            <col style={{ width: 148 }} />
            {!isNarrow && <col style={{ width: 66 }} />}
            {!isNarrow && <col style={{ width: 150 }} />}
            <col style={{ width: 134 }} />
          </colgroup>
          <thead>
            <tr>
              <td />
              <th>Selector</th>
              <th>Property</th>
              <th>In the page</th>
              <th>Beats</th>
              <th>Where, of {props.pages.length}</th>
              {!isNarrow && <th>Elements</th>}
              {!isNarrow && <th>If dropped</th>}
              <td />
            </tr>
          </thead>
          <tbody>
            {causes.map(([cause, title, words]) => {
              const own = open.filter((one) => one.cause === cause);
              return own.length === 0 ? null : (
                <Group key={cause} {...props} title={title} words={words} own={own} limit={limit} />
              );
            })}
          </tbody>
        </table>
      )}
      {kept.length > 0 && (
        <section className="text-table/5.5 pt-3.5 text-ink-2">
          <h2 className={sideHeadLook}>
            Kept on purpose <span>{kept.length}</span>
          </h2>
          {kept.map((one) => (
            <p key={one.id}>
              <code>{said(one)}</code> “{one.note}” <Act onClick={() => props.onNote(one.id, '')}>Look at it again</Act>
            </p>
          ))}
        </section>
      )}
      {found.alwaysBeaten.length > 0 && (
        <section className="text-table/5.5 pt-3.5 text-ink-2">
          <h2 className={sideHeadLook}>
            Shared rules that another sheet always beats <span>{found.alwaysBeaten.length}</span>
          </h2>
          {found.alwaysBeaten.slice(0, 40).map((one, i) => (
            <p key={i}>
              <code>
                {one.selector} {'{'} {one.property}: {one.value} {'}'}
              </code>{' '}
              in{' '}
              <button type="button" className="name" onClick={() => onSheet(one.path)}>
                {one.path}
              </button>{' '}
              never wins: <code>{one.by[0]!.selector}</code> in {one.by[0]!.path} says {one.by[0]!.value}
            </p>
          ))}
        </section>
      )}
    </div>
  );
}

function Group({
  title,
  words,
  own,
  limit,
  ...props
}: Props & {
  readonly title: string;
  readonly words: string;
  readonly own: readonly OverrideReply[];
  readonly limit: readonly string[] | undefined;
}) {
  const [all, setAll] = useState(false);
  const columns = useNarrow() ? 7 : 9;
  const shown = all ? own : own.slice(0, mostShown);
  return (
    <>
      <tr className="[&_td]:h-8.25 [&_td]:text-ink-3 [&_b]:text-ink [&_span]:text-ink-2 [&_span]:ml-2">
        <td colSpan={columns}>
          <b>{title}</b> {own.length} <span>{words}</span>
        </td>
      </tr>
      {shown.map((one) => (
        <Fragment key={one.id}>
          <Row one={one} limit={limit} {...props} />
          {one.id === props.opened && (
            <tr className="cmp">
              <td colSpan={columns}>
                <OverrideChoices one={one} limit={limit} {...props} />
              </td>
            </tr>
          )}
        </Fragment>
      ))}
      {own.length > shown.length && (
        <tr>
          <td />
          <td colSpan={columns - 1}>
            <Act onClick={() => setAll(true)}>{own.length - shown.length} more</Act>
          </td>
        </tr>
      )}
    </>
  );
}

function Row({
  one,
  limit,
  pages,
  opened,
  busy,
  onOpen,
  onAdd,
}: Props & { readonly one: OverrideReply; readonly limit: readonly string[] | undefined }) {
  const open = one.id === opened;
  const isNarrow = useNarrow();
  return (
    <tr className={open ? 'open' : ''}>
      <td>
        <Mark kind={one.kind} />
      </td>
      <td>
        <button
          type="button"
          className="name"
          aria-expanded={open}
          title={one.selector}
          onClick={() => onOpen(open ? undefined : one.id)}
        >
          {one.kind === 'attribute' ? `style="…" on ${one.selector}` : one.selector}
        </button>
      </td>
      <td className="m" title={one.property}>
        {one.property}
      </td>
      <td>
        <Value value={one.value} bold important={one.important} />
      </td>
      <td title={`${one.beats.selector} in ${one.beats.path}`}>
        <Value value={one.beats.value} />
      </td>
      <td>
        <CopiesStrip pages={pages} versions={[{ pages: [] }, { pages: one.pages }]} /> {one.pages.length}
      </td>
      {!isNarrow && <td className="num">{one.elements}</td>}
      {!isNarrow && (
        <td
          className="does"
          title={one.then.map((then) => `${then.elements} × ${then.value} (${then.source})`).join('\n')}
        >
          {droppedWords(one)}
        </td>
      )}
      <td className="text-right">
        <Act className="ml-2.5" disabled={busy} onClick={() => onAdd([dropOf(one, limit)])}>
          Drop
        </Act>
        {one.cause !== 'copy' && (
          <Act className="ml-2.5" disabled={busy} onClick={() => onAdd([shareOf(one, limit)])}>
            Make shared
          </Act>
        )}
      </td>
    </tr>
  );
}

function Value({
  value,
  bold = false,
  important = false,
}: {
  readonly value: string;
  readonly bold?: boolean;
  readonly important?: boolean;
}) {
  const [colour] = coloursIn(value);
  return (
    <span className={`m${bold ? ' font-bold' : ''}`} title={value}>
      {colour !== undefined && <Swatch colour={colour} />} {value}
      {important ? ' !' : ''}
    </span>
  );
}

function droppedWords({ changes, then, value }: OverrideReply): string {
  if (changes === 0) return 'the same value comes next';
  return then[0]!.value === value ? 'the same here, not in every medium' : `${changes} become ${then[0]!.value}`;
}

const said = ({ kind, selector, property, value }: OverrideReply): string =>
  kind === 'attribute' ? `style="${property}: ${value}" on ${selector}` : `${selector} { ${property}: ${value} }`;
