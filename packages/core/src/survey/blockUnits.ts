import { trimmed } from '../source/space.ts';
import type { PageTree } from '../page/parsePage.ts';
import { styleSources, type EmbeddedSource, type StyleSources } from '../page/styleSources.ts';
import { isTemplated } from '../source/templates.ts';
import { isAllMedia, mediaText } from '../cascade/mediaText.ts';
import { parseSheet } from '../sheet/parseSheet.ts';
import type { Declaration, GroupRule, Rule, Sheet } from '../sheet/sheet.ts';
import { foldedText } from '../sheet/tokens.ts';
import { folderOf } from '../source/sitePath.ts';
import type { Span } from '../source/span.ts';
import type { Base } from '../values/urls.ts';
import { classesOf } from './selectorNames.ts';
import { countRules } from './countRules.ts';
import { selectorText } from './selectorText.ts';
import { versionKey } from './versionKey.ts';

/** Why a block or a rule stays in its page. */
export type StayReason =
  | 'svg-block'
  | 'not-css'
  | 'base-elsewhere'
  | 'titled'
  | 'has-import'
  | 'has-namespace'
  | 'has-layer-order'
  | 'unclosed-string'
  | 'reference-cannot-move'
  | 'policy'
  | 'template';

/** Why a block is not taken apart, though it can go as a whole. */
export const wholeOnly: ReadonlySet<StayReason> = new Set(['titled', 'has-import', 'has-namespace', 'has-layer-order']);

/** A conditional group around a rule, outermost first: `{ name: 'media', prelude: 'print' }`. */
export interface Group {
  readonly name: string;
  readonly prelude: string;
}

/**
 * What moves as one piece out of an embedded block: a style rule with its nested rules, or a definition such as `@font-face`.
 * All spans are in the page's text.
 */
export interface BlockUnit {
  readonly kind: 'rule' | 'definition';
  /** The selector, or `@font-face Name` and the like. */
  readonly label: string;
  readonly groups: readonly Group[];
  /** Equal for the same selector under the same conditions, wherever it stands. */
  readonly family: string;
  /** Equal for the same declarations by meaning. */
  readonly version: string;
  readonly declarations: readonly Declaration[];
  /** Holds nested rules. */
  readonly nests: boolean;
  /** Classes its selectors ask for, in lower case. */
  readonly classes: readonly string[];
  /** How many rules it is, nested ones included. */
  readonly rules: number;
  readonly span: Span;
  /** From the first comment that belongs to it. */
  readonly lead: number;
  readonly comments: readonly string[];
  readonly closed: boolean;
  /** The innermost group rule it stands in, if any. */
  readonly parent: GroupRule | undefined;
}

export interface EmbeddedBlock {
  /** Number among the page's links and blocks, from 0. */
  readonly sourceIndex: number;
  readonly source: EmbeddedSource;
  readonly units: readonly BlockUnit[];
  readonly sheet: Sheet;
  readonly base: Base;
  /** Set when nothing of it can be moved. */
  readonly stays: StayReason | undefined;
  /** Comments after the last rule. */
  readonly trailingComments: readonly Span[];
}

/** The embedded blocks of a page, each with its movable units in order. */
export function embeddedBlocks(
  page: PageTree,
  path: string,
  sources: StyleSources = styleSources(page, path),
): readonly EmbeddedBlock[] {
  const out: EmbeddedBlock[] = [];
  sources.sheets.forEach((source, sourceIndex) => {
    if (source.kind === 'embedded') out.push(readBlock(page.text, source, sourceIndex, source.base));
  });
  return out;
}

function readBlock(text: string, source: EmbeddedSource, sourceIndex: number, base: Base): EmbeddedBlock {
  const { start, end } = source.contents;
  const sheet = parseSheet(text, start, end);
  const media: Group[] = isAllMedia(source.media) ? [] : [{ name: 'media', prelude: mediaText(source.media) }];
  const reader = new UnitReader(sheet, base);
  reader.read(sheet.rules, media, undefined, start);
  const stays = blockStays(source, sheet, base);
  const lastEnd = sheet.rules.at(-1)?.span.end ?? start;
  const trailingComments = sheet.comments.filter((c) => c.start >= lastEnd);
  return { sourceIndex, source, units: reader.units, sheet, base, stays, trailingComments };
}

/** The units of a sheet, read as if it were one block. */
export function blockUnitsOf(sheet: Sheet, base: Base): readonly BlockUnit[] {
  const reader = new UnitReader(sheet, base);
  reader.read(sheet.rules, [], undefined, 0);
  return reader.units;
}

function blockStays(source: EmbeddedSource, sheet: Sheet, base: Base): StayReason | undefined {
  if (source.foreign) return 'svg-block';
  if (source.idle === 'policy') return 'policy';
  if (source.idle !== undefined) return 'not-css';
  if (isTemplated(sheet.text.slice(source.contents.start, source.contents.end))) return 'template';
  if (base.kind !== 'site') return 'base-elsewhere';
  if (source.title !== '') return 'titled';
  if (sheet.rules.some((rule) => rule.kind === 'import')) return 'has-import';
  if (sheet.rules.some((rule) => rule.kind === 'statement' && rule.name === 'namespace')) return 'has-namespace';
  if (sheet.rules.some((rule) => rule.kind === 'statement' && rule.name === 'layer')) return 'has-layer-order';
  return undefined;
}

class UnitReader {
  readonly units: BlockUnit[] = [];
  private readonly sheet: Sheet;
  private readonly base: Base;

  constructor(sheet: Sheet, base: Base) {
    this.sheet = sheet;
    this.base = base;
  }

  read(rules: readonly Rule[], groups: readonly Group[], parent: GroupRule | undefined, from: number): void {
    let previous = from;
    for (const rule of rules) {
      if (rule.kind === 'group') {
        const inner = { name: rule.name, prelude: rule.name === 'media' ? mediaText(rule.prelude) : rule.prelude };
        this.read(rule.rules, [...groups, inner], rule, rule.blockSpan.start);
      } else if (rule.kind === 'style' || rule.kind === 'definition')
        this.units.push(this.unit(rule, groups, parent, previous));
      previous = rule.span.end;
    }
  }

  private facts(rule: Extract<Rule, { kind: 'style' | 'definition' }>): Facts {
    const { text } = this.sheet;
    const { base } = this;
    const key = `${base.kind === 'site' ? folderOf(base.path) : base.url}\n${text.slice(rule.span.start, rule.span.end)}`;
    let known = knownFacts.get(key);
    if (!known) {
      if (knownFacts.size > 50_000) knownFacts.clear();
      const label =
        rule.kind === 'style'
          ? selectorText(rule.selector)
          : definitionLabel(rule.name, rule.prelude, text.slice(rule.blockSpan.start, rule.blockSpan.end));
      knownFacts.set(key, (known = { label, version: versionKey(rule, text, base), classes: classesOf([rule]) }));
    }
    return known;
  }

  private unit(
    rule: Extract<Rule, { kind: 'style' | 'definition' }>,
    groups: readonly Group[],
    parent: GroupRule | undefined,
    from: number,
  ): BlockUnit {
    const { text } = this.sheet;
    const comments = this.sheet.comments.filter((c) => c.start >= from && c.end <= rule.span.start);
    const { label, version, classes } = this.facts(rule);
    const declarations = rule.kind === 'style' ? rule.declarations : [];
    return {
      kind: rule.kind === 'style' ? 'rule' : 'definition',
      label,
      groups,
      family: familyKey(groups, label),
      version,
      declarations,
      nests: rule.kind === 'style' && rule.nested.length > 0,
      rules: countRules([rule]),
      classes,
      span: rule.span,
      lead: comments[0]?.start ?? rule.span.start,
      comments: comments.map((c) => text.slice(c.start, c.end)),
      closed: rule.closed,
      parent,
    };
  }
}

/** By folder and text: rules are written alike on many pages. */
const knownFacts = new Map<string, Facts>();

type Facts = Pick<BlockUnit, 'label' | 'version' | 'classes'>;

export const familyKey = (groups: readonly Group[], label: string): string =>
  [...groups.map((g) => trimmed(`@${g.name} ${g.prelude}`)), label].join(' { ');

function definitionLabel(name: string, prelude: string, block: string): string {
  if (name !== 'font-face') return trimmed(`@${name} ${prelude}`);
  const family = /font-family[\t\n\f\r ]*:[\t\n\f\r ]*([^;]+)/i.exec(foldedText(block))?.[1]?.replace(/["']/g, '');
  return trimmed(`@font-face ${trimmed(family ?? '')}`);
}

export function describeStayReason(reason: StayReason): string {
  switch (reason) {
    case 'svg-block':
      return 'it stands inside a drawing (SVG), whose text is read by other rules';
    case 'not-css':
      return 'its type is not text/css, so browsers take no rules from it';
    case 'policy':
      return 'the Content-Security-Policy of the page forbids it, so browsers take no rules from it';
    case 'template':
      return 'a server or template writes into it';
    case 'titled':
      return 'it has a title, so it belongs to a sheet set that people can choose';
    case 'has-import':
      return 'it holds an @import, which would have to come first in the sheet';
    case 'has-namespace':
      return 'it holds an @namespace, which would change what other rules of the sheet match';
    case 'base-elsewhere':
      return 'the page counts its addresses from another site (its base element says so)';
    case 'has-layer-order':
      return 'it says the order of cascade layers, for all rules after it';
    case 'unclosed-string':
      return 'a string or comment in it is never closed';
    case 'reference-cannot-move':
      return 'a url() in it cannot be counted from the sheet';
  }
}
