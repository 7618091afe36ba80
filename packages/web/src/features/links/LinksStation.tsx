import { useMemo, useState } from 'react';
import type { FindingReply, OperationBody } from '@syndeton/contract';
import type { LinkPlace, PathStyle } from '@syndeton/core';
import { problemText } from '../../app/api.ts';
import { useAskedFirst, type DraftInHand } from '../drafts/index.ts';
import type { SiteView } from '../site/index.ts';
import { linkGrid, type LinkColumn } from './linkGrid.ts';
import { LinksView } from './LinksView.tsx';

/** Every page tied to its sheets. Each choice puts an operation in the draft at once; it can be undone like any other. */
export function LinksStation({ view, inHand }: { readonly view: SiteView; readonly inHand: DraftInHand }) {
  const survey = view.survey!;
  const draft = inHand.draft!;
  const grid = useMemo(() => linkGrid(survey, draft.sheets), [survey, draft.sheets]);
  const column = grid.columns.find((one) => one.path === view.opened);
  const [problem, setProblem] = useState<string | undefined>(undefined);
  const [paths, setPaths] = useState<PathStyle>('page');

  const addToDraft = async (...operations: OperationBody[]): Promise<boolean> => {
    setProblem(undefined);
    try {
      await inHand.addToDraft(operations);
      return true;
    } catch (error) {
      setProblem(problemText(error));
      return false;
    }
  };
  const asked = useAskedFirst(view.siteId, inHand);
  const mend = async (findings: readonly FindingReply[]): Promise<void> => {
    setProblem(undefined);
    const mends = findings.map((finding): OperationBody => ({ kind: 'mend', finding: finding.id }));
    const notes = findings.flatMap(({ action }) => action.asks ?? []);
    const title = findings.length === 1 ? `${findings[0]!.action.label}?` : `Mend ${findings.length}?`;
    try {
      await asked.addToDraft(title, mends, notes);
    } catch (error) {
      setProblem(problemText(error));
    }
  };
  const scoped = view.scoped ? { pages: [...view.scope] } : {};
  /** The chosen pages that have the sheet, or that lack it. */
  const having = (one: LinkColumn, has: boolean): readonly string[] =>
    view.scope.filter((page) => (one.cells.get(page)?.position !== undefined) === has);

  /** New links name a sheet as its links do. */
  const styleOf = (one: LinkColumn): PathStyle => {
    const own = having(one, true).map((page) => one.cells.get(page)!);
    const rooted = own.length > 0 && own.every((cell) => cell.says.includes('from the site root'));
    return typeof paths === 'object' ? paths : rooted ? 'root' : own.length > 0 ? 'page' : paths;
  };
  return (
    <>
      <LinksView
        survey={survey}
        grid={grid}
        column={column}
        pages={view.pages}
        scope={view.scope}
        scoped={view.scoped}
        busy={inHand.changing || asked.looking}
        problem={problem}
        paths={paths}
        onColumn={(path) => {
          setProblem(undefined);
          view.open(path);
        }}
        onScope={view.setScope}
        onPage={(page) => view.go('survey', page)}
        onMend={(findings) => void mend(findings)}
        onLink={(one, place) => {
          const lacking = having(one, false);
          // a link that is there in another way is mended, not doubled
          const meant = one.mends.filter((finding) => finding.pages.some((page) => lacking.includes(page)));
          const wrong = new Set(meant.flatMap((finding) => finding.pages));
          const rest = lacking.filter((page) => !wrong.has(page));
          const media = /^(all media|several media|)$/.test(one.media) ? {} : { media: one.media };
          void addToDraft(
            ...meant.map((finding): OperationBody => ({ kind: 'mend', finding: finding.id })),
            ...(rest.length > 0
              ? [{ kind: 'link-sheet', sheet: one.path, pages: rest, place, paths: styleOf(one), ...media } as const]
              : []),
          );
        }}
        onUnlink={(one) => void addToDraft({ kind: 'unlink-sheet', sheet: one.path, ...scoped })}
        onMove={(one, place) => void addToDraft({ kind: 'move-link', sheet: one.path, place, ...scoped })}
        onMedia={(one, media) => void addToDraft({ kind: 'set-link', sheet: one.path, media, ...scoped })}
        onPaths={(one, style) => {
          setPaths(style);
          if (having(one, true).length > 0)
            void addToDraft({ kind: 'set-link', sheet: one.path, paths: style, ...scoped });
        }}
        onRename={async (one, to) => {
          if (await addToDraft({ kind: 'rename-sheet', sheet: one.path, to })) view.open(undefined);
        }}
        onImportsToLinks={() => void addToDraft({ kind: 'import-to-link', ...scoped })}
        onToImports={(one) => void addToDraft({ kind: 'link-to-import', sheet: one.path, ...scoped })}
        onBaseline={() => void addToDraft({ kind: 'add-baseline', sheet: baselineName(draft.sheets), ...scoped })}
        onCopy={(from) => void addToDraft({ kind: 'copy-links', from, pages: [...view.scope] })}
        onReorder={(path, place: LinkPlace) => void addToDraft({ kind: 'move-link', sheet: path, place, ...scoped })}
      />
      {asked.question}
    </>
  );
}

const baselineName = (sheets: readonly { readonly path: string }[]): string =>
  sheets.some((sheet) => sheet.path.includes('/')) || sheets.length === 0 ? 'css/baseline.css' : 'baseline.css';
