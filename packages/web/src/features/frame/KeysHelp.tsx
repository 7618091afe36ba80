import { Box } from '../../ui/Box.tsx';
import { useSingleKeys } from '../../ui/singleKeys.ts';

const keys: readonly (readonly [string, string])[] = [
  ['1 – 7', 'the stations, in the order of the work'],
  ['/', 'filter pages'],
  ['j  k', 'next, previous row'],
  ['x', 'choose the row'],
  ['Shift ↓', 'choose a run of rows'],
  ['m', 'send the chosen rules to a sheet'],
  ['p', 'propose a plan'],
  ['Ctrl K', 'find a page, a rule or something to do'],
  ['Ctrl Enter', 'save the draft'],
  ['Ctrl Z', 'take the last step out of the draft'],
  ['Ctrl Y', 'put it back'],
  ['Shift ← →', 'in Links: move the sheet whose head has the focus'],
  ['Ctrl S', 'in Sheets: put what is typed into the draft'],
  ['Ctrl Space', 'in Sheets: what may stand here'],
  ['F8', 'in Sheets: the next thing that is wrong'],
  ['Alt ↑ ↓', 'in Sheets: move the rule, from its first line'],
  ['e', 'in Precedence: peel the strongest source; j and k turn pages'],
  ['T', 'in Proof: turn the edge from upright to level'],
  ['?', 'this list'],
];

export function KeysHelp({ open, onClose }: { readonly open: boolean; readonly onClose: () => void }) {
  const [act, choose] = useSingleKeys();
  return (
    <Box closes open={open} onClose={onClose} title="Keys">
      <dl className="grid grid-cols-[96px_1fr] gap-y-1 text-table">
        {keys.map(([key, what]) => (
          <div key={key} className="contents">
            <dt>
              <kbd>{key}</kbd>
            </dt>
            <dd className="text-ink-2">{what}</dd>
          </div>
        ))}
      </dl>
      <label className="mt-4 flex items-center gap-2 text-table">
        <input type="checkbox" checked={act} onChange={(event) => choose(event.target.checked)} />
        Single keys act. Those with Ctrl, Alt or F8 do in any case.
      </label>
      <p className="text-note text-ink-3 mt-4">
        Choose pages in the rail to narrow every figure and action; Shift takes a run, Ctrl adds one. Words with a line
        under them act.
      </p>
    </Box>
  );
}
