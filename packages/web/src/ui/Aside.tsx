import type { ReactNode } from 'react';
import { Popover } from 'radix-ui';

/** A button that opens a short text beside it. */
export function Aside({
  trigger,
  className,
  children,
}: {
  readonly trigger: ReactNode;
  readonly className: string;
  readonly children: ReactNode;
}) {
  return (
    <Popover.Root>
      <Popover.Trigger asChild>{trigger}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content className={className} sideOffset={4} collisionPadding={12}>
          {children}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
