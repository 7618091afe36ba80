import type { OperationBody, OverrideReply } from '@syndeton/contract';

/** Of the pages that have it, those chosen; all when nothing is chosen. */
const pagesOf = (one: OverrideReply, limit: readonly string[] | undefined): string[] =>
  limit ? one.pages.filter((page) => limit.includes(page)) : one.pages;

const declarationOf = ({ kind, selector, property, value, important }: OverrideReply) => ({
  where: kind === 'attribute' ? ('attribute' as const) : ('block' as const),
  ...(kind === 'attribute' ? {} : { selector }),
  property,
  value,
  ...(important ? { important } : {}),
});

export const dropOf = (one: OverrideReply, limit?: readonly string[]): OperationBody => ({
  kind: 'drop-declaration',
  ...declarationOf(one),
  pages: pagesOf(one, limit),
});

export const shareOf = (one: OverrideReply, limit?: readonly string[]): OperationBody => ({
  kind: 'share-declaration',
  ...declarationOf(one),
  sheet: one.beats.path,
  rule: one.kind === 'attribute' ? one.beats.part : one.selector,
  pages: pagesOf(one, limit),
});
