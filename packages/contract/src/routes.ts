import type { RouteName } from './addresses.ts';
import type { Route } from './route.ts';
import { draftRoutes } from './routes/draftRoutes.ts';
import { handoffRoutes } from './routes/handoffRoutes.ts';
import { peopleRoutes } from './routes/peopleRoutes.ts';
import { readingRoutes } from './routes/readingRoutes.ts';
import { siteRoutes } from './routes/siteRoutes.ts';

/** Every request the server answers under /api, by the names of `addresses`. */
export const routes = {
  ...peopleRoutes,
  ...siteRoutes,
  ...readingRoutes,
  ...draftRoutes,
  ...handoffRoutes,
} as const satisfies Record<RouteName, Route>;

export type Routes = typeof routes;
