import type { SurveyReply } from '@syndeton/contract';
import { CopiesStrip } from '../../ui/CopiesStrip.tsx';
import { someNames } from '../../ui/format.ts';

/** Blocks pasted into several pages, with a tick for each page that holds them. */
export function RepeatedBlocks({
  blocks,
  allPages,
}: {
  readonly blocks: readonly SurveyReply['repeatedBlocks'][number][];
  readonly allPages: readonly string[];
}) {
  return (
    <table className="text-table/4.25 border-collapse w-full table-fixed [&_td]:truncate [&_td]:pt-1.25 [&_td]:pr-2 [&_td]:pb-1.25 [&_td]:border-t [&_td]:border-t-line">
      <caption className="sr-only">Blocks pasted into several pages</caption>
      <colgroup>
        <col />
        <col style={{ width: Math.min(allPages.length, 120) > 40 ? 200 : 112 }} />
        <col style={{ width: 52 }} />
        <col style={{ width: 84 }} />
      </colgroup>
      <tbody>
        {blocks.slice(0, 14).map((block) => (
          <tr key={block.selectors.join()}>
            <td className="m" title={block.selectors.join('\n')}>
              {block.selectors.map((s) => s.replace(/ \{ /g, ' ')).join(', ')}
            </td>
            <td>
              <CopiesStrip pages={allPages} versions={block.versions} />
            </td>
            <td className="text-right">
              {allPages.length > 999
                ? block.pages.length.toLocaleString('en')
                : `${block.pages.length}/${allPages.length}`}
            </td>
            <td title={block.versions.map((v) => someNames(v.pages, 6)).join('\n')}>
              {block.versions.length === 1 ? 'identical' : `${block.versions.length} versions`}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
