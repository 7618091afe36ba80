import { trimmed } from '../../source/space.ts';
import { compileBlock } from '../../cascade/compileBlock.ts';
import { parseDeclarations } from '../../sheet/parseSheet.ts';
import type { Declaration } from '../../sheet/sheet.ts';
import type { FileEdits } from '../../source/changeSet.ts';
import { lineEndOf } from '../../source/lineEnds.ts';
import type { SiteFile } from '../../source/site.ts';
import { siteBase } from '../../values/urls.ts';
import { asciiText, closingText } from './printRule.ts';
import type { RuleStyle } from './ruleStyle.ts';

/** A rule in place of style attributes that say the same. */
export interface AttributeRule {
  readonly selector: string;
  /** What they say, its addresses counted from the sheet. */
  readonly text: string;
  /** All its declarations are made important. */
  readonly important: boolean;
}

/** What a style attribute declares, without what every browser drops. */
export const keptIn = (text: string): readonly Declaration[] =>
  compileBlock(parseDeclarations(text), { base: siteBase(''), fingerprint: undefined })
    .declarations.filter(({ longhands }) => longhands.length > 0)
    .map(({ declaration }) => declaration);

export const declarationsOf = ({
  text,
  important,
}: Omit<AttributeRule, 'selector'>): readonly {
  readonly property: string;
  readonly value: string;
  readonly important: boolean;
}[] => keptIn(text).map(({ property, value, ...one }) => ({ property, value, important: important || one.important }));

/** One rule after the other, as the site's authors write rules; only ASCII, so that it reads the same in every encoding. */
export function printRules(rules: readonly AttributeRule[], lineEnd: string, { oneLine, indent }: RuleStyle): string {
  return rules
    .map((one) => {
      const { selector } = one;
      const parts = declarationsOf(one).map(
        ({ property, value, important }) => `${property}: ${value}${important ? ' !important' : ''};`,
      );
      const lines = [`${selector} {`, ...parts.map((part) => indent + part), '}'];
      return asciiText(`${oneLine ? `${selector} { ${parts.join(' ')} }` : lines.join(lineEnd)}${lineEnd}`);
    })
    .join('');
}

/** The rules at the end of a sheet that is there. */
export function appended(
  { path, hash, text = '' }: SiteFile,
  rules: readonly AttributeRule[],
  style: RuleStyle,
): FileEdits {
  const lineEnd = lineEndOf(text);
  const open = closingText(text) ?? '';
  const gap = trimmed(text) === '' ? '' : /[\r\n]$/.test(text) ? lineEnd : lineEnd + lineEnd;
  const written = open + gap + heading(text, lineEnd) + printRules(rules, lineEnd, style);
  return { path, hash, edits: [{ span: { start: text.length, end: text.length }, text: written }] };
}

/** What the rules stand under that were style attributes, where the sheet says other things as well. */
export const attributesHeading = '/* from style attributes */';

const heading = (text: string, lineEnd: string): string =>
  trimmed(text) === '' || text.includes(attributesHeading) ? '' : `${attributesHeading}${lineEnd}${lineEnd}`;
