import type { FamilyReply, OperationBody } from '@syndeton/contract';
import type { Becomes } from './becomes.ts';
import { inOwnSheet, inScopeOf, leaving, sharedSheetOf, taking } from './decisions.ts';

/** The operations with a version decided otherwise; `own` is the sheet it gets for itself, `shared` where no other is planned. */
export function becoming(
  now: readonly OperationBody[],
  family: FamilyReply,
  version: FamilyReply['versions'][number],
  choice: Becomes,
  sheets: { readonly own: string; readonly shared: string },
): readonly OperationBody[] {
  switch (choice) {
    case 'stay':
      return leaving(now, family, version);
    case 'scope':
      return inScopeOf(now, family, version, sharedSheetOf(now, family) ?? sheets.shared);
    case 'own':
      return inOwnSheet(now, family, version, sheets.own);
    case 'sheet':
      return now;
    default:
      return taking(now, family, version, choice.slice('take '.length));
  }
}
