/** Why a style attribute stays on its element. */
export type AttributeStays =
  | 'script'
  | 'template'
  | 'server'
  | 'not-written'
  | 'drawing'
  | 'unclosed'
  | 'reference'
  | 'policy';

export function describeAttributeStays(reason: AttributeStays): string {
  switch (reason) {
    case 'script':
      return 'a script on this page sets or reads such a style, or the class of the element';
    case 'template':
      return 'a server or template writes into it';
    case 'server':
      return 'a server writes into the page, perhaps a sheet that would beat a class';
    case 'not-written':
      return 'it is not written in a tag of this page, or stands in a formula';
    case 'drawing':
      return 'a drawing reads a value in it that a sheet would not';
    case 'unclosed':
      return 'a bracket or string in it is never closed';
    case 'policy':
      return 'the Content-Security-Policy of the page forbids it, so browsers take nothing from it';
    case 'reference':
      return 'a url() in it cannot be counted from the sheet';
  }
}
