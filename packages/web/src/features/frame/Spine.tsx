import type { SurveyReply } from '@syndeton/contract';
import { folderOf } from '@syndeton/core';
import { Mark, type MarkKind } from '../../ui/Mark.tsx';

const strength: readonly MarkKind[] = ['presentational', 'linked', 'imported', 'embedded', 'attribute'];
const mostPages = 200;

/** The rail folded: one mark a page, its strongest source. A picture of the site; the stations beside it have the words. */
export function Spine({
  pages,
  survey,
}: {
  readonly pages: readonly string[];
  readonly survey: SurveyReply | undefined;
}) {
  const kinds = new Map(
    survey?.pages.map((page) => [page.path, page.sources.map((source) => source.kind as MarkKind)]),
  );
  return (
    <div
      className="overflow-hidden border-r border-line-2 py-3 text-center text-note text-ink-3 max-phone:hidden"
      aria-hidden="true"
    >
      {pages.length}
      {pages.slice(0, mostPages).map((path, i) => (
        <span
          key={path}
          title={path}
          className={`flex h-4.5 items-center justify-center${i > 0 && folderOf(path) !== folderOf(pages[i - 1]!) ? ' mt-1.75' : ''}`}
        >
          <Mark kind={[...strength].reverse().find((kind) => kinds.get(path)?.includes(kind)) ?? 'default'} hidden />
        </span>
      ))}
    </div>
  );
}
