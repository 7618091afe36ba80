import {
  planGatherAttributes,
  type AttributesPlan,
  type AttributesProblem,
  type GatherAttributes,
  type Watch,
} from '../operations/gather/gatherAttributes.ts';
import {
  planGatherHints,
  type GatherHints,
  type HintsPlan,
  type HintsProblem,
} from '../operations/gather/gatherHints.ts';
import { SiteProver } from '../proof/siteProver.ts';
import { fail, succeed, type Result } from '../source/result.ts';
import type { Site } from '../source/site.ts';
import { takeBack, type Beneath, type Kept } from './takeBack.ts';

export interface LookKeepingAttributes extends Kept<AttributesPlan> {
  readonly operation: GatherAttributes;
}

export interface LookKeepingHints extends Kept<HintsPlan> {
  readonly operation: GatherHints;
}

/**
 * Gathers the style attributes that can go with no visible change: what the proof finds different is taken back, and proved
 * again. `prover`: of the site to look like, when `site` was changed before; where that change is what makes pages look different,
 * these are told.
 */
export function planLookKeepingAttributes(
  site: Site,
  operation: GatherAttributes,
  prover = new SiteProver(site),
): Result<LookKeepingAttributes, AttributesProblem | ({ readonly kind: 'beneath' } & Beneath)> {
  let tried = operation;
  const kept = takeBack(prover, site, (stayed, carefully) => {
    tried = {
      ...operation,
      ...(carefully ? { newNames: true } : {}),
      except: [...(operation.except ?? []), ...stayed.map(({ key, page }) => ({ key, page }))],
    };
    return planGatherAttributes(site, tried, watchFor(site, prover));
  });
  if (!kept.ok) return kept;
  if (!kept.value) return fail({ kind: 'no-attributes', left: [] });
  return 'beneath' in kept.value
    ? fail({ kind: 'beneath', ...kept.value })
    : succeed({ ...kept.value, operation: tried });
}

/** Pages of the beginning that are read for a plan need not be read again for the proof. */
export const watchFor = (site: Site, prover: SiteProver): Watch => ({
  session: prover.session,
  onRead: (file, cascade) => prover.note(site, file, cascade),
});

/** The same for presentational attributes. */
export function planLookKeepingHints(
  site: Site,
  operation: GatherHints,
  prover = new SiteProver(site),
): Result<LookKeepingHints, HintsProblem> {
  let tried = operation;
  const kept = takeBack(prover, site, (stayed) => {
    tried = { ...operation, except: [...(operation.except ?? []), ...stayed.map(({ key, page }) => ({ key, page }))] };
    return planGatherHints(site, tried);
  });
  if (!kept.ok) return kept;
  return kept.value && !('beneath' in kept.value)
    ? succeed({ ...kept.value, operation: tried })
    : fail({ kind: 'no-hints' });
}
