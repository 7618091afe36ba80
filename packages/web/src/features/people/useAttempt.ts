import { useState } from 'react';
import { problemText } from '../../app/api.ts';

/** Does something that may be refused, and keeps the words of the refusal. */
export function useAttempt(): {
  readonly problem: string | undefined;
  readonly attempt: (act: () => Promise<unknown>) => Promise<boolean>;
} {
  const [problem, setProblem] = useState<string | undefined>(undefined);
  return {
    problem,
    attempt: async (act) => {
      setProblem(undefined);
      try {
        await act();
        return true;
      } catch (error) {
        setProblem(problemText(error));
        return false;
      }
    },
  };
}
