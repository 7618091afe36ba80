import { useId, useState, type FormEvent } from 'react';
import { Field } from '../../ui/Field.tsx';
import { Button } from '../../ui/Button.tsx';
import { Act } from '../../ui/Act.tsx';
import { Box } from '../../ui/Box.tsx';
import { Choice } from '../../ui/Choice.tsx';
import { Tick } from '../../ui/Tick.tsx';
import { Problem } from '../../ui/Said.tsx';
import type { PlanSettings } from './gatherSlice.ts';

interface Props {
  readonly settings: PlanSettings;
  readonly onSettle: (settings: PlanSettings) => void;
  readonly onClose: () => void;
}

/** How plans are made: where sheets go, how many, what single pages keep, what else goes. */
export function PlanSettingsBox({ settings, onSettle, onClose }: Props) {
  const [folder, setFolder] = useState(settings.folder);
  const [most, setMost] = useState(settings.maxSheets === undefined ? '' : String(settings.maxSheets));
  const [sheets, setSheets] = useState(settings.sheets ?? 'one');
  const [old, setOld] = useState(settings.oldBrowsers === true);
  const [single, setSingle] = useState(settings.singlePage ?? 'shared');
  const [attributes, setAttributes] = useState(settings.keepAttributes !== true);
  const [ids, setIds] = useState(settings.ids === true);
  const [important, setImportant] = useState(settings.important === true);
  const [imports, setImports] = useState(settings.keepImports !== true);
  const [hints, setHints] = useState(settings.hints === true);
  const [problem, setProblem] = useState<string | undefined>(undefined);
  const id = useId();
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    if (!/^([1-9]\d{0,3})?$/.test(most.trim()))
      return setProblem('At most: a whole number from 1 to 9999, or nothing.');
    if (/[^\w./-]|\.\./.test(folder))
      return setProblem('Folder: letters, digits, dots, hyphens, underscores and slashes are allowed.');
    onSettle({
      folder: folder.trim(),
      singlePage: single,
      sheets,
      ...(old ? { oldBrowsers: true } : {}),
      ...(most.trim() === '' ? {} : { maxSheets: Number(most) }),
      ...(attributes ? {} : { keepAttributes: true }),
      ...(ids ? { ids } : {}),
      ...(important ? { important } : {}),
      ...(imports ? {} : { keepImports: true }),
      ...(hints ? { hints } : {}),
    });
    onClose();
  };
  return (
    <Box open onClose={onClose} title="How plans are made">
      <form onSubmit={submit} className="grid gap-2.5 text-table">
        <div className="grid grid-cols-2 gap-4">
          <label>
            New sheets go to the folder
            <Field className="mt-1" value={folder} onChange={(event) => setFolder(event.target.value)} autoFocus />
          </label>
          <label>
            At most so many sheets
            <Field
              className="mt-1"
              value={most}
              inputMode="numeric"
              placeholder="as many as the look needs"
              onChange={(event) => setMost(event.target.value)}
            />
          </label>
        </div>
        <div>
          <span>Rules that are for some pages only</span>
          <Choice
            label="Rules that are for some pages only"
            value={sheets}
            options={[
              ['one', 'in one sheet, asking for a class of these pages’ body'],
              ['folders', 'the same, and a sheet for each folder for what only its pages have'],
              ['own', 'in sheets of their own, without such classes'],
            ]}
            onChange={setSheets}
          />
        </div>
        <div>
          <span id={id}>What one page has and no other</span>
          <Choice
            label="What one page has and no other"
            value={single}
            options={[
              [
                'shared',
                sheets !== 'own'
                  ? 'in the main sheet'
                  : 'to a shared sheet where it reaches nothing else, else to its own',
              ],
              [
                'own',
                sheets === 'own'
                  ? 'to a sheet beside the main one, named for the page'
                  : 'to a sheet beside the page, named for it',
              ],
              ['stay', 'stays in the page'],
            ]}
            onChange={setSingle}
          />
        </div>
        <p className="flex items-center gap-2">
          <Tick checked={attributes} onChange={setAttributes} label="Style attributes become classes" /> Style
          attributes become classes
        </p>
        {sheets !== 'own' && (
          <p className="flex items-center gap-2">
            <Tick checked={old} onChange={setOld} label="For old browsers: no :where() in selectors" /> For old
            browsers: no <code>:where()</code> in selectors
          </p>
        )}
        <p className="flex items-center gap-2">
          <Tick checked={ids} onChange={setIds} label="An ID in place of a class where an element has one" /> An ID in
          place of a class where an element has one
        </p>
        <p className="flex items-center gap-2">
          <Tick
            checked={important}
            onChange={setImportant}
            label="Important declarations in place of stronger selectors"
          />{' '}
          Important declarations where a plain class would lose, in place of stronger selectors
        </p>
        <p className="flex items-center gap-2">
          <Tick checked={imports} onChange={setImports} label="Imports of blocks become links" /> Imports of blocks
          become links where that says the same
        </p>
        <p className="flex items-center gap-2">
          <Tick checked={hints} onChange={setHints} label="Presentational attributes and elements as well" />{' '}
          Presentational attributes and elements (bgcolor, align, width on cells, font, center) as well
        </p>
        {problem !== undefined && <Problem>{problem}</Problem>}
        <div className="flex items-center gap-4">
          <Button type="submit" next>
            Use these
          </Button>
          <Act onClick={onClose}>Cancel</Act>
        </div>
      </form>
    </Box>
  );
}
