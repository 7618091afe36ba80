import { lazy, type ComponentType, type LazyExoticComponent } from 'react';

/** A part of the application that is fetched when it is shown, or before, when nothing else is to do. */
export type LazyPart<Props> = LazyExoticComponent<ComponentType<Props>> & { readonly preload: () => void };

export function lazyPart<Props>(load: () => Promise<ComponentType<Props>>): LazyPart<Props> {
  const part = lazy(async () => ({ default: await load() }));
  // what cannot be fetched now is tried again when it is shown
  return Object.assign(part, { preload: () => void load().catch(() => undefined) });
}
