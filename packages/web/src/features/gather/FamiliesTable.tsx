import { Fragment, useRef, useState } from 'react';
import type { FamilyReply, OperationBody } from '@syndeton/contract';

import { CopiesStrip } from '../../ui/CopiesStrip.tsx';
import { coloursIn, Swatch } from '../../ui/Swatch.tsx';
import { useNarrow } from '../../ui/useNarrow.ts';
import { Tick } from '../../ui/Tick.tsx';
import { useKeys } from '../../ui/useKeys.ts';
import type { Becomes } from './becomes.ts';
import { decisionsOf } from './decisions.ts';
import { versionKeys } from './familyFilters.ts';
import { GoesTo } from './GoesTo.tsx';
import { summaryOf } from '../../ui/summaryOf.ts';
import { VersionsTable } from './VersionsTable.tsx';

interface Props {
  readonly families: readonly FamilyReply[];
  readonly pages: readonly string[];
  readonly chosen: ReadonlySet<string>;
  readonly opened: string | undefined;
  readonly onOpen: (family: string | undefined) => void;
  readonly onChoose: (versions: readonly string[], on: boolean) => void;
  readonly operations: readonly OperationBody[];
  readonly onSettle: (family: FamilyReply, version: FamilyReply['versions'][number], becomes: Becomes) => void;
}

const mostRows = 500;

/** One row a family; Shift takes a run, j and k move, x chooses. A row opens its versions side by side. */
export function FamiliesTable(props: Props) {
  const { families, pages, chosen, opened, onOpen, onChoose, operations, onSettle } = props;
  const [cursor, setCursor] = useState(-1);
  const anchor = useRef(0);
  const body = useRef<HTMLTableSectionElement>(null);
  const isNarrow = useNarrow();
  const columns = isNarrow ? 5 : 6;
  const rows = families.slice(0, mostRows);
  const choose = (i: number, on: boolean, run: boolean): void => {
    const [from, to] = run ? [Math.min(anchor.current, i), Math.max(anchor.current, i)] : [i, i];
    anchor.current = i;
    setCursor(i);
    onChoose(rows.slice(from, to + 1).flatMap(versionKeys), on);
  };
  const move = (by: number): number => {
    const next = Math.max(0, Math.min(rows.length - 1, cursor + by));
    setCursor(next);
    body.current?.querySelectorAll('tr[data-row]')[next]?.scrollIntoView({ block: 'nearest' });
    return next;
  };
  useKeys({
    j: () => void move(1),
    k: () => void move(-1),
    x: () =>
      cursor >= 0 && rows[cursor] && choose(cursor, !versionKeys(rows[cursor]).every((key) => chosen.has(key)), false),
    arrowdown: (event) => {
      if (event.shiftKey && cursor >= 0) choose(move(1), true, true);
    },
  });
  const all = rows.length > 0 && rows.every((family) => versionKeys(family).every((key) => chosen.has(key)));
  return (
    <table className="ft">
      <caption className="sr-only">Families of rules</caption>
      <colgroup>
        <col style={{ width: 26 }} />
        <col style={isNarrow ? {} : { width: '32%' }} />
        <col style={{ width: 158 }} />
        <col style={{ width: 62 }} />
        {!isNarrow && <col />}
        <col style={{ width: isNarrow ? 120 : 144 }} />
      </colgroup>
      <thead>
        <tr>
          <th>
            <Tick
              checked={all}
              onChange={(on) => onChoose(rows.flatMap(versionKeys), on)}
              label="Choose all rules shown"
            />
          </th>
          <th>Selector</th>
          <th>Copies, of {pages.length} pages</th>
          <th>Versions</th>
          {!isNarrow && <th>What it does</th>}
          <th>Goes to</th>
        </tr>
      </thead>
      <tbody ref={body}>
        {rows.map((family, i) => {
          const keys = versionKeys(family);
          const on = keys.filter((key) => chosen.has(key)).length;
          const isOpen = opened === family.id;
          const condition = family.groups.map((group) => `@${group.name} ${group.prelude}`).join(' ');
          return (
            <Fragment key={family.id}>
              <tr
                data-row
                className={`${isOpen ? 'open' : ''}${cursor === i ? ' cursor' : ''}`}
                onClick={(event) => event.shiftKey && choose(i, true, true)}
                draggable
                onDragStart={(event) => {
                  event.dataTransfer.setData('text/plain', family.label);
                  event.dataTransfer.effectAllowed = 'move';
                  if (on === 0) choose(i, true, false);
                }}
              >
                <td>
                  <Tick
                    checked={on === keys.length ? true : on > 0 ? 'some' : false}
                    onChange={(next) => choose(i, next, false)}
                    label={`Choose ${family.id}`}
                  />
                </td>
                <td className="m" title={`${family.label} ${condition}`.trim()}>
                  <button
                    type="button"
                    aria-expanded={isOpen}
                    onClick={(event) => !event.shiftKey && onOpen(isOpen ? undefined : family.id)}
                  >
                    {family.label}
                  </button>
                  {condition !== '' && <span className="text-note text-ink-3"> only {condition}</span>}
                </td>
                <td>
                  <span className="flex items-center gap-2">
                    <CopiesStrip pages={pages} versions={family.versions} /> {family.pages.length}
                  </span>
                </td>
                <td>{family.versions.length === 1 ? 1 : <b>{family.versions.length}</b>}</td>
                {!isNarrow && <Does family={family} />}
                <td>
                  <GoesTo decisions={family.versions.flatMap((version) => decisionsOf(operations, family, version))} />
                </td>
              </tr>
              {isOpen && (
                <tr className="cmp">
                  <td colSpan={columns}>
                    <VersionsTable
                      family={family}
                      chosen={chosen}
                      onChoose={onChoose}
                      operations={operations}
                      onSettle={(version, becomes) => onSettle(family, version, becomes)}
                    />
                  </td>
                </tr>
              )}
            </Fragment>
          );
        })}
        {families.length > mostRows && (
          <tr>
            <td colSpan={columns} className="text-note text-ink-3">
              and {families.length - mostRows} more; filter or choose pages to see them
            </td>
          </tr>
        )}
      </tbody>
    </table>
  );
}

function Does({ family }: { readonly family: FamilyReply }) {
  const [first] = family.versions;
  return (
    <td className="does">
      {[...new Set(first!.declarations.flatMap((d) => coloursIn(d.value)))].slice(0, 3).map((colour) => (
        <Swatch key={colour} colour={colour} />
      ))}{' '}
      {family.stays ? `stays: ${family.stays}` : summaryOf(first!.declarations)}
      {family.twins.length > 0 && (
        <span className="text-note text-ink-3"> same as {family.twins.slice(0, 2).join(', ')}</span>
      )}
      {family.elements === 0 && <span className="text-note text-ink-3"> no page has it</span>}
    </td>
  );
}
