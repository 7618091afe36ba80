import { count } from '../../ui/format.ts';
import type { SiteView } from '../site/index.ts';

/** What the draft bar says while nothing is in the draft. */
export function idleSentence(view: SiteView): string {
  if (!view.site || !view.survey) return '';
  if (view.site.revision > 1) return `The draft is empty: nothing was changed since r${view.site.revision}.`;
  const { pages, sheets, otherFiles } = view.survey;
  return `The draft is empty. The site is exactly as it was brought in: ${count(pages.length, 'page')}, ${count(sheets.length, 'sheet')}, ${count(otherFiles, 'other file')}.`;
}
