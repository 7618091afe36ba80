import type { LeftOutReply } from '@syndeton/contract';
import { count } from '../../ui/format.ts';

/** How many files, and how many folders as a whole (`.git/`), were left out. */
export function leftOutWords(leftOut: readonly Pick<LeftOutReply, 'path'>[]): string {
  const folders = leftOut.filter(({ path }) => path.endsWith('/')).length;
  const files = leftOut.length - folders;
  return [...(files > 0 ? [count(files, 'file')] : []), ...(folders > 0 ? [count(folders, 'folder')] : [])].join(
    ' and ',
  );
}
