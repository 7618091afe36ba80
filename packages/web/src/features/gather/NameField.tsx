import { useState } from 'react';

interface Props {
  readonly name: string;
  readonly label: string;
  /** A person gave it. */
  readonly isGiven?: boolean;
  /** Says what is wrong with a name, or takes it. */
  readonly onName: (name: string) => string | undefined;
}

/** A class name that can be written over; what is wrong with one is said at once, and Escape brings the old one back. */
export function NameField({ name, label, isGiven = false, onName }: Props) {
  const [typed, setTyped] = useState<string | undefined>(undefined);
  const [problem, setProblem] = useState<string | undefined>(undefined);
  const settle = (): void => {
    if (typed === undefined || typed === name) {
      setTyped(undefined);
      setProblem(undefined);
      return;
    }
    const wrong = onName(typed);
    setProblem(wrong);
    if (wrong === undefined) setTyped(undefined);
  };
  return (
    <span title={problem}>
      <input
        className={`m -ml-1.25 w-full rounded-sm border border-transparent bg-transparent px-1 py-px hover:border-edge hover:bg-panel focus:border-edge focus:bg-panel aria-invalid:border-error ${isGiven ? 'font-bold' : ''}`}
        value={typed ?? name}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={settle}
        onKeyDown={(event) => {
          if (event.key === 'Enter') settle();
          if (event.key === 'Escape') {
            setTyped(undefined);
            setProblem(undefined);
          }
        }}
        aria-label={label}
        aria-invalid={problem !== undefined}
        spellCheck={false}
      />
      {problem !== undefined && (
        <span className="font-medium text-error block text-note whitespace-normal" role="alert">
          {problem}
        </span>
      )}
    </span>
  );
}
