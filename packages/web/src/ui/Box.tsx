import type { ReactNode } from 'react';
import { Dialog } from 'radix-ui';
import { boxLook, smallBoxLook } from './looks.ts';
import { Act } from './Act.tsx';

/** A question or list over the page; Escape closes it. */
export function Box({
  open,
  onClose,
  title,
  children,
  describedBy,
  wide = false,
  closes = false,
}: {
  readonly open: boolean;
  readonly onClose: () => void;
  readonly title: string;
  readonly children: ReactNode;
  readonly describedBy?: string;
  /** As large as the window allows. */
  readonly wide?: boolean;
  /** It holds no question: it is closed by a word in its head. */
  readonly closes?: boolean;
}) {
  return (
    <Dialog.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-ground/70 z-20" />
        <Dialog.Content
          data-asking
          className={`${boxLook} px-6 py-5 ${wide ? 'top-[4vh] grid h-[88vh] w-[min(1240px,calc(100vw-32px))] grid-rows-[auto_minmax(0,1fr)]' : smallBoxLook}`}
          aria-describedby={describedBy}
          onCloseAutoFocus={keepFocus}
        >
          <Dialog.Title className={`mb-3 text-head font-bold${closes ? ' pr-16' : ''}`}>{title}</Dialog.Title>
          {children}
          {/* last by keyboard, so that the box begins with what it is for */}
          {closes && (
            <Dialog.Close asChild>
              <Act className="absolute top-6 right-6">Close</Act>
            </Dialog.Close>
          )}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** What opened the box may be gone once it closes: the keyboard then goes on in the work at hand, not at the head of the window. */
function keepFocus(): void {
  setTimeout(() => {
    if (document.activeElement === document.body) document.querySelector<HTMLElement>('[data-work]')?.focus();
  });
}
