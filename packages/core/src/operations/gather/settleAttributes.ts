import { Type } from '@sinclair/typebox';
import { count } from '../../checks/words.ts';
import { offsetInAttribute } from '../../page/attributeText.ts';
import type { ElementNode } from '../../page/nodes.ts';
import { parseFile } from '../../page/parsePage.ts';
import type { FileEdits } from '../../source/changeSet.ts';
import { fail, succeed } from '../../source/result.ts';
import { pagesOf } from '../../source/site.ts';
import type { Edit } from '../../source/span.ts';
import { attributeLook } from '../../survey/attributeLooks.ts';
import { closed, fields, operationType, type ProblemSentences } from '../operationType.ts';

/** Style attributes that differ in one value say the same from now on. Their elements may look different. */
export interface SettleAttributes {
  readonly kind: 'settle-attributes';
  readonly tag: string;
  /** What the attributes say now, `padding-left: 6px; top: 0`, by property. */
  readonly looks: readonly string[];
  readonly property: string;
  /** What that property is to be. */
  readonly value: string;
  readonly pages: readonly string[];
}

export type SettleAttributesProblem =
  | { readonly kind: 'value-not-plain'; readonly value: string }
  | { readonly kind: 'no-attribute-to-settle'; readonly property: string };

export const settleAttributes = operationType<SettleAttributes, SettleAttributesProblem>()({
  kind: 'settle-attributes',
  choosesLook: true,
  schema: Type.Object(
    {
      kind: Type.Literal('settle-attributes'),
      tag: Type.String({ maxLength: 100 }),
      looks: Type.Array(Type.String(), { minItems: 1, maxItems: 1000 }),
      property: Type.String({ maxLength: 100 }),
      value: Type.String({ maxLength: 1000 }),
      pages: fields.pages,
    },
    closed,
  ),
  plan(site, { tag, looks, property, value, pages }) {
    // it stands between quotes of either kind, in a declaration
    if (!/^[\w.,%#()+\- ]+$/.test(value)) return fail({ kind: 'value-not-plain', value });
    const [wanted, from] = [new Set(pages), new Set(looks)];
    const edited: FileEdits[] = [];
    let elements = 0;
    for (const file of pagesOf(site)) {
      if (!wanted.has(file.path) || file.text === undefined) continue;
      const edits = parseFile(file).elements.flatMap((element) => {
        if (element.tag !== tag) return [];
        const look = attributeLook(element);
        const said = look && from.has(look.key) ? look.declarations.find((d) => d.property === property) : undefined;
        return said && said.value !== value ? valueEdit(file.text!, element, said.valueSpan, value) : [];
      });
      elements += edits.length;
      if (edits.length > 0) edited.push({ path: file.path, hash: file.hash, edits });
    }
    if (edited.length === 0) return fail({ kind: 'no-attribute-to-settle', property });
    const sentence = `Let ${count(elements, 'style attribute')} of ${tag} say ${property}: ${value} as well`;
    return succeed({ changes: { created: [], edited, deleted: [] }, sentence });
  },
  problems: {
    'value-not-plain': ({ value }) =>
      `“${value}” cannot be put into style attributes. Letters, digits, spaces and . , % # ( ) + - are allowed.`,
    'no-attribute-to-settle': ({ property }) =>
      `No style attribute on these pages says ${property} in one of these ways any more.`,
  } satisfies ProblemSentences<SettleAttributesProblem>,
});

function valueEdit(
  text: string,
  element: ElementNode,
  value: { readonly start: number; readonly end: number },
  now: string,
): readonly Edit[] {
  const span = element.attributeSpans?.['style'];
  if (!span) return [];
  const written = text.slice(span.startOffset, span.endOffset);
  const [start, end] = [value.start, value.end].map((at) => span.startOffset + offsetInAttribute(written, at));
  return [{ span: { start: start!, end: end! }, text: now }];
}
