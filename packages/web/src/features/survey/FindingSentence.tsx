import { Fragment } from 'react';
import { pageName } from '../../ui/format.ts';

/** A sentence with names between backticks; those of pages and sheets lead to where they are at home. */
export function FindingSentence({
  sentence,
  pathOfName,
  onPath,
}: {
  readonly sentence: string;
  readonly pathOfName: ReadonlyMap<string, string>;
  readonly onPath: (path: string) => void;
}) {
  return (
    <>
      {sentence.split('`').map((part, i) => {
        if (i % 2 === 0) return <Fragment key={i}>{part}</Fragment>;
        const path = pathOfName.get(part);
        return path === undefined ? (
          <code key={i}>{part}</code>
        ) : (
          <button key={i} type="button" className="name" onClick={() => onPath(path)}>
            {part}
          </button>
        );
      })}
    </>
  );
}

/** Every page by the name sentences use for it, every sheet by its path. */
export const pathsByName = (pages: readonly string[], sheets: readonly string[]): ReadonlyMap<string, string> =>
  new Map([
    ...pages.flatMap((path) => [[pageName(path), path] as const, [path, path] as const]),
    ...sheets.map((path) => [path, path] as const),
  ]);
