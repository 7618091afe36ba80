import type { ReactNode } from 'react';
import { Dialog } from 'radix-ui';

/** A question or list over the page; Escape closes it. */
export function Box({
  open,
  onClose,
  title,
  children,
  describedBy,
  wide = false,
}: {
  readonly open: boolean;
  readonly onClose: () => void;
  readonly title: string;
  readonly children: ReactNode;
  readonly describedBy?: string;
  /** As large as the window allows. */
  readonly wide?: boolean;
}) {
  return (
    <Dialog.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="veil" />
        <Dialog.Content className={wide ? 'box wide' : 'box'} aria-describedby={describedBy}>
          <Dialog.Title className="mb-3 text-head font-bold">{title}</Dialog.Title>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
