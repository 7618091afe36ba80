import { useRef, useState, type ReactNode } from 'react';
import { Act } from './Act.tsx';

interface Props {
  readonly text: string;
  /** Says what it is. */
  readonly words: ReactNode;
}

/** A text to be taken elsewhere, with what it is. What could not be copied is selected, so that the keys do it. */
export function CopiedText({ text, words }: Props) {
  const code = useRef<HTMLElement>(null);
  const [said, setSaid] = useState('');
  const copy = async (): Promise<void> =>
    setSaid((await copied(text, code.current!)) ? 'Copied' : 'Selected: Ctrl+C copies it');
  return (
    <div className="pt-1.5 pb-2 border-b border-line last:border-0 [&>span]:flex [&>span]:justify-between [&>span]:text-ink-2 [&_code]:block [&_code]:bg-panel [&_code]:rounded-sm [&_code]:py-1.25 [&_code]:px-2 [&_code]:mt-1 [&_code]:wrap-anywhere">
      <span>
        {words}
        <span className="flex gap-2">
          <span role="status">{said}</span>
          <Act onClick={() => void copy()}>Copy</Act>
        </span>
      </span>
      <code ref={code}>{text}</code>
    </div>
  );
}

/** Browsers give the clipboard to pages of https and of this machine only; elsewhere they may copy what is selected. */
async function copied(text: string, shown: HTMLElement): Promise<boolean> {
  const clipboard = navigator.clipboard as Clipboard | undefined;
  if (
    clipboard &&
    (await clipboard.writeText(text).then(
      () => true,
      () => false,
    ))
  )
    return true;
  getSelection()?.selectAllChildren(shown);
  return document.execCommand('copy');
}
