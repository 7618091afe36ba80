import { useState } from 'react';
import { PicturesBox } from './PicturesBox.tsx';

/** The way to pictures of a page in both states. */
export function PicturesRow(props: Omit<Parameters<typeof PicturesBox>[0], 'onClose'>) {
  const [open, setOpen] = useState(false);
  return (
    <section className="mt-6 border-t border-line-2 pt-3 text-table" aria-label="Pictures">
      <h2 className="pb-1.5">Pictures</h2>
      <button type="button" className="btn" onClick={() => setOpen(true)}>
        Draw both states
      </button>{' '}
      <span className="note">pixel by pixel, as this browser draws them; what differs is outlined</span>
      {open && <PicturesBox {...props} onClose={() => setOpen(false)} />}
    </section>
  );
}
