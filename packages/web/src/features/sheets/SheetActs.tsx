import { duplicateEdits, equalRules, nearValues, parseSheet } from '@syndeton/core';
import type { OperationBody } from '@syndeton/contract';
import { useMemo } from 'react';
import { Act } from '../../ui/Act.tsx';
import { Menu, MenuItem } from '../../ui/Menu.tsx';
import type { SheetTask } from './SheetBox.tsx';

interface Props {
  readonly text: string;
  readonly path: string;
  /** The sheet is not the only one. */
  readonly hasOthers: boolean;
  /** Rules that no page has an element for. */
  readonly idle: number;
  /** Colours and fonts said twice and more. */
  readonly repeated: readonly string[];
  readonly onTask: (task: SheetTask) => void;
  readonly onCompare: () => void;
  readonly onAdd: (title: string, operation: OperationBody) => void;
}

/** What can be done with the sheet opened, with how much there is to do. */
export function SheetActs({ text, path, hasOthers, idle, repeated, onTask, onCompare, onAdd }: Props) {
  const { groups, twice, near } = useMemo(() => {
    const sheet = parseSheet(text);
    const fewer = equalRules(sheet).reduce((sum, group) => sum + group.length - 1, 0);
    return { groups: fewer, twice: duplicateEdits({ text, sheet }).length, near: nearValues(sheet) };
  }, [text]);
  const act = (title: string, operation: OperationBody) => () => onAdd(title, operation);
  return (
    <ul className="leading-6 pt-3.5 [&_i]:not-italic [&_i]:text-ink-3" aria-label={`To do in ${path}`}>
      {groups > 0 && (
        <ActRow
          label="Group equal rules"
          number={groups}
          onClick={act(`Group equal rules of ${path}?`, { kind: 'group-rules', sheet: path })}
        />
      )}
      {twice > 0 && (
        <ActRow
          label="Drop duplicates"
          number={twice}
          onClick={act(`Drop duplicates from ${path}?`, { kind: 'drop-duplicates', sheet: path })}
        />
      )}
      {near.length > 0 && (
        <ActRow label="Unite near values" number={near.length} onClick={() => onTask({ does: 'near', groups: near })} />
      )}
      <ActRow label="Rename a class or ID" onClick={() => onTask({ does: 'name', name: '' })} />
      <li>
        <Menu label={`More for ${path}`} trigger={<Act>This sheet …</Act>}>
          <MenuItem onSelect={() => onTask({ does: 'rename' })}>Rename or move it</MenuItem>
          {hasOthers && <MenuItem onSelect={() => onTask({ does: 'merge' })}>Put it into another sheet</MenuItem>}
          <MenuItem onSelect={() => onTask({ does: 'part' })}>Take one page’s rules out of it</MenuItem>
          <MenuItem onSelect={act(`Sort the rules of ${path}?`, { kind: 'sort-rules', sheet: path })}>
            Sort its rules
          </MenuItem>
          <MenuItem onSelect={act(`Drop what never wins in ${path}?`, { kind: 'drop-beaten', sheet: path })}>
            Drop what never wins
          </MenuItem>
          {idle > 0 && (
            <MenuItem onSelect={act(`Drop what no page needs of ${path}?`, { kind: 'drop-unused', sheet: path })}>
              Drop the rules no page needs ({idle})
            </MenuItem>
          )}
          {idle > 0 && (
            <MenuItem
              onSelect={act(`Comment out what no page needs of ${path}?`, {
                kind: 'drop-unused',
                sheet: path,
                keep: 'comment',
              })}
            >
              Comment these rules out
            </MenuItem>
          )}
          {repeated.length > 0 && (
            <MenuItem onSelect={() => onTask({ does: 'values', values: repeated })}>
              Give colours and fonts names
            </MenuItem>
          )}
          <MenuItem
            onSelect={act(`Write colours of ${path} otherwise?`, { kind: 'colour-notation', sheet: path, to: 'hex' })}
          >
            Write colours as #rrggbb
          </MenuItem>
          <MenuItem
            onSelect={act(`Write colours of ${path} otherwise?`, { kind: 'colour-notation', sheet: path, to: 'rgb' })}
          >
            Write colours as rgb()
          </MenuItem>
          <MenuItem onSelect={onCompare}>Compare it with another site’s</MenuItem>
          <MenuItem onSelect={act(`Delete ${path}?`, { kind: 'delete-sheet', sheet: path })}>Delete it</MenuItem>
        </Menu>
      </li>
    </ul>
  );
}

const ActRow = ({
  label,
  number,
  onClick,
}: {
  readonly label: string;
  readonly number?: number;
  readonly onClick: () => void;
}) => (
  <li>
    <Act onClick={onClick}>{label}</Act> {number !== undefined && <i>{number}</i>}
  </li>
);
