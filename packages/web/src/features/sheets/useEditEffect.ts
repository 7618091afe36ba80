import { useEffect, useState } from 'react';
import type { DraftReply, EffectReply, OperationBody } from '@syndeton/contract';
import { problemText } from '../../app/api.ts';
import { useAppDispatch } from '../../app/hooks.ts';
import { askEffect } from '../drafts/index.ts';

export interface EditEffect {
  readonly of: OperationBody;
  readonly reply: EffectReply | undefined;
  readonly problem: string | undefined;
}

/** How long typing has to rest before the whole site is asked. */
const rest = 250;

/** What an operation would do to the draft, asked anew whenever it changes; undefined while that is not known. */
export function useEditEffect(
  siteId: string,
  draft: DraftReply | undefined,
  operation: OperationBody | undefined,
): EditEffect | undefined {
  const dispatch = useAppDispatch();
  const [effect, setEffect] = useState<EditEffect | undefined>(undefined);
  const base = draft?.base;
  const version = draft?.version;
  useEffect(() => {
    if (!operation || base === undefined || version === undefined) return undefined;
    let asked: { abort: () => void } | undefined;
    const timer = setTimeout(() => {
      const request = dispatch(askEffect({ id: siteId, base, version, operations: [operation] }));
      asked = request;
      request.unwrap().then(
        (reply) => setEffect({ of: operation, reply, problem: undefined }),
        (error: unknown) => {
          if (!isAborted(error)) setEffect({ of: operation, reply: undefined, problem: problemText(error) });
        },
      );
    }, rest);
    return () => {
      clearTimeout(timer);
      asked?.abort();
    };
  }, [dispatch, siteId, base, version, operation]);
  return effect && effect.of === operation ? effect : undefined;
}

const isAborted = (error: unknown): boolean =>
  typeof error === 'object' && error !== null && 'name' in error && error.name === 'AbortError';
