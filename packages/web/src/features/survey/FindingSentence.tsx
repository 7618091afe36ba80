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
          <a
            key={i}
            className="name"
            href={addressOf(path)}
            onClick={(event) => {
              event.preventDefault();
              onPath(path);
            }}
          >
            {part}
          </a>
        );
      })}
    </>
  );
}

/** Where a page or sheet is at home, from any station. */
const addressOf = (path: string): string =>
  `${/\.css$/i.test(path) ? 'sheets' : 'survey'}?open=${encodeURIComponent(path)}`;

/** Every page by the name sentences use for it, every sheet by its path. */
export const pathsByName = (pages: readonly string[], sheets: readonly string[]): ReadonlyMap<string, string> =>
  new Map([
    ...pages.flatMap((path) => [[pageName(path), path] as const, [path, path] as const]),
    ...sheets.map((path) => [path, path] as const),
  ]);
