import type { SurveyReply } from '@syndeton/contract';
import { CopiesStrip } from '../../ui/CopiesStrip.tsx';
import { count, kB, someNames } from '../../ui/format.ts';
import { SourcesChart } from './SourcesChart.tsx';
import { linkFindings } from './linkFindings.ts';

type PageSurvey = SurveyReply['pages'][number];
type RepeatedBlock = SurveyReply['repeatedBlocks'][number];

interface Props {
  readonly pages: readonly PageSurvey[];
  readonly allPages: readonly string[];
  readonly scoped: boolean;
  readonly repeatedBytes: number;
  readonly blocks: readonly RepeatedBlock[];
  readonly onAll: () => void;
  readonly onChoose: (page: string) => void;
  readonly onGather: () => void;
}

/** Where the styling sits: one sentence, the chart of shared against still in the page, links that lead nowhere, repeated blocks. */
export function SurveyView({ pages, allPages, scoped, repeatedBytes, blocks, onAll, onChoose, onGather }: Props) {
  const rules = pages.reduce((sum, page) => sum + page.embeddedRules, 0);
  const attributes = pages.reduce((sum, page) => sum + page.styleAttributes, 0);
  const where = scoped ? `${pages.length} of ${allPages.length} pages` : count(pages.length, 'page');
  return (
    <div className="px-6 pb-6">
      <div className="flex items-start gap-6 pt-4 pb-2">
        <h1 className="say">
          <b>{count(rules, 'rule')}</b> and <b>{count(attributes, 'style attribute')}</b> still sit inside{' '}
          <b>{where}</b>
          {scoped ? '.' : ';'}
          {!scoped && (
            <>
              <br />
              <b>{kB(repeatedBytes)}</b> of it is the same text repeated.
            </>
          )}
        </h1>
        <div className="ml-auto text-right">
          <button type="button" className="btn next" onClick={onGather}>
            Gather the rules <kbd>2</kbd>
          </button>
          <p className="note mt-1">
            {scoped ? (
              <button type="button" className="act" onClick={onAll}>
                Look at all {allPages.length} pages
              </button>
            ) : (
              'of all pages, with no visible change'
            )}
          </p>
        </div>
      </div>
      <div className="grid grid-cols-1 gap-y-6 min-[1000px]:grid-cols-[minmax(0,594fr)_minmax(320px,446fr)]">
        <section aria-label="Bytes by source">
          <SourcesChart pages={pages} onChoose={onChoose} />
        </section>
        <section className="min-w-0 min-[1000px]:border-l min-[1000px]:border-line min-[1000px]:pl-6">
          <LinkFindings pages={pages} />
          <h2 className="side-h">
            Repeated blocks<span>{blocks.length}</span>
          </h2>
          {blocks.length === 0 ? (
            <p className="note">No block stands on two of these pages.</p>
          ) : (
            <RepeatedBlocks blocks={blocks} allPages={allPages} />
          )}
        </section>
      </div>
    </div>
  );
}

function LinkFindings({ pages }: { readonly pages: readonly PageSurvey[] }) {
  const findings = linkFindings(pages);
  if (findings.length === 0) return null;
  return (
    <>
      <h2 className="side-h err mt-0.5!">
        Breaks a page<span>{findings.length}</span>
      </h2>
      {findings.map(({ pages: on, target, words }) => (
        <p className="fd" key={`${target} ${words}`}>
          <span>
            <code>{someNames(on)}</code> {on.length === 1 ? 'links' : 'link'} <code>{target}</code>: {words}
          </span>
        </p>
      ))}
    </>
  );
}

function RepeatedBlocks({
  blocks,
  allPages,
}: {
  readonly blocks: readonly RepeatedBlock[];
  readonly allPages: readonly string[];
}) {
  return (
    <table className="rep">
      <caption className="hidden-table">Blocks pasted into several pages</caption>
      <colgroup>
        <col />
        <col style={{ width: 112 }} />
        <col style={{ width: 52 }} />
        <col style={{ width: 76 }} />
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
              {block.pages.length}/{allPages.length}
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
