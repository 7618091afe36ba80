import type { DraftReply } from '@syndeton/contract';
import { Act } from '../../ui/Act.tsx';
import { Box } from '../../ui/Box.tsx';
import { count, kB } from '../../ui/format.ts';

/** The operations of a draft, each with what it leaves behind and the way to take it out again. */
export function DraftReview({
  open,
  onClose,
  draft,
  onRemove,
  onTexts,
}: {
  readonly open: boolean;
  readonly onClose: () => void;
  readonly draft: DraftReply;
  readonly onRemove: (index: number) => void;
  /** The texts before and after, from this file on. */
  readonly onTexts: (path: string) => void;
}) {
  return (
    <Box
      open={open}
      onClose={onClose}
      title={`${count(draft.operations.length, 'operation')}, ${count(draft.changes.length, 'file')}`}
    >
      <ol className="text-table">
        {draft.steps.map((step, i) => (
          <li key={i} className="border-t border-line py-2">
            <div className="flex items-baseline justify-between gap-3">
              <span>
                {i + 1}. {step.sentence}
              </span>
              <Act onClick={() => onRemove(i)} aria-label={`Remove operation ${i + 1} from the draft`}>
                Remove from the draft
              </Act>
            </div>
            {step.left.slice(0, 5).map((left) => (
              <p key={`${left.page} ${left.label}`} className="text-note text-ink-3">
                <code>{left.label}</code> stays on {left.page}: {left.reason}
              </p>
            ))}
            {step.left.length > 5 && <p className="text-note text-ink-3">and {step.left.length - 5} more stay</p>}
          </li>
        ))}
      </ol>
      <ul className="mt-3 border-t border-line-2 pt-2 text-table">
        {draft.changes.slice(0, 12).map((change) => (
          <li key={change.path} className="flex justify-between">
            <Act title="See its text before and after" onClick={() => onTexts(change.path)}>
              <code>{change.path}</code>
            </Act>
            <span className="text-ink-2">
              {change.change === 'created' ? 'new, ' : `${kB(change.bytesBefore)} → `}
              {kB(change.bytesAfter)}
            </span>
          </li>
        ))}
        {draft.changes.length > 12 && (
          <li className="text-note text-ink-3">and {draft.changes.length - 12} more files</li>
        )}
      </ul>
    </Box>
  );
}
