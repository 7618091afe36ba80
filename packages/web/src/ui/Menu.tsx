import type { ReactNode } from 'react';
import { DropdownMenu } from 'radix-ui';
import { menuRowLook } from './looks.ts';

/** A button that opens a list of things to choose from. */
export function Menu({
  trigger,
  label,
  children,
  onClosed,
}: {
  readonly trigger: ReactNode;
  readonly label: string;
  readonly children: ReactNode;
  /** Once closed; `preventDefault` keeps the focus from going back to the trigger. */
  readonly onClosed?: (event: Event) => void;
}) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>{trigger}</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          className="text-table bg-raised rounded-md shadow-[0_0_0_1px_var(--line-2),var(--float)] p-1 min-w-55 max-w-105 max-h-[60vh] overflow-auto z-30"
          align="end"
          sideOffset={4}
          aria-label={label}
          {...(onClosed ? { onCloseAutoFocus: onClosed } : {})}
        >
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

export function MenuItem({
  onSelect,
  disabled = false,
  children,
}: {
  readonly onSelect: () => void;
  readonly disabled?: boolean;
  readonly children: ReactNode;
}) {
  return (
    <DropdownMenu.Item className={menuRowLook} onSelect={onSelect} disabled={disabled}>
      {children}
    </DropdownMenu.Item>
  );
}
