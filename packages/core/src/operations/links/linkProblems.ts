import type { BaselineProblem } from './addBaseline.ts';
import type { CopyLinksProblem } from './copyLinks.ts';
import type { ImportToLinkProblem } from './importToLink.ts';
import type { LinkSheetProblem } from './linkSheet.ts';
import type { MoveLinkProblem } from './moveLink.ts';
import type { RenameSheetProblem } from '../sheets/renameSheet.ts';
import type { SetLinkProblem } from './setLink.ts';
import { describeSheetPathProblem } from '../sheetPath.ts';

export type LinkProblem =
  | LinkSheetProblem
  | MoveLinkProblem
  | SetLinkProblem
  | ImportToLinkProblem
  | RenameSheetProblem
  | CopyLinksProblem
  | BaselineProblem
  | { readonly kind: 'no-plain-link'; readonly sheet: string };

export function describeLinkProblem(problem: LinkProblem): string {
  switch (problem.kind) {
    case 'page-not-found':
      return `There is no page ${problem.page} in this site.`;
    case 'sheet-not-there':
      return `There is no sheet ${problem.sheet} in this site. Name one of its sheets, or gather rules into a new one.`;
    case 'bad-host':
      return `${problem.host} is no address a path can start with. It begins with https:// or http:// and a host: https://www.example.org.`;
    case 'linked-already':
      return `All these pages link ${problem.sheet} for that medium already.`;
    case 'base-elsewhere':
      return `${problem.pages.length === 1 ? problem.pages[0]! : `${problem.pages.length} pages`} count paths from another server, by a base element. A path with the host name is possible there.`;
    case 'not-linked-there':
      return `None of these pages links ${problem.sheet}.`;
    case 'stands-there':
      return `The link to ${problem.sheet} stands at that place already on these pages.`;
    case 'says-so-already':
      return `The links to ${problem.sheet} say that already.`;
    case 'no-imports':
      return 'No embedded block of these pages imports a sheet in a way that a link can say.';
    case 'no-plain-link':
      return `The links to ${problem.sheet} have a title, a charset or a type that an import cannot say.`;
    case 'new-sheet-path':
    case 'baseline-path':
      return describeSheetPathProblem(problem.path);
    case 'name-taken':
      return `${problem.path} is there already. Choose a name that no file has.`;
    case 'sheet-not-moved':
      return `${problem.sheet} holds an address that cannot be written for another folder, or cannot be read back to its own bytes.`;
    case 'links-alike':
      return `These pages link all that ${problem.from} links.`;
    case 'baseline-first':
      return `${problem.sheet} stands first on all these pages already.`;
  }
}
