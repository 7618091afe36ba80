import type { ComponentProps } from 'react';
import { actLook } from './looks.ts';

/** Something one can do, in words; `className` says where it stands. */
export const Act = ({ className = '', ...button }: ComponentProps<'button'>) => (
  <button type="button" className={`${actLook} ${className}`} {...button} />
);
