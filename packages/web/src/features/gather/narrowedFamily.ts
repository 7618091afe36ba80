import type { FamilyReply } from '@syndeton/contract';

/** The family as it stands on the chosen pages: nothing where none of them has it. */
export function narrowedFamily(family: FamilyReply, pages: ReadonlySet<string>): readonly FamilyReply[] {
  const versions = family.versions
    .map((version) => ({ ...version, pages: version.pages.filter((page) => pages.has(page)) }))
    .filter((version) => version.pages.length > 0);
  return versions.length === 0 ? [] : [{ ...family, versions, pages: family.pages.filter((page) => pages.has(page)) }];
}
