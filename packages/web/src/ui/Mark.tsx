import type { SVGProps } from 'react';
import { markLook } from './looks.ts';

export type MarkKind = 'default' | 'presentational' | 'linked' | 'imported' | 'embedded' | 'attribute';

export const markNames: Record<MarkKind, string> = {
  default: 'Browser default',
  presentational: 'Presentational attributes',
  linked: 'Linked sheet',
  imported: 'Imported sheet',
  embedded: 'Embedded block',
  attribute: 'Style attributes',
};

function shape(kind: MarkKind) {
  switch (kind) {
    case 'default':
      return <circle cx="6" cy="6" r="3.6" fill="none" stroke="currentColor" strokeWidth="1.6" />;
    case 'presentational':
      return <rect x="1.5" y="4.6" width="9" height="2.8" rx=".6" fill="currentColor" />;
    case 'linked':
      return <rect x="2" y="2" width="8" height="8" rx=".8" fill="currentColor" />;
    case 'imported':
      return (
        <rect x="2.8" y="2.8" width="6.4" height="6.4" rx=".4" fill="none" stroke="currentColor" strokeWidth="1.7" />
      );
    case 'embedded':
      return <path d="M6 .6 11.4 6 6 11.4 .6 6z" fill="currentColor" />;
    case 'attribute':
      return <path d="M6 1.2 11.4 10.6H.6z" fill="currentColor" />;
  }
}

const colours: Readonly<Record<MarkKind, string>> = {
  default: 'text-src-default',
  presentational: 'text-src-pres',
  linked: 'text-src-linked',
  imported: 'text-src-import',
  embedded: 'text-src-embed',
  attribute: 'text-src-style',
};

/** A source's mark: colour and shape together, the same in every view. */
export function Mark({ kind, hidden = false }: { readonly kind: MarkKind; readonly hidden?: boolean }) {
  const label: SVGProps<SVGSVGElement> = hidden
    ? { 'aria-hidden': true }
    : { role: 'img', 'aria-label': markNames[kind] };
  return (
    <svg className={`${markLook} ${colours[kind]}`} viewBox="0 0 12 12" {...label}>
      {shape(kind)}
    </svg>
  );
}
