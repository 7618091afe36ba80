import { useMemo } from 'react';
import type { FamilyReply, OperationBody } from '@syndeton/contract';

import { count, someNames } from '../../ui/format.ts';
import { Mark } from '../../ui/Mark.tsx';
import { NameField } from './NameField.tsx';
import { sheetLines } from './sheetLines.ts';

type GatherSheet = Extract<OperationBody, { kind: 'gather-sheet' }>;

interface Props {
  readonly operation: GatherSheet;
  readonly text: string | undefined;
  readonly families: readonly FamilyReply[];
  /** Says what is wrong with a name, or takes it. */
  readonly onMarkName: (from: string, to: string) => string | undefined;
  readonly onFamily: (id: string) => void;
}

/** The sheet of a plan as it will be written: its marks and the pages that get them, each rule with the pages it came from. */
export function PlannedSheet({ operation, text, families, onMarkName, onFamily }: Props) {
  const byId = useMemo(() => new Map(families.map((family) => [family.id, family])), [families]);
  const lines = useMemo(() => (text === undefined ? [] : sheetLines(text, operation.rules)), [text, operation]);
  const { marks = [] } = operation;
  return (
    <div className="pt-1.5 pr-5 pb-5">
      {marks.length > 0 && (
        <>
          <h2 className="text-body!">
            {marks.length === 1 ? 'A class tells some pages apart' : `${marks.length} classes tell pages apart`}
          </h2>
          <ul className="mt-1.5 mb-4 grid grid-cols-2 gap-x-6 text-table/5 max-[1151px]:grid-cols-1 [&_input]:ml-0 [&_input]:field-sizing-content [&_input]:w-auto [&_input]:min-w-37.5 [&_input]:border-edge [&_input]:bg-panel">
            {marks.map(({ name, on, pages }) => (
              <li
                key={name}
                className="grid grid-cols-[auto_minmax(0,1fr)_auto] items-baseline gap-2.5 border-b border-line py-0.75 [&>span]:truncate"
              >
                <NameField
                  name={name}
                  label={`Class of ${pages.length === 1 ? pages[0]! : `${pages.length} pages`}`}
                  onName={(next) => onMarkName(name, next)}
                />
                <span title={pages.join('\n')}>
                  {count(pages.length, 'page')}: {someNames(pages)}
                </span>
                {on === 'root' && <span className="text-note text-ink-3">on the root element</span>}
              </li>
            ))}
          </ul>
        </>
      )}
      {text === undefined ? (
        <p className="text-note text-ink-3">Writing the sheet …</p>
      ) : (
        <table
          className="w-full table-fixed border-separate border-spacing-0 rounded-sm border border-line-2 bg-panel py-1.5 font-code text-code/4.75 [&_td]:align-top"
          aria-label={`${operation.sheet} as it will be written`}
        >
          <colgroup>
            <col style={{ width: 60 }} />
            <col style={{ width: 44 }} />
            <col />
          </colgroup>
          <tbody>
            {lines.map(({ number, text: line, rule }) => {
              const family = rule && byId.get(rule.family);
              const pages = family?.versions.find((version) => version.id === rule?.version)?.pages ?? [];
              return (
                <tr key={number}>
                  <td className="pr-1.5 pl-2.5 font-ui text-note/4.75 whitespace-nowrap text-ink-3 [&_button]:hover:text-ink [&_button]:hover:underline">
                    {rule && family ? (
                      <button
                        type="button"
                        title={`From ${count(pages.length, 'page')}: ${pages.join(', ')}`}
                        onClick={() => onFamily(family.id)}
                        aria-label={`Line ${number}: ${family.label}, from ${count(pages.length, 'page')}`}
                      >
                        <Mark kind="embedded" hidden /> {pages.length}
                      </button>
                    ) : rule === null ? (
                      <Mark kind="attribute" hidden />
                    ) : null}
                  </td>
                  <td className="pr-3 text-right text-ink-3 select-none">{number}</td>
                  <td className={`pr-3 wrap-anywhere whitespace-pre-wrap ${line.startsWith('/*') ? 'font-bold' : ''}`}>
                    {line}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
    </div>
  );
}
