import { Link } from 'react-router';
import { actLook, sayLook } from '../../ui/looks.ts';

/** What an address names and is not there, and the way back to what is. */
export function NotHere({ what, to, way }: { readonly what: string; readonly to: string; readonly way: string }) {
  return (
    <div className="p-6">
      <h1 className={sayLook} role="alert">
        {what}
      </h1>
      <p className="mt-3">
        <Link className={actLook} to={to}>
          {way}
        </Link>
      </p>
    </div>
  );
}
