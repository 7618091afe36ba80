import { useState } from 'react';
import { Button } from '../../../ui/Button.tsx';
import { PicturesBox } from './PicturesBox.tsx';

/** The way to pictures of a page in both states. */
export function PicturesRow(props: Omit<Parameters<typeof PicturesBox>[0], 'onClose'>) {
  const [open, setOpen] = useState(false);
  return (
    <section className="mt-6 border-t border-line-2 pt-3 text-table" aria-label="Pictures">
      <h2 className="pb-1.5">Pictures</h2>
      <Button onClick={() => setOpen(true)}>Draw both states</Button>{' '}
      <span className="text-note text-ink-3">pixel by pixel, as this browser draws them; what differs is outlined</span>
      {open && <PicturesBox {...props} onClose={() => setOpen(false)} />}
    </section>
  );
}
