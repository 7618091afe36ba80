import { useEffect, useState } from 'react';
import type { FileTextReply } from '@syndeton/contract';
import { forgetUnfinished, keepUnfinished, readUnfinished, type UnfinishedText } from './unfinished.ts';

export interface Typed {
  /** What stands in the editor. */
  readonly text: string;
  readonly changed: boolean;
  /** It was typed earlier: before another sheet, another station, or a reload. */
  readonly isBack: boolean;
  /** The sheet is another one now than the one it was typed over. */
  readonly overtaken: boolean;
  /** This browser has no room to keep it. */
  readonly unkept: boolean;
  readonly type: (text: string) => void;
  /** What was typed is dropped; the sheet stands as the draft has it. */
  readonly drop: () => void;
  /** What was typed stays, over the sheet as it is now. */
  readonly keep: () => void;
  /** This text is in the draft now. */
  readonly inDraft: (text: string) => void;
}

/** The text of one sheet as it is typed, kept in this browser until it is in the draft. */
export function useTyped(siteId: string, path: string, file: FileTextReply | undefined): Typed {
  const [typed, setTyped] = useState<UnfinishedText | undefined>(() => readUnfinished(siteId, path));
  const [isBack, setBack] = useState(typed !== undefined);
  const [unkept, setUnkept] = useState(false);
  /** What went into the draft from here last: text typed since stands on top of it. */
  const [sent, setSent] = useState<string | undefined>(undefined);
  const saved = file?.text ?? '';
  const hash = file?.hash ?? '';
  const changed = typed !== undefined && typed.text !== saved;
  const overtaken = changed && typed.hash !== hash && sent !== saved;
  useEffect(() => {
    if (!typed || overtaken) return;
    if (!changed) forgetUnfinished(siteId, path);
    else if (typed.hash !== hash) keepUnfinished(siteId, path, { text: typed.text, hash });
  }, [siteId, path, typed, changed, overtaken, hash]);
  const put = (next: UnfinishedText | undefined): void => {
    setBack(false);
    setTyped(next);
    if (next) setUnkept(!keepUnfinished(siteId, path, next));
    else forgetUnfinished(siteId, path);
  };
  return {
    text: typed?.text ?? saved,
    changed,
    isBack,
    overtaken,
    unkept,
    type: (text) => put(text === saved ? undefined : { text, hash: overtaken ? typed.hash : hash }),
    drop: () => put(undefined),
    keep: () => typed && put({ text: typed.text, hash }),
    inDraft: (text) => {
      setSent(text);
      setBack(false);
    },
  };
}
