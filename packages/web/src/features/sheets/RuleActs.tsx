import { Act } from '../../ui/Act.tsx';
import { Menu, MenuItem } from '../../ui/Menu.tsx';

interface Props {
  readonly selector: string;
  /** Of several selectors. */
  readonly parts: boolean;
  readonly onMove: (() => void) | undefined;
  readonly onSplitSheet: (() => void) | undefined;
  readonly onPart: () => void;
  readonly onCommentOut: () => void;
  readonly onDelete: () => void;
  readonly onName: (() => void) | undefined;
}

/** What can be done with the rule at the cursor. */
export function RuleActs({ selector, parts, onMove, onSplitSheet, onPart, onCommentOut, onDelete, onName }: Props) {
  return (
    <Menu label={`More for ${selector}`} trigger={<Act>This rule …</Act>}>
      {onMove && <MenuItem onSelect={onMove}>Move it to another sheet</MenuItem>}
      {onSplitSheet && <MenuItem onSelect={onSplitSheet}>Part the sheet here</MenuItem>}
      {parts && <MenuItem onSelect={onPart}>Part it, a rule for each selector</MenuItem>}
      {onName && <MenuItem onSelect={onName}>Rename its class or ID</MenuItem>}
      <MenuItem onSelect={onCommentOut}>Comment it out</MenuItem>
      <MenuItem onSelect={onDelete}>Delete the rule</MenuItem>
    </Menu>
  );
}
