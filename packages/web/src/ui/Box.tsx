import type { ReactNode } from 'react';
import { Dialog } from 'radix-ui';

/** A question or list over the page; Escape closes it. */
export function Box({
  open,
  onClose,
  title,
  children,
  describedBy,
}: {
  readonly open: boolean;
  readonly onClose: () => void;
  readonly title: string;
  readonly children: ReactNode;
  readonly describedBy?: string;
}) {
  return (
    <Dialog.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="veil" />
        <Dialog.Content className="box" aria-describedby={describedBy}>
          <Dialog.Title className="mb-3 text-head font-bold">{title}</Dialog.Title>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
