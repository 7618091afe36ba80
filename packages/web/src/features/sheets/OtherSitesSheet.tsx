import { useEffect, useState } from 'react';
import { useDraftQuery } from '../drafts/index.ts';
import { useSitesQuery } from '../site/index.ts';
import { useSheetTextQuery } from './sheetsApi.ts';

/** Chooses a sheet of another site; its addresses are written as they were there. */
export function OtherSitesSheet({
  siteId,
  onText,
}: {
  readonly siteId: string;
  readonly onText: (text: string | undefined) => void;
}) {
  const { data: sites = [] } = useSitesQuery();
  const others = sites.filter(({ id }) => id !== siteId);
  const [chosen, setChosen] = useState<string | undefined>(undefined);
  const id = chosen ?? others[0]?.id;
  const { currentData: draft } = useDraftQuery(id ?? '', { skip: id === undefined });
  const [path, setPath] = useState<string | undefined>(undefined);
  const sheet = draft?.sheets.find((one) => one.path === path)?.path ?? draft?.sheets[0]?.path;
  const { currentData: file } = useSheetTextQuery({ id: id ?? '', path: sheet ?? '' }, { skip: !id || !sheet });
  useEffect(() => onText(file?.text ?? undefined), [file, onText]);
  if (others.length === 0) return <p className="note">There is no other site here.</p>;
  return (
    <div className="grid grid-cols-2 gap-3 text-table">
      <label>
        Site
        <select className="field mt-1" value={id} onChange={(event) => setChosen(event.target.value)}>
          {others.map((site) => (
            <option key={site.id} value={site.id}>
              {site.name}
            </option>
          ))}
        </select>
      </label>
      <label>
        Sheet
        <select className="field mt-1" value={sheet ?? ''} onChange={(event) => setPath(event.target.value)}>
          {draft?.sheets.map((one) => (
            <option key={one.path}>{one.path}</option>
          ))}
        </select>
      </label>
      <p className="note col-span-2">Addresses in it are written as they were there; what is not here is told of.</p>
    </div>
  );
}
