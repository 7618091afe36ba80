import type { ComponentProps } from 'react';
import { fieldLook } from './looks.ts';

/** One line to type into; `className` says where it stands. */
export const Field = ({ className = '', ...input }: ComponentProps<'input'>) => (
  <input className={`${fieldLook} ${className}`} {...input} />
);

/** One of a list. */
export const SelectField = ({ className = '', ...select }: ComponentProps<'select'>) => (
  <select className={`${fieldLook} ${className}`} {...select} />
);
