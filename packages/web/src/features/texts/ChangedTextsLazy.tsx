import { lazy, Suspense, type ComponentProps } from 'react';
import type { TextDiff as Diff } from './TextDiff.tsx';
import type { ChangedTexts as Changed, RevisionTexts as OfRevisions } from './ChangedTexts.tsx';

/** The comparison of texts is large: it comes when it is first asked for. */
const Shown = lazy(() => import('./ChangedTexts.tsx').then((m) => ({ default: m.ChangedTexts })));
const ShownDiff = lazy(() => import('./TextDiff.tsx').then((m) => ({ default: m.TextDiff })));
const ShownOfRevisions = lazy(() => import('./ChangedTexts.tsx').then((m) => ({ default: m.RevisionTexts })));

export const ChangedTexts = (props: ComponentProps<typeof Changed>) => (
  <Suspense>
    <Shown {...props} />
  </Suspense>
);

export const RevisionTexts = (props: ComponentProps<typeof OfRevisions>) => (
  <Suspense>
    <ShownOfRevisions {...props} />
  </Suspense>
);

export const TextDiff = (props: ComponentProps<typeof Diff>) => (
  <Suspense>
    <ShownDiff {...props} />
  </Suspense>
);
