import type { Check, CheckedSite, CheckMaker } from './check.ts';
import { FindingGroup } from './findingGroup.ts';
import type { FoundFinding } from './finding.ts';
import { code, count, nameOf, pagesInWords } from './words.ts';

/**
 * The same rule on several pages, in versions that differ. Only where one version is the common one: rules that every page
 * writes anew are each page's own.
 */
export const drift: CheckMaker = { kinds: ['drift'], make: () => new Drift() };

class Drift implements Check {
  findings({ families }: CheckedSite): readonly FoundFinding[] {
    return families
      .filter(
        ({ versions, pages }) =>
          versions.length > 1 && versions[0]!.pages.length >= 2 && versions[0]!.pages.length * 2 >= pages.length,
      )
      .sort((a, b) => b.pages.length - a.pages.length)
      .map((family) => {
        const group = new FindingGroup(family.id);
        const odd = family.versions.slice(1).flatMap((v) => v.pages);
        for (const page of family.pages) group.page(page);
        for (const version of family.versions.slice(1))
          group.places.push({ path: version.pages[0]!, line: version.line, column: 1 });
        const name = family.id.replaceAll(' { ', ' ');
        const who = odd.length <= 2 ? `; ${pagesInWords(odd)} ${odd.length === 1 ? 'differs' : 'differ'}` : '';
        const sentence = `${count(family.pages.length, 'page')} hold ${code(nameOf(name))} in ${family.versions.length} versions${who}`;
        return group.finding('drift', sentence, { look: 'Compare', family: family.id });
      });
  }
}
