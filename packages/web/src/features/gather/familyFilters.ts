import type { FamilyReply } from '@syndeton/contract';
import type { FamilyFilter } from './gatherSlice.ts';

export const filters: readonly (readonly [FamilyFilter, string, (family: FamilyReply) => boolean])[] = [
  ['all', 'All', () => true],
  ['identical', 'Identical', (family) => family.versions.length === 1 && family.pages.length > 1],
  ['drifted', 'Drifted', (family) => family.versions.length > 1],
  ['one-page', 'One page only', (family) => family.pages.length === 1],
  ['unused', 'No page has it', (family) => family.elements === 0],
  ['conditional', 'Under a condition', (family) => family.groups.length > 0],
];

export const versionKeys = (family: FamilyReply): readonly string[] =>
  family.versions.map((version) => `${family.id}\n${version.id}`);
