import { Link } from 'react-router';
import type { SiteSummaryReply } from '@syndeton/contract';
import { count, savedWhen } from '../../ui/format.ts';

/** The sites that are here, with what is left in their pages: shared to the left of the line, still in the pages to the right. */
export function SitesTable({ sites }: { readonly sites: readonly SiteSummaryReply[] }) {
  return (
    <table className="stt">
      <caption className="hidden-table">Sites</caption>
      <colgroup>
        <col />
        <col style={{ width: 70 }} />
        <col style={{ width: 60 }} />
        <col style={{ width: 240 }} />
      </colgroup>
      <thead>
        <tr>
          <th>Site</th>
          <th className="text-right!">Pages</th>
          <th className="text-right!">Saved</th>
          <th>shared, and left in the pages</th>
        </tr>
      </thead>
      <tbody>
        {sites.map((site) => (
          <tr key={site.id}>
            <td>
              <Link className="sn" to={`/sites/${site.id}/survey`}>
                {site.name}
              </Link>
              <span className="note block">
                {site.revision === 1 ? 'brought in' : 'saved'} {savedWhen(site.savedAt)}
                {site.revision === 1 ? '' : `: ${site.message}`}
                {site.draftOperations > 0 ? `; ${count(site.draftOperations, 'operation')} lined up` : ''}
              </span>
            </td>
            <td className="text-right">{site.figures.pages.toLocaleString('en')}</td>
            <td className="text-right">r{site.revision}</td>
            <td>
              <LeftBar figures={site.figures} />
              <span className="mt-0.5 block whitespace-nowrap text-ink-2">
                {site.figures.embeddedRules + site.figures.styleAttributes === 0 ? (
                  <b className="text-ink">nothing</b>
                ) : (
                  <>
                    <b className="text-ink">{count(site.figures.embeddedRules, 'rule')}</b>,{' '}
                    {count(site.figures.styleAttributes, 'style attribute')}
                  </>
                )}
              </span>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function LeftBar({ figures }: { readonly figures: SiteSummaryReply['figures'] }) {
  const most = Math.max(
    figures.sharedBytes,
    figures.embeddedBytes + figures.attributeBytes + figures.presentationalBytes,
    1,
  );
  const scale = 80 / most;
  const shared = figures.sharedBytes * scale;
  const embedded = Math.max(figures.embeddedBytes * scale, figures.embeddedBytes > 0 ? 11 : 0);
  const triangles = figures.attributeBytes > 0 ? Math.max(1, Math.round((figures.attributeBytes * scale) / 9.6)) : 0;
  return (
    <svg width="200" height="20" aria-hidden="true" className="block">
      <path className="zero" d="M84 0V20" />
      {shared > 0 && <rect className="f-linked" x={83 - shared} y="4.5" width={shared} height="11" />}
      {embedded > 0 && (
        <path className="f-embedded" d={`M86 10l5.5 -5.5h${embedded - 11}l5.5 5.5l-5.5 5.5h${-(embedded - 11)}z`} />
      )}
      {Array.from({ length: triangles }, (_, i) => (
        <path key={i} className="f-attribute" d={`M${88 + embedded + i * 9.6} 15l4.5 -10l4.5 10z`} />
      ))}
      {figures.presentationalBytes > 0 && (
        <rect
          className="f-presentational"
          x={90 + embedded + triangles * 9.6}
          y="8.5"
          width={Math.max(4, figures.presentationalBytes * scale)}
          height="3"
        />
      )}
    </svg>
  );
}
