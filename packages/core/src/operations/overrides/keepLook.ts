import { trimmed } from '../../source/space.ts';
import { Type } from '@sinclair/typebox';
import { hintsOf, hintText, ownStyle } from '../../cascade/hints.ts';
import { desktop } from '../../cascade/environment.ts';
import { CascadeSession, type PageCascade } from '../../cascade/pageCascade.ts';
import { PageOutcomes } from '../../cascade/pageOutcomes.ts';
import type { ElementNode } from '../../page/nodes.ts';
import { elementAt } from '../../page/parsePage.ts';
import { applyChangeSet, type ChangeSet } from '../../source/changeSet.ts';
import { lineEndOf } from '../../source/lineEnds.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import type { Site, SiteFile } from '../../source/site.ts';
import { longhandsOf } from '../../values/longhands.ts';
import { ruleStyleOf } from '../gather/ruleStyle.ts';
import { takenClassNames } from '../gather/takenClassNames.ts';
import { drawnApart } from '../../proof/rolledBack.ts';
import { holdsAddress } from './sayingBefore.ts';
import { closed, operationType } from '../operationType.ts';
import { addClass } from '../pages/editClass.ts';
import { breaksOut, SaidSchema } from '../rules/changeRule.ts';
import { placedText } from '../rules/placeForRules.ts';
import { printedRule, type Said } from '../rules/ruleEdits.ts';

/**
 * Elements of a page keep what decided one of their properties before: a class of their own, whose rule in the last sheet the page
 * links is just strong enough.
 */
export interface KeepLook {
  readonly kind: 'keep-look';
  readonly page: string;
  /** By their path: `html>body:nth-child(2)>p:nth-child(1)`. */
  readonly elements: readonly string[];
  /** `::before`; the elements themselves when absent. */
  readonly pseudoElement?: string;
  readonly says: Said;
}

export type KeepLookProblem =
  | { readonly kind: 'kept-page-unread'; readonly page: string }
  | { readonly kind: 'kept-element-gone'; readonly page: string; readonly element: string }
  | { readonly kind: 'kept-attributes'; readonly page: string; readonly element: string }
  | { readonly kind: 'kept-without-sheet'; readonly page: string }
  | { readonly kind: 'kept-address'; readonly value: string }
  | { readonly kind: 'kept-with-brace'; readonly property: string; readonly value: string }
  | { readonly kind: 'kept-too-weak'; readonly page: string; readonly property: string };

export function planKeepLook(site: Site, operation: KeepLook): Result<ChangeSet, KeepLookProblem> {
  const { page: path, says } = operation;
  const page = site.files.get(path);
  if (page?.kind !== 'page' || page.text === undefined) return fail({ kind: 'kept-page-unread', page: path });
  if (breaksOut(says)) return fail({ kind: 'kept-with-brace', ...says });
  if (holdsAddress(says)) return fail({ kind: 'kept-address', value: says.value });
  const cascade = new CascadeSession().open(site, page);
  const elements: ElementNode[] = [];
  for (const element of operation.elements) {
    const found = elementAt(cascade.tree, element);
    if (!found || found.start < 0) return fail({ kind: 'kept-element-gone', page: path, element });
    if (isRollback(says) && (hasHints(found) || found.namespace !== 'html' || drawnApart.has(found.tag)))
      return fail({ kind: 'kept-attributes', page: path, element });
    elements.push(found);
  }
  const sheet = lastSheet(site, cascade);
  if (!sheet) return fail({ kind: 'kept-without-sheet', page: path });
  const name = freeName(site, says.property);
  const tagged = { path, hash: page.hash, edits: elements.map((element) => addClass(page.text!, element, name)) };
  for (const [selector, said] of strengths(name, operation)) {
    const changes = { created: [], edited: [tagged, withRule(site, sheet, selector, said)], deleted: [] };
    if (decides(site, changes, operation, selector)) return succeed(changes);
  }
  return fail({ kind: 'kept-too-weak', page: path, property: says.property });
}

/** Back to what the browser itself says: where nobody said anything before. */
const isRollback = ({ value }: Said): boolean => trimmed(value).toLowerCase() === 'revert';

/** Presentational attributes, which rolling back passes over as well. */
const hasHints = (element: ElementNode): boolean => hintText([...ownStyle(element), ...hintsOf(element)]) !== '';

/** The least that may do first. */
function strengths(name: string, { says, pseudoElement = '' }: KeepLook): readonly (readonly [string, Said])[] {
  const selectors = [1, 2, 3, 4].map((times) => `.${name}`.repeat(times) + pseudoElement);
  const plain = says.important ? [] : selectors.map((selector) => [selector, says] as const);
  // important it would beat animations as well
  if (isRollback(says)) return plain;
  return [...plain, ...selectors.map((selector) => [selector, { ...says, important: true }] as const)];
}

/** The last sheet of the site that the page always takes, whose text can be written. */
function lastSheet(site: Site, { rules }: PageCascade): SiteFile | undefined {
  return rules.sources.sheets
    .flatMap((source) => {
      const isPlain =
        source.kind === 'linked' && source.idle === undefined && !source.alternate && source.integrity === undefined;
      const file = isPlain && source.target.kind === 'site' ? site.files.get(source.target.path) : undefined;
      return file?.kind === 'sheet' && file.text !== undefined && isForAll(source.media) ? [file] : [];
    })
    .at(-1);
}

const isForAll = (media: string | undefined): boolean => /^[\t\n\f\r ]*(all)?[\t\n\f\r ]*$/i.test(media ?? '');

/** `kept-color`, or with a number behind it. */
function freeName(site: Site, property: string): string {
  const taken = takenClassNames(site);
  const base = `kept-${property.replace(/^-+/, '')}`.toLowerCase();
  for (let n = 1; ; n++) {
    const name = n === 1 ? base : `${base}-${n}`;
    if (!taken.has(name)) return name;
  }
}

function withRule(site: Site, { path, hash, text = '' }: SiteFile, selector: string, said: Said) {
  const lineEnd = lineEndOf(text);
  const written = printedRule(selector, [said], ruleStyleOf(site), lineEnd);
  const at = text.length;
  return { path, hash, edits: [{ span: { start: at, end: at }, text: placedText(text, at, written, lineEnd) }] };
}

/** Whether the new rule decides all it says, on each of the elements. */
function decides(
  site: Site,
  changes: ChangeSet,
  { page, elements, pseudoElement = '', says }: KeepLook,
  selector: string,
): boolean {
  const done = applyChangeSet(site, changes);
  if (!done.ok) return false;
  const cascade = new CascadeSession().open(done.value, done.value.files.get(page)!);
  const outcomes = new PageOutcomes(cascade, { environment: desktop });
  const longhands = longhandsOf(says.property);
  return elements.every((path) => {
    const winners = outcomes.winnersOf(elementAt(cascade.tree, path)!, pseudoElement);
    return longhands.every((longhand) => winners.get(longhand)?.selector === selector);
  });
}

export const keepLook = operationType<KeepLook, KeepLookProblem>()({
  kind: 'keep-look',
  schema: Type.Object(
    {
      kind: Type.Literal('keep-look'),
      page: Type.String({ minLength: 1, maxLength: 1000 }),
      elements: Type.Array(Type.String({ minLength: 1, maxLength: 20_000 }), { minItems: 1, maxItems: 10_000 }),
      pseudoElement: Type.Optional(Type.String({ pattern: '^::?[a-z-]+$', maxLength: 100 })),
      says: SaidSchema,
    },
    closed,
  ),
  plan(site, operation) {
    const plan = planKeepLook(site, operation);
    if (!plan.ok) return plan;
    const { elements, page, says } = operation;
    const whom = elements.length === 1 ? 'An element' : `${elements.length} elements`;
    const keeps = `${says.property}: ${says.value}${says.important ? ' !important' : ''}`;
    return succeed({
      changes: plan.value,
      sentence: `${whom} on ${page} ${elements.length === 1 ? 'keeps' : 'keep'} ${keeps}`,
    });
  },
  problems: {
    'kept-page-unread': ({ page }) => `${page} is no page of the site that can be edited.`,
    'kept-element-gone': ({ page, element }) => `On ${page} there is no element ${element} whose tag is written there.`,
    'kept-attributes': ({ page, element }) =>
      `On ${page} the element ${element} has attributes that style it, or is drawn by the browser itself: going back to where nobody says anything would change that too.`,
    'kept-without-sheet': ({ page }) =>
      `${page} links no sheet of the site that could hold the rule. Link one, then keep the look.`,
    'kept-address': ({ value }) =>
      `${value} holds an address, which counts from where it was written. Write the rule by hand.`,
    'kept-with-brace': ({ property, value }) => `The value ${value} of ${property} would end the rule before its end.`,
    'kept-too-weak': ({ page, property }) =>
      `On ${page} something beats every rule for ${property} that a class can have: an important style attribute, a layer or an animation.`,
  },
});
