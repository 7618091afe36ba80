import { useMemo, useState } from 'react';
import type { FileTextReply, OperationBody } from '@syndeton/contract';
import { problemText } from '../../app/api.ts';
import type { DraftInHand } from '../drafts/index.ts';
import { useEditEffect, type EditEffect } from './useEditEffect.ts';
import { useTyped, type Typed } from './useTyped.ts';

export interface SheetEdit {
  readonly typed: Typed;
  /** What is typed as an operation; undefined where nothing is. */
  readonly operation: OperationBody | undefined;
  /** What it would do, once that is known. */
  readonly effect: EditEffect | undefined;
  readonly problem: string | undefined;
  readonly addToDraft: () => void;
}

/** The text of a sheet as it is typed, what it would do, and the way into the draft. */
export function useSheetEdit(siteId: string, inHand: DraftInHand, path: string, file: FileTextReply): SheetEdit {
  const typed = useTyped(siteId, path, file);
  const [problem, setProblem] = useState<string | undefined>(undefined);
  const { text, changed } = typed;
  const operation = useMemo<OperationBody | undefined>(
    () => (changed ? { kind: 'edit-sheet', path, hash: file.hash, text } : undefined),
    [changed, path, file.hash, text],
  );
  const effect = useEditEffect(siteId, inHand.draft, typed.overtaken ? undefined : operation);
  const addToDraft = async (): Promise<void> => {
    if (!operation) return;
    setProblem(undefined);
    try {
      await inHand.change((operations) => withEdit(operations, operation));
      typed.inDraft(text);
    } catch (error) {
      setProblem(problemText(error));
    }
  };
  return { typed, operation, effect, problem, addToDraft: () => void addToDraft() };
}

/** An edit of the same sheet right before becomes one with this one. */
export function withEdit(operations: readonly OperationBody[], edit: OperationBody): OperationBody[] {
  const last = operations.at(-1);
  return last?.kind === 'edit-sheet' && edit.kind === 'edit-sheet' && last.path === edit.path
    ? [...operations.slice(0, -1), { ...last, text: edit.text }]
    : [...operations, edit];
}
