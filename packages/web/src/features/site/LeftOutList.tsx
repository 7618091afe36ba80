import type { LeftOutReply } from '@syndeton/contract';
import { listRowLook } from '../../ui/looks.ts';
import { Act } from '../../ui/Act.tsx';

/** Files that were left out, why, and the way to take each in. */
export function LeftOutList({
  files,
  onTake,
  busy = false,
}: {
  readonly files: readonly LeftOutReply[];
  readonly onTake: (path: string) => void;
  readonly busy?: boolean;
}) {
  return (
    <ul>
      {files.slice(0, 50).map((file) => (
        <li key={file.path} className={listRowLook}>
          <span>
            <code>{file.path}</code>: {file.reason}
          </span>
          {file.kept && (
            <Act disabled={busy} onClick={() => onTake(file.path)}>
              Take it in
            </Act>
          )}
        </li>
      ))}
      {files.length > 50 && <li className="text-note text-ink-3 pt-1">and {files.length - 50} more</li>}
    </ul>
  );
}
