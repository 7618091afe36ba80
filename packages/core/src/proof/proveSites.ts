import type { Site } from '../source/site.ts';
import type { Proof } from './proof.ts';
import { SiteProver, type ProofOptions } from './siteProver.ts';

/** Compares two states of a site once. For several states of one site, keep a `SiteProver`. */
export const proveSites = (before: Site, after: Site, options: ProofOptions = {}): Proof =>
  new SiteProver(before).prove(after, options);
