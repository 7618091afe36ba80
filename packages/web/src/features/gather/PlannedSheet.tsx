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
          <ul className="marks">
            {marks.map(({ name, on, pages }) => (
              <li key={name}>
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
        <table className="written" aria-label={`${operation.sheet} as it will be written`}>
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
                <tr key={number} className={line.startsWith('/*') ? 'remark' : undefined}>
                  <td className="from">
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
                  <td className="no">{number}</td>
                  <td className="ln">{line}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
    </div>
  );
}
