import type { FamilyReply, OperationBody } from '@syndeton/contract';

type Version = FamilyReply['versions'][number];
type GatherRules = Extract<OperationBody, { kind: 'gather-rules' }>;
type GatherSheet = Extract<OperationBody, { kind: 'gather-sheet' }>;
type GatherBlocks = Extract<OperationBody, { kind: 'gather-blocks' }>;

/** What the draft does with a version on some of its pages. */
export type Decision =
  /** `scope`: below this class of their body only. `selectors`: what it is written with, where not with its own. */
  | {
      readonly kind: 'sheet';
      readonly sheet: string;
      readonly pages: readonly string[];
      readonly scope?: string;
      readonly selectors?: readonly string[];
    }
  /** It said nothing, and goes for good. */
  | { readonly kind: 'dead'; readonly pages: readonly string[] }
  /** With the rest of its block, to a sheet of that block's own. */
  | { readonly kind: 'block'; readonly pages: readonly string[] }
  /** Another version takes its place. */
  | { readonly kind: 'takes'; readonly version: string; readonly pages: readonly string[] }
  | { readonly kind: 'open'; readonly pages: readonly string[] };

/** What the operations of the draft do with a version of a family, in their order; `open` is what none of them takes. */
export function decisionsOf(
  operations: readonly OperationBody[],
  family: FamilyReply,
  version: Version,
): readonly Decision[] {
  const out: Decision[] = [];
  let rest = [...version.pages];
  const take = (pages: readonly string[], decision: (pages: readonly string[]) => Decision): void => {
    if (pages.length === 0) return;
    out.push(decision(pages));
    rest = rest.filter((page) => !pages.includes(page));
  };
  for (const operation of operations) {
    const onPages = rest.filter((page) => !('pages' in operation) || (operation.pages?.includes(page) ?? true));
    if (operation.kind === 'settle-drift' && operation.family === family.id) {
      if (operation.version !== version.id && (operation.from?.includes(version.id) ?? true))
        take(onPages, (pages) => ({ kind: 'takes', version: operation.version, pages }));
    } else if (operation.kind === 'gather-rules' && takes(operation, family.id, version.id)) {
      const pages = onPages.filter((page) => !isExcepted(operation, family.id, version.id, page));
      const scope = operation.scope === undefined ? {} : { scope: operation.scope };
      take(pages, (taken) => ({ kind: 'sheet', sheet: operation.sheet, pages: taken, ...scope }));
    } else if (operation.kind === 'gather-sheet') {
      const written = operation.rules.filter((rule) => names(rule, family.id, version.id));
      if (written.length === 0) continue;
      const pages = onPages.filter((page) => !isExcepted(operation, family.id, version.id, page));
      const selectors = written.flatMap(({ selector }) => selector ?? []);
      if (written.every(({ dead }) => dead)) take(pages, (taken) => ({ kind: 'dead', pages: taken }));
      else
        take(pages, (taken) => ({
          kind: 'sheet',
          sheet: operation.sheet,
          pages: taken,
          ...(selectors.length > 0 ? { selectors } : {}),
        }));
    } else if (operation.kind === 'gather-blocks') take(onPages, (pages) => ({ kind: 'block', pages }));
  }
  if (rest.length > 0) out.push({ kind: 'open', pages: rest });
  return out;
}

const takes = ({ rules }: GatherRules, family: string, version: string): boolean =>
  rules === undefined || rules.some((rule) => names(rule, family, version));

const names = (rule: { family: string; version?: string }, family: string, version: string): boolean =>
  rule.family === family && (rule.version === undefined || rule.version === version);

const isExcepted = ({ except }: GatherRules | GatherSheet, family: string, version: string, page: string): boolean =>
  except?.some((rule) => names(rule, family, version) && (rule.page === undefined || rule.page === page)) ?? false;

/** Nothing the draft does leaves any of it in a page without saying so. */
export const isDecided = (operations: readonly OperationBody[], family: FamilyReply): boolean =>
  family.versions.every((version) => decisionsOf(operations, family, version).every((one) => one.kind !== 'open'));

/** The operations with this version left where it is; its pages then keep what is left of their blocks. */
export const leaving = (
  operations: readonly OperationBody[],
  family: FamilyReply,
  version: Version,
): readonly OperationBody[] =>
  lettingGo(operations, family, version).flatMap((operation) =>
    operation.kind === 'gather-blocks' ? withoutPages(operation, version.pages) : [operation],
  );

/** The operations where no sheet and no other version takes this one. */
function lettingGo(
  operations: readonly OperationBody[],
  family: FamilyReply,
  version: Version,
): readonly OperationBody[] {
  return operations.flatMap((operation): OperationBody[] => {
    if (operation.kind === 'gather-rules') return withoutRule(operation, family.id, version.id);
    if (operation.kind === 'gather-sheet') return [withoutWritten(operation, family.id, version.id)];
    if (operation.kind === 'settle-drift' && operation.family === family.id)
      return withoutTaking(operation, version.id, family);
    return [operation];
  });
}

function withoutRule(operation: GatherRules, family: string, version: string): OperationBody[] {
  if (!takes(operation, family, version)) return [operation];
  const exact = operation.rules?.filter((rule) => !(rule.family === family && rule.version === version));
  if (exact && exact.length < operation.rules!.length)
    return exact.length === 0 ? [] : [{ ...operation, rules: exact }];
  return [{ ...operation, except: [...(operation.except ?? []), { family, version }] }];
}

/** What other versions share with it stays written. */
const withoutWritten = (operation: GatherSheet, family: string, version: string): GatherSheet =>
  operation.rules.some((rule) => names(rule, family, version))
    ? { ...operation, except: [...(operation.except ?? []), { family, version }] }
    : operation;

function withoutPages(operation: GatherBlocks, pages: readonly string[]): OperationBody[] {
  const rest = operation.pages?.filter((page) => !pages.includes(page));
  return rest?.length === 0 ? [] : [rest === undefined ? operation : { ...operation, pages: rest }];
}

/** The operation where this version does not give way. */
export function withoutTaking(
  operation: Extract<OperationBody, { kind: 'settle-drift' }>,
  version: string,
  family: FamilyReply,
): OperationBody[] {
  const giving = operation.from ?? family.versions.map((one) => one.id).filter((id) => id !== operation.version);
  const from = giving.filter((id) => id !== version);
  const own = new Set(family.versions.find((one) => one.id === version)?.pages);
  const pages = operation.pages?.filter((page) => !own.has(page));
  return from.length === 0 ? [] : [{ ...operation, from, ...(pages === undefined ? {} : { pages }) }];
}

/** The operations with chosen versions in one sheet; what took them before lets them go. */
export function sending(
  operations: readonly OperationBody[],
  chosen: readonly { readonly family: FamilyReply; readonly version: Version }[],
  gather: Omit<GatherRules, 'kind' | 'after'>,
): readonly OperationBody[] {
  let rest = operations;
  for (const { family, version } of chosen)
    rest = rest.flatMap((operation) =>
      operation.kind === 'gather-rules'
        ? withoutRule(operation, family.id, version.id)
        : [operation.kind === 'gather-sheet' ? withoutWritten(operation, family.id, version.id) : operation],
    );
  const sheets = rest.flatMap(gatheredSheet);
  const own: OperationBody = { kind: 'gather-rules', ...gather, ...(sheets.length > 0 ? { after: sheets } : {}) };
  // whole blocks go last, or they would take what is sent
  const at = rest.findIndex((operation) => operation.kind === 'gather-blocks');
  return at < 0 ? [...rest, own] : [...rest.slice(0, at), own, ...rest.slice(at)];
}

/**
 * The operations with this version in a sheet of its own: with the rest of its block where blocks become sheets, which keeps
 * every order; else linked behind those that hold the other versions.
 */
export function inOwnSheet(
  operations: readonly OperationBody[],
  family: FamilyReply,
  version: Version,
  sheet: string,
): readonly OperationBody[] {
  const rest = lettingGo(operations, family, version);
  const covered = (page: string): boolean =>
    rest.some((operation) => operation.kind === 'gather-blocks' && (operation.pages?.includes(page) ?? true));
  if (version.pages.every(covered)) return rest;
  return behindOthers(rest, { sheet, pages: [...version.pages], rules: [{ family: family.id, version: version.id }] });
}

const gatheredSheet = (operation: OperationBody): readonly string[] =>
  operation.kind === 'gather-rules' || operation.kind === 'gather-sheet' ? [operation.sheet] : [];

/** One more sheet of rules, linked behind those in the draft. */
function behindOthers(
  operations: readonly OperationBody[],
  gather: Omit<GatherRules, 'kind' | 'after'>,
): readonly OperationBody[] {
  const after = operations.flatMap(gatheredSheet);
  const at = operations.findLastIndex((operation) => gatheredSheet(operation).length > 0) + 1;
  return [...operations.slice(0, at), { kind: 'gather-rules', ...gather, after }, ...operations.slice(at)];
}

/**
 * The operations with another version in this one's place, on all its pages. These will look different. A plan of one sheet has to
 * be made again behind it.
 */
export function taking(
  operations: readonly OperationBody[],
  family: FamilyReply,
  version: Version,
  shared: string,
): readonly OperationBody[] {
  const rest = lettingGo(operations, family, version);
  const settles = (operation: OperationBody): boolean =>
    operation.kind === 'settle-drift' && operation.family === family.id && operation.version === shared;
  const known = rest.find(settles);
  const before = known?.kind === 'settle-drift' ? known : undefined;
  const from = [...(before?.from ?? []), version.id];
  const pages = [...new Set([...(before?.pages ?? []), ...version.pages])];
  // the pages come to hold the shared version, so they link the sheet that takes it
  const others = rest
    .filter((operation) => !settles(operation))
    .map((operation) =>
      operation.kind === 'gather-rules' && operation.pages && takes(operation, family.id, shared)
        ? { ...operation, pages: [...new Set([...operation.pages, ...version.pages])] }
        : operation,
    );
  return [{ kind: 'settle-drift', family: family.id, version: shared, from, pages }, ...others];
}

/** The sheet that takes the common version of a family. */
export function sharedSheetOf(operations: readonly OperationBody[], family: FamilyReply): string | undefined {
  const first = decisionsOf(operations, family, family.versions[0]!).find((one) => one.kind === 'sheet');
  return first?.kind === 'sheet' ? first.sheet : undefined;
}

/** The operations with this version in a shared sheet, below a class that its pages get. */
export function inScopeOf(
  operations: readonly OperationBody[],
  family: FamilyReply,
  version: Version,
  sheet: string,
): readonly OperationBody[] {
  const rest = lettingGo(operations, family, version);
  const first = version.pages[0]!.split('/');
  const words = version.pages.length > 1 && first.length > 1 ? first.at(-2)! : first.at(-1)!.replace(/\.\w+$/, '');
  const scope = `${words.replace(/[^A-Za-z0-9]+/g, '-').replace(/^[^A-Za-z]+/, '') || 'these'}-page${version.pages.length > 1 ? 's' : ''}`;
  const rules = [{ family: family.id, version: version.id }];
  return behindOthers(rest, { sheet, pages: [...version.pages], rules, scope });
}
