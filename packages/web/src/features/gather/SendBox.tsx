import { useId, useState, type FormEvent } from 'react';
import type { DraftReply, OperationBody } from '@syndeton/contract';
import { problemText } from '../../app/api.ts';
import { Field } from '../../ui/Field.tsx';
import { Button } from '../../ui/Button.tsx';
import { Act } from '../../ui/Act.tsx';
import { Box } from '../../ui/Box.tsx';
import { Choice } from '../../ui/Choice.tsx';
import { Tick } from '../../ui/Tick.tsx';
import { count } from '../../ui/format.ts';

interface Props {
  readonly sheets: DraftReply['sheets'];
  readonly suggested: string;
  readonly rules: number;
  readonly pages: number;
  readonly onSend: (sheet: string, more: SendOptions) => Promise<void>;
  readonly onClose: () => void;
}

export interface SendOptions {
  readonly keepEmptyBlocks: boolean;
  readonly place: SheetPlace | undefined;
}

type SheetPlace = NonNullable<Extract<OperationBody, { kind: 'gather-rules' }>['place']>;

/** Where the chosen rules go: a new sheet by name, or one that is there. */
export function SendBox({ sheets, suggested, rules, pages, onSend, onClose }: Props) {
  const [sheet, setSheet] = useState(suggested);
  const [keep, setKeep] = useState(false);
  const [where, setWhere] = useState<(typeof places)[number][0]>('end');
  const [rule, setRule] = useState('');
  const [problem, setProblem] = useState<string | undefined>(undefined);
  const [busy, setBusy] = useState(false);
  const field = useId();
  const exists = sheets.some((one) => one.path === sheet.trim());
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    setBusy(true);
    setProblem(undefined);
    try {
      await onSend(sheet, { keepEmptyBlocks: keep, place: exists ? placeOf(where, rule.trim()) : undefined });
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
        <Field
          id={field}
          className="mt-1"
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
          className={problem === undefined ? 'mt-1 text-note text-ink-3' : 'mt-1 text-table font-medium text-error'}
          role={problem === undefined ? undefined : 'alert'}
        >
          {problem ??
            (exists
              ? 'An existing sheet; pages that do not link it yet will.'
              : 'A new sheet. Every page that loses a rule links it where its first block was.')}
        </p>
        {exists && (
          <div className="mt-4 text-table">
            <span className="text-note text-ink-3">In that sheet the rules go</span>
            <Choice label="Where in the sheet" value={where} onChange={setWhere} options={places} />
            {where === 'before' && (
              <Field
                className="mt-1"
                aria-label="The rule they go before, by its selector"
                placeholder=".notice"
                value={rule}
                onChange={(event) => setRule(event.target.value)}
              />
            )}
          </div>
        )}
        <p className="mt-4 flex items-center gap-2 text-table">
          <Tick checked={keep} onChange={setKeep} label="Leave emptied style elements in the pages" /> Leave emptied{' '}
          <code>&lt;style&gt;</code> elements in the pages
        </p>
        <div className="mt-5 flex items-center gap-4">
          <Button
            type="submit"
            next
            disabled={busy || sheet.trim() === '' || (exists && where === 'before' && rule.trim() === '')}
          >
            {busy ? 'Working …' : 'Put it in the draft'}
          </Button>
          <Act onClick={onClose}>Cancel</Act>
        </div>
      </form>
    </Box>
  );
}

const places = [
  ['end', 'to its end'],
  ['start', 'to its start, behind imports'],
  ['before', 'before a rule'],
] as const;

function placeOf(where: string, rule: string): SheetPlace | undefined {
  if (where === 'before') return { before: rule };
  return where === 'start' ? 'start' : undefined;
}
