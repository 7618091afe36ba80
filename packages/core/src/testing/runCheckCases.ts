import { expect, test } from '@jest/globals';
import { checkSite } from '../checks/checkSite.ts';
import type { FindingKind } from '../checks/finding.ts';
import { applyOperations } from '../operations/operation.ts';
import { proveSites } from '../proof/proveSites.ts';
import type { CheckCase } from './checkCases.ts';
import { siteOf } from './siteOf.ts';

/** For each kind: found where it is, not where it nearly is, and gone once mended. */
export function checkCases(cases: Readonly<Record<string, readonly CheckCase[]>>): void {
  const rows = Object.entries(cases).flatMap(([kind, list]) => list.map((one) => [kind, ...one] as const));
  test.each(rows)('%s: %s', (kind, _shows, has, sentence, nearly) => {
    const kinds = [kind as FindingKind];
    const site = siteOf(has);
    const found = checkSite(site, { kinds }).findings;
    expect(found.map((f) => f.sentence)).toEqual([sentence]);
    expect(found[0]!.places.length).toBeGreaterThan(0);
    for (const { path, line } of found[0]!.places) {
      expect(site.files.has(path)).toBe(true);
      expect(line).toBeGreaterThan(0);
    }
    expect(checkSite(siteOf(nearly), { kinds }).findings.map((f) => f.sentence)).toEqual([]);
    if (found[0]!.action.does !== 'mend') return;
    const mended = applyOperations(site, [{ kind: 'mend', finding: found[0]!.id }]);
    if (!mended.ok) throw new Error(JSON.stringify(mended.problem));
    expect(checkSite(mended.value.site, { kinds }).findings).toEqual([]);
    // these two only tidy
    if (kind === 'hidden-declaration' || kind === 'linked-twice')
      expect(proveSites(site, mended.value.site).verdict).toBe('same');
  });
}
