import { useState } from 'react';
import type { ValuePlacesReply } from '@syndeton/contract';
import { askedLook, sayLook } from '../../ui/looks.ts';
import { Button } from '../../ui/Button.tsx';
import { Mark } from '../../ui/Mark.tsx';
import { count } from '../../ui/format.ts';
import { coloursIn, Swatch } from '../../ui/Swatch.tsx';
import { Problem } from '../../ui/Said.tsx';

interface Props {
  readonly value: string;
  readonly found: ValuePlacesReply | undefined;
  readonly failed: string | undefined;
  readonly onAsk: (value: string) => void;
  readonly onFile: (file: string, line: number) => void;
}

/** Where a colour, a font or a length stands on the site, in whatever notation. */
export function ValueView({ value, found, failed, onAsk, onFile }: Props) {
  const [typed, setTyped] = useState(value);
  return (
    <div className="h-full overflow-auto px-6 pt-3.5 pb-6">
      <h1 className="sr-only">Where a value stands</h1>
      <form
        className={`${sayLook} pt-0.5 pb-1.5`}
        onSubmit={(event) => {
          event.preventDefault();
          onAsk(typed.trim());
        }}
      >
        Where does{' '}
        <input
          className={askedLook}
          aria-label="Value"
          value={typed}
          size={Math.max(6, typed.length)}
          onChange={(event) => setTyped(event.target.value)}
        />{' '}
        stand on the site? <Button type="submit">Look</Button>
      </form>
      {value === '' ? (
        <p className="text-ink-2">A colour in any notation, a font, a length, or any value a declaration says.</p>
      ) : failed !== undefined ? (
        <Problem>{failed}</Problem>
      ) : !found ? (
        <p className="text-note text-ink-3" role="status">
          Looking through all pages and sheets …
        </p>
      ) : (
        <>
          <p className="pb-3 text-ink-2">
            {found.total === 0
              ? 'Nowhere.'
              : `${count(found.total, 'declaration')} in ${count(new Set(found.places.map((one) => one.path)).size, 'file')}.`}
          </p>
          <table className="ft">
            <thead>
              <tr>
                <td className="w-8" />
                <th>File</th>
                <th>Selector</th>
                <th>Property</th>
                <th>Value</th>
              </tr>
            </thead>
            <tbody>
              {found.places.slice(0, 500).map((one, i) => (
                <tr key={i}>
                  <td>
                    <Mark kind={one.kind === 'sheet' ? 'linked' : one.kind === 'block' ? 'embedded' : 'attribute'} />
                  </td>
                  <td>
                    <button type="button" className="name" onClick={() => onFile(one.path, one.line)}>
                      {one.path}
                    </button>{' '}
                    <span className="text-note text-ink-3">line {one.line}</span>
                  </td>
                  <td className="m">{one.selector}</td>
                  <td className="m">{one.property}</td>
                  <td className="m">
                    {coloursIn(one.value)[0] !== undefined && <Swatch colour={coloursIn(one.value)[0]!} />} {one.value}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </div>
  );
}
