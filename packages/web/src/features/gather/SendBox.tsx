import { useId, useState, type FormEvent } from 'react';
import type { DraftReply } from '@syndeton/contract';
import { problemText } from '../../app/api.ts';
import { Box } from '../../ui/Box.tsx';
import { Tick } from '../../ui/Tick.tsx';
import { count } from '../../ui/format.ts';

interface Props {
  readonly sheets: DraftReply['sheets'];
  readonly suggested: string;
  readonly rules: number;
  readonly pages: number;
  readonly onSend: (sheet: string, keepEmptyBlocks: boolean) => Promise<void>;
  readonly onClose: () => void;
}

/** Where the chosen rules go: a new sheet by name, or one that is there. */
export function SendBox({ sheets, suggested, rules, pages, onSend, onClose }: Props) {
  const [sheet, setSheet] = useState(suggested);
  const [keep, setKeep] = useState(false);
  const [problem, setProblem] = useState<string | undefined>(undefined);
  const [busy, setBusy] = useState(false);
  const field = useId();
  const exists = sheets.some((one) => one.path === sheet.trim());
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    setBusy(true);
    setProblem(undefined);
    try {
      await onSend(sheet, keep);
    } catch (error) {
      setProblem(problemText(error));
      setBusy(false);
    }
  };
  return (
    <Box open onClose={onClose} title={`Send ${count(rules, 'rule')} from ${count(pages, 'page')} to a sheet`}>
      <form onSubmit={(event) => void submit(event)}>
        <label htmlFor={field} className="text-table text-ink-2">
          File, from the site’s folder; .css is added when left out
        </label>
        <input
          id={field}
          className="field mt-1"
          value={sheet}
          onChange={(event) => setSheet(event.target.value)}
          list={`${field}-sheets`}
          aria-invalid={problem !== undefined}
          aria-describedby={`${field}-problem`}
          autoFocus
        />
        <datalist id={`${field}-sheets`}>
          {sheets.map((one) => (
            <option key={one.path} value={one.path} />
          ))}
        </datalist>
        <p
          id={`${field}-problem`}
          className={problem === undefined ? 'note mt-1' : 'err mt-1 text-table'}
          role={problem === undefined ? undefined : 'alert'}
        >
          {problem ??
            (exists
              ? 'An existing sheet: the rules go to its end, and pages that do not link it yet will.'
              : 'A new sheet. Every page that loses a rule links it where its first block was.')}
        </p>
        <p className="mt-4 flex items-center gap-2 text-table">
          <Tick checked={keep} onChange={setKeep} label="Leave emptied style elements in the pages" /> Leave emptied{' '}
          <code>&lt;style&gt;</code> elements in the pages
        </p>
        <div className="mt-5 flex items-center gap-4">
          <button type="submit" className="btn next" disabled={busy || sheet.trim() === ''}>
            {busy ? 'Lining up …' : 'Line it up'}
          </button>
          <button type="button" className="act" onClick={onClose}>
            Leave it
          </button>
        </div>
      </form>
    </Box>
  );
}
