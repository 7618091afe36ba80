import type { ComponentProps } from 'react';
import { buttonLook, nextLook, plainLook } from './looks.ts';

interface Props extends ComponentProps<'button'> {
  /** It is the one thing to do next. */
  readonly next?: boolean;
}

/** Something one can do, in a box; `className` says where it stands. */
export const Button = ({ next = false, className = '', ...button }: Props) => (
  <button type="button" className={`${buttonLook} ${next ? nextLook : plainLook} ${className}`} {...button} />
);
