import { duplicateEdits, equalRules, parseSheet } from '@syndeton/core';
import { useMemo } from 'react';
import { Menu, MenuItem } from '../../ui/Menu.tsx';

interface Props {
  readonly text: string;
  readonly path: string;
  readonly onGroup: () => void;
  readonly onDuplicates: () => void;
  readonly onName: () => void;
  readonly onRename: () => void;
  readonly onMerge: (() => void) | undefined;
  readonly onDelete: () => void;
  /** Rules that no page has an element for. */
  readonly idle: number;
  readonly onUnused: (keep: boolean) => void;
  readonly onNotation: (to: 'hex' | 'rgb') => void;
  /** Undefined where no colour or font is said twice. */
  readonly onValues: (() => void) | undefined;
}

/** What can be done with the sheet opened, with how much there is to do. */
export function SheetActs({
  text,
  path,
  onGroup,
  onDuplicates,
  onName,
  onRename,
  onMerge,
  onDelete,
  idle,
  onUnused,
  onNotation,
  onValues,
}: Props) {
  const { groups, twice } = useMemo(() => {
    const sheet = parseSheet(text);
    const fewer = equalRules(sheet).reduce((sum, group) => sum + group.length - 1, 0);
    return { groups: fewer, twice: duplicateEdits({ text, sheet }).length };
  }, [text]);
  return (
    <ul className="todo" aria-label={`To do in ${path}`}>
      {groups > 0 && <Act label="Group equal rules" number={groups} onClick={onGroup} />}
      {twice > 0 && <Act label="Drop duplicates" number={twice} onClick={onDuplicates} />}
      <Act label="Rename a class or ID" onClick={onName} />
      <li>
        <Menu
          label={`More for ${path}`}
          trigger={
            <button type="button" className="act">
              This sheet …
            </button>
          }
        >
          <MenuItem onSelect={onRename}>Rename or move it</MenuItem>
          {onMerge && <MenuItem onSelect={onMerge}>Put it into another sheet</MenuItem>}
          {idle > 0 && <MenuItem onSelect={() => onUnused(false)}>Drop the rules no page needs ({idle})</MenuItem>}
          {idle > 0 && <MenuItem onSelect={() => onUnused(true)}>Comment these rules out</MenuItem>}
          {onValues && <MenuItem onSelect={onValues}>Give colours and fonts names</MenuItem>}
          <MenuItem onSelect={() => onNotation('hex')}>Write colours as #rrggbb</MenuItem>
          <MenuItem onSelect={() => onNotation('rgb')}>Write colours as rgb()</MenuItem>
          <MenuItem onSelect={onDelete}>Delete it</MenuItem>
        </Menu>
      </li>
    </ul>
  );
}

const Act = ({
  label,
  number,
  onClick,
}: {
  readonly label: string;
  readonly number?: number;
  readonly onClick: () => void;
}) =>
  // prettier-ignore
  <li>
    <button type="button" className="act" onClick={onClick}>
      {label}
    </button>{' '}
    {number !== undefined && <i>{number}</i>}
  </li>;
