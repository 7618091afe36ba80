import { useEffect, useState } from 'react';
import { useDraftQuery } from '../drafts/index.ts';
import { useSitesQuery } from '../site/index.ts';
import { SelectField } from '../../ui/Field.tsx';
import { useSheetTextQuery } from './sheetsApi.ts';

interface Props {
  readonly siteId: string;
  /** The sheet of that path, or else of that name, is chosen first. */
  readonly like?: string;
  readonly onText: (text: string | undefined) => void;
}

/** Chooses a sheet of another site. */
export function OtherSitesSheet({ siteId, like, onText }: Props) {
  const { data: sites = [] } = useSitesQuery();
  const others = sites.filter(({ id }) => id !== siteId);
  const [chosen, setChosen] = useState<string | undefined>(undefined);
  const id = chosen ?? others[0]?.id;
  const { currentData: draft } = useDraftQuery(id ?? '', { skip: id === undefined });
  const [path, setPath] = useState<string | undefined>(undefined);
  const named = (wanted: string | undefined) => draft?.sheets.find((one) => one.path === wanted);
  const alike = draft?.sheets.find((one) => fileName(one.path) === fileName(like ?? ''));
  const sheet = (named(path) ?? named(like) ?? alike ?? draft?.sheets[0])?.path;
  const { currentData: file } = useSheetTextQuery({ id: id ?? '', path: sheet ?? '' }, { skip: !id || !sheet });
  useEffect(() => onText(file?.text ?? undefined), [file, onText]);
  if (others.length === 0) return <p className="text-note text-ink-3">There is no other site here.</p>;
  return (
    <div className="grid grid-cols-2 gap-3 text-table">
      <label>
        Site
        <SelectField className="mt-1" value={id} onChange={(event) => setChosen(event.target.value)}>
          {others.map((site) => (
            <option key={site.id} value={site.id}>
              {site.name}
            </option>
          ))}
        </SelectField>
      </label>
      <label>
        Sheet
        <SelectField className="mt-1" value={sheet ?? ''} onChange={(event) => setPath(event.target.value)}>
          {draft?.sheets.map((one) => (
            <option key={one.path}>{one.path}</option>
          ))}
        </SelectField>
      </label>
    </div>
  );
}

const fileName = (path: string): string => path.slice(path.lastIndexOf('/') + 1);
