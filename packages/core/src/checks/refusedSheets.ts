import { matchesIntegrity } from '../page/stylePolicy.ts';
import type { Check, CheckContext, CheckedPage, CheckMaker } from './check.ts';
import { FindingGroups } from './findingGroup.ts';
import type { FoundFinding } from './finding.ts';
import { code, pagesInWords, verb } from './words.ts';

/** Sheets whose bytes are not those a link promises by `integrity`: browsers refuse them. Subresource Integrity, "Verification". */
export const refusedSheets: CheckMaker = {
  kinds: ['link-refused'],
  make: (context) => new RefusedSheets(context),
};

class RefusedSheets implements Check {
  private readonly refused = new FindingGroups();
  private readonly context: CheckContext;

  constructor(context: CheckContext) {
    this.context = context;
  }

  page(page: CheckedPage): void {
    for (const source of page.sources.sheets) {
      if (source.kind !== 'linked' || source.idle !== undefined || source.target.kind !== 'site') continue;
      const file = this.context.site.files.get(source.target.path);
      if (!file || source.integrity === undefined || matchesIntegrity(source.integrity, file.bytes)) continue;
      this.refused.about(file.path).aboutSheet(file.path).page(page.path).at(page, source.span.start);
    }
  }

  merge(page: RefusedSheets): void {
    this.refused.merge(page.refused);
  }

  findings(): readonly FoundFinding[] {
    return this.refused.all.map((group) =>
      group.finding(
        'link-refused',
        `${pagesInWords(group.pages)} ${verb(group.pages.length, 'promise', 'promises')} by \`integrity\` other bytes than ${code(group.subject)} has; browsers refuse the sheet there`,
        { look: 'See the link' },
      ),
    );
  }
}
