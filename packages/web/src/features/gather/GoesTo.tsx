import { Mark } from '../../ui/Mark.tsx';
import type { Decision } from './decisions.ts';

/** Where a family goes, in a few words. */
export function GoesTo({ decisions }: { readonly decisions: readonly Decision[] }) {
  const sheets = [...new Set(decisions.flatMap((one) => (one.kind === 'sheet' ? [one.sheet] : [])))];
  const blocks = decisions.some((one) => one.kind === 'block');
  const open = decisions.some((one) => one.kind === 'open');
  if (sheets.length === 0 && !blocks) return <span className="text-note text-ink-3">undecided</span>;
  const first = sheets[0];
  const more = sheets.length - 1 + (blocks && first !== undefined ? 1 : 0);
  return (
    <span title={[...sheets, ...(blocks ? ['sheets of their own'] : [])].join('\n')}>
      {first === undefined ? (
        <span className="text-ink-2">own sheet</span>
      ) : (
        <>
          <Mark kind="linked" hidden /> <span className="m">{first.slice(first.lastIndexOf('/') + 1)}</span>
        </>
      )}
      {more > 0 && <span className="text-note text-ink-3"> +{more}</span>}
      {open && <span className="text-note text-ink-3"> in part</span>}
    </span>
  );
}
