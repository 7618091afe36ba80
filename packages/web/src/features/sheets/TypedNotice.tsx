import { Act } from '../../ui/Act.tsx';
import { Problem } from '../../ui/Said.tsx';
import type { Typed } from './useTyped.ts';

const typedLook = 'row-start-2 gap-0.5 bg-lit px-4 py-1.5 text-table';

/** What became of text that was typed earlier, cannot be kept, or cannot be looked at. */
export function TypedNotice({
  typed,
  path,
  isUnlooked,
  onDrop,
}: {
  readonly typed: Typed;
  readonly path: string;
  readonly isUnlooked: boolean;
  readonly onDrop: () => void;
}) {
  if (typed.overtaken)
    return (
      <div className={`grid ${typedLook}`} role="alert">
        <p>
          <b>{path} is another text now</b> than the one you typed over. What you typed stands here still.
        </p>
        <p className="flex gap-4">
          <Act onClick={typed.keep}>Keep what I typed, in place of it</Act>
          <Act onClick={onDrop}>Take the sheet as it is now</Act>
        </p>
      </div>
    );
  if (typed.unkept)
    return (
      <Problem className={typedLook}>
        This browser has no room to keep what you type. Put it into the draft before you leave.
      </Problem>
    );
  if (isUnlooked)
    return (
      <Problem className={typedLook}>
        The text could not be checked just now. What you type is kept all the same; the next change is checked again.
      </Problem>
    );
  if (typed.isBack && typed.changed)
    return (
      <p className={typedLook} role="status">
        This is what you typed before; it is not in the draft yet. <Act onClick={onDrop}>Put it back</Act>
      </p>
    );
  return null;
}
