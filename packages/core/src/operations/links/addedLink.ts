import { relativePath } from '../../source/sitePath.ts';
import type { Edit } from '../../source/span.ts';
import type { PageReading } from '../../survey/pageReading.ts';
import type { SourceChange } from '../../survey/shiftedReading.ts';
import { encodePath, resolveReference } from '../../values/urls.ts';

/** A plain link that an edit brings in, as the page's next reader finds it. */
export function addedLink(page: PageReading, edit: Edit, sheet: string): SourceChange['link'] {
  const offset = edit.text.indexOf('<');
  const reference = encodePath(relativePath(page.base.kind === 'site' ? page.base.path : page.path, sheet));
  const end = edit.text.indexOf('>', offset) + 1 - offset;
  return {
    edit,
    offset,
    source: {
      kind: 'linked',
      span: { start: 0, end },
      media: '',
      title: '',
      idle: undefined,
      reference,
      target: resolveReference(reference, page.base),
      alternate: false,
      charset: undefined,
      integrity: undefined,
      base: page.base,
      perhaps: false,
    },
  };
}
