import { nameOfMember, type Any, type Constants } from './scriptTree.ts';

/** Members by which a script gets at sheets, or counts them. */
export const sheetMembers =
  /^(styleSheets|sheet|cssRules|rules|insertRule|addRule|deleteRule|removeRule|adoptedStyleSheets|createStyleSheet|ownerNode|selectedStyleSheetSet|preferredStyleSheetSet|getEntries|getEntriesByType|getEntriesByName)$/;
/** Members that make elements, or give them names or attributes. */
export const makers =
  /^(dataset|hidden|disabled|checked|title|lang|dir|toggleAttribute|removeAttribute|appendChild|insertBefore|replaceChild|removeChild|remove|innerHTML|outerHTML|insertAdjacentHTML|write|writeln|createElement|createElementNS|cloneNode|className|classList|setAttribute|setAttributeNS|id|html|append|prepend|before|after|addClass|toggleClass|attr|setHTMLUnsafe|createContextualFragment|parseFromString|importNode)$/;
/** Steps by place. */
export const places =
  /^(children|childNodes|childElementCount|(first|last)(Element)?Child|(next|previous)(Element)?Sibling)$/;
/** Lists of the document whose members are looked up by name or number. */
const collections = /^(images|forms|links|anchors|all|elements|layers|options|applets|embeds|frames|rows|cells)$/;

/** What tells of all attributes of an element. */
export const wholeElement = /^(attributes|getAttributeNames|hasAttributes|isEqualNode|serializeToString|getHTML)$/;

/** A member by number, of a list of the document, or of a list or table the script made itself. */
export function isPlainLookup({ object, property }: Any, constants: Constants): boolean {
  if (constants.isNumber(property!)) return true;
  if (object!.type === 'MemberExpression') {
    const name = nameOfMember(object!, constants);
    return name !== undefined && collections.test(name);
  }
  if (object!.type !== 'Identifier') return object!.type === 'ArrayExpression' || object!.type === 'ObjectExpression';
  return /^(document|arguments)$/.test(object!.name!) || constants.isOwnList(object!.name!);
}
