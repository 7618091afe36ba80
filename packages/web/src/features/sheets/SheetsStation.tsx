import { useMemo, useState } from 'react';
import { valuesIn } from './usedValues.ts';
import type { DraftInHand } from '../drafts/index.ts';
import type { SiteView } from '../site/index.ts';
import { count } from '../../ui/format.ts';
import { OneSheet } from './OneSheet.tsx';
import { SheetList } from './SheetList.tsx';
import { useSheetTextQuery } from './sheetsApi.ts';
import { unfinishedSheets } from './unfinished.ts';

/** The shared sheets and the text of one, edited as an operation of the draft. */
export function SheetsStation({ view, inHand }: { readonly view: SiteView; readonly inHand: DraftInHand }) {
  const { sheets } = inHand.draft!;
  const sheet = sheets.find(({ path }) => path === view.opened) ?? sheets[0];
  const path = sheet?.path;
  const { currentData: file } = useSheetTextQuery({ id: view.siteId, path: path ?? '' }, { skip: path === undefined });
  const [unfinished, setUnfinished] = useState(() => unfinishedSheets(view.siteId));
  const used = useMemo(() => valuesIn(file?.text ?? ''), [file]);
  if (!sheet || path === undefined)
    return <h1 className="say p-6">The site has no sheet yet. Gather rules from the pages to make one.</h1>;
  return (
    <div className="shts">
      <div className="scope">
        <h1 className="say">
          <b>{path}</b> dresses <b>{count(sheet.pages.length, 'page')}</b> with <b>{count(sheet.rules, 'rule')}</b>.
        </h1>
      </div>
      <SheetList
        sheets={sheets}
        path={path}
        unfinished={unfinished}
        used={used}
        acts={null}
        onOpen={(next) => view.open(next)}
        onNew={() => undefined}
        onValue={(value) => view.goWith('precedence', { way: 'value', value })}
      />
      {file === undefined ? (
        <p className="note p-4" role="status">
          Reading {path} …
        </p>
      ) : file.text === null ? (
        <p className="p-4">
          <span className="err">This sheet does not encode back to its own bytes,</span> so it is carried along and
          never edited.
        </p>
      ) : (
        <OneSheet
          key={path}
          view={view}
          inHand={inHand}
          path={path}
          pages={sheet.pages}
          file={file}
          onTyped={() => setUnfinished(unfinishedSheets(view.siteId))}
          onFound={setFound}
        />
      )}
    </div>
  );
}
