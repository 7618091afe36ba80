import { trimmed } from '../../source/space.ts';
import { pagesProblems } from './linkedPages.ts';
import { closed, fields, onPages, operationType } from '../operationType.ts';
import { Type } from '@sinclair/typebox';
import { lineEndOf } from '../../source/lineEnds.ts';
import { indentationAt, wholeLines } from '../../source/removal.ts';
import type { FileEdits } from '../../source/changeSet.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import type { Site } from '../../source/site.ts';
import type { Edit } from '../../source/span.ts';
import { pageSyntax, printLink } from '../../page/pageSyntax.ts';
import type { ImportRule, Rule } from '../../sheet/sheet.ts';
import type { EmbeddedBlock } from '../../survey/blockUnits.ts';
import type { OpenPage } from '../../survey/openPage.ts';
import { encodePath, rebaseReference, resolveReference } from '../../values/urls.ts';
import { chosenPages, type LinkedPagesPlan, type PagesProblem } from './linkedPages.ts';
import { relativePath } from '../../source/sitePath.ts';

/** Imports at the top of embedded blocks become links before the block, in the same order and for the same media. */
export interface ImportToLink {
  readonly kind: 'import-to-link';
  readonly pages?: readonly string[];
}

export type ImportToLinkProblem = PagesProblem | { readonly kind: 'no-imports' };

/** An import into a layer or under `supports()` has no link that says the same; that block's imports stay. */
export function planImportToLink(site: Site, { pages }: ImportToLink): Result<LinkedPagesPlan, ImportToLinkProblem> {
  const opened = chosenPages(site, pages);
  if (!opened.ok) return opened;
  const edited: FileEdits[] = [];
  for (const page of opened.value) {
    const edits = page.blocks.flatMap((block) => blockEdits(page, block));
    if (edits.length > 0) edited.push({ path: page.path, hash: page.file.hash, edits });
  }
  if (edited.length === 0) return fail({ kind: 'no-imports' });
  return succeed({ changes: { created: [], edited, deleted: [] }, pages: edited.map((e) => e.path) });
}

function blockEdits(page: OpenPage, block: EmbeddedBlock): readonly Edit[] {
  const { source } = block;
  if (source.foreign || source.idle !== undefined || source.title !== '' || source.span.start < 0) return [];
  const going = leadingImports(block.sheet.rules);
  // one that stays would come after those that went: then all stay
  if (going.length === 0 || !going.every((rule) => hasLink(page, block, rule))) return [];
  const { text } = page;
  const syntax = pageSyntax(page.tree);
  const tags = going.map((rule) =>
    printLink(syntax, referenceFrom(page, block, rule)!, { media: mediaOf(rule, source.media), title: '' }),
  );
  const at = source.span.start;
  const lineEnd = lineEndOf(text);
  const indent = indentationAt(text, at);
  const gone = new Set<Rule>(going);
  const rest = block.sheet.rules.filter(
    (rule) => !gone.has(rule) && !(rule.kind === 'statement' && rule.name === 'charset'),
  );
  const left = rest.length > 0 || block.sheet.comments.length > 0;
  if (!left) return [{ span: source.span, text: tags.join(lineEnd + indent) }];
  return [
    { span: { start: at, end: at }, text: tags.map((tag) => tag + lineEnd + indent).join('') },
    ...going.map((rule) => ({ span: wholeLines(text, rule.span), text: '' })),
  ];
}

/** Later ones are dropped by browsers, or stand behind an `@layer` whose order they might change. */
function leadingImports(rules: readonly Rule[]): readonly ImportRule[] {
  const out: ImportRule[] = [];
  for (const rule of rules) {
    if (rule.kind === 'import') out.push(rule);
    else if (rule.kind !== 'statement' || rule.name !== 'charset') break;
  }
  return out;
}

function hasLink(page: OpenPage, block: EmbeddedBlock, rule: ImportRule): boolean {
  if (rule.layer !== undefined || rule.supports !== undefined) return false;
  if (trimmed(block.source.media) !== '' && rule.media !== '') return false;
  return referenceFrom(page, block, rule) !== undefined;
}

const mediaOf = (rule: ImportRule, ofBlock: string): string => (rule.media !== '' ? rule.media : trimmed(ofBlock));

/** The import's address as the page names it. */
function referenceFrom(page: OpenPage, block: EmbeddedBlock, rule: ImportRule): string | undefined {
  const target = resolveReference(rule.reference, block.base);
  const { base } = page.sources;
  if (target.kind === 'remote') return rule.reference;
  if (target.kind !== 'site' || base.kind !== 'site') return undefined;
  if (rebaseReference(rule.reference, block.base, base.path) === rule.reference) return rule.reference;
  return encodePath(relativePath(base.path, target.path)) + target.suffix;
}

export const importToLink = operationType<ImportToLink, ImportToLinkProblem>()({
  kind: 'import-to-link',
  schema: Type.Object({ kind: Type.Literal('import-to-link'), pages: fields.somePages }, closed),
  plan(site, operation) {
    const plan = planImportToLink(site, operation);
    if (!plan.ok) return plan;
    const { changes, pages } = plan.value;
    const sentence = `Turn the imports of blocks into links on ${onPages(pages)}`;
    return succeed({ changes, sentence });
  },
  problems: {
    ...pagesProblems,
    'no-imports': () => 'No embedded block of these pages imports a sheet in a way that a link can say.',
  },
});
