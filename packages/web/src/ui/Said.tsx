import type { ReactNode } from 'react';
import { sayLook } from './looks.ts';

interface Props {
  readonly children: ReactNode;
  readonly className?: string;
}

/** What went wrong, said where it was asked for. */
export function Problem({ children, className = '' }: Props) {
  return (
    <p className={`font-medium text-error ${className}`.trim()} role="alert">
      {children}
    </p>
  );
}

/** What a view is waiting for, in place of the view. */
export function Waiting({ children }: Pick<Props, 'children'>) {
  return (
    <p className={`${sayLook} p-6`} role="status">
      {children}
    </p>
  );
}
