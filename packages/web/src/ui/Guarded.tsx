import type { ReactNode } from 'react';
import { ErrorBoundary, type FallbackProps } from 'react-error-boundary';
import { actLook, sayLook } from './looks.ts';
import { Button } from './Button.tsx';

/** What goes wrong in a view stays in it, and says what is safe; another place (`at`) begins anew. */
export function Guarded({ at, children }: { readonly at: string; readonly children: ReactNode }) {
  return (
    <ErrorBoundary FallbackComponent={WentWrong} resetKeys={[at]}>
      {children}
    </ErrorBoundary>
  );
}

/** In the words of three browsers. */
const notFetched = /dynamically imported module|Importing a module script failed|Unable to preload/i;

function WentWrong({ error, resetErrorBoundary }: FallbackProps) {
  const said = error instanceof Error ? error.message : String(error);
  const isOld = notFetched.test(said);
  return (
    <div className="p-6" role="alert">
      <h1 className={sayLook}>
        {isOld
          ? 'This part of the application could not be fetched. The server does not answer, or is newer than this window.'
          : 'Something went wrong in this view. The fault is ours.'}
      </h1>
      <p className="mt-3">What is in the draft is kept by the server, and what you typed in a sheet by this browser.</p>
      <p className="mt-3 flex items-center gap-4">
        {/* what could not be fetched once is not asked for again in the same window */}
        <Button onClick={isOld ? () => location.reload() : resetErrorBoundary}>
          {isOld ? 'Load the window anew' : 'Try again'}
        </Button>
        <a className={actLook} href="/">
          To the sites
        </a>
      </p>
      {!isOld && (
        <details className="text-note text-ink-3 mt-3">
          <summary>What to report</summary>
          <code>{said}</code>
        </details>
      )}
    </div>
  );
}
