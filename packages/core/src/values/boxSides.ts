const boxShorthands = /^(margin|padding|inset|border-(width|style|color)|scroll-margin|scroll-padding)$/;

/**
 * What each side gets from a four-sided shorthand, as top, right, bottom, left; undefined for other properties and for values
 * that cannot be parted safely.
 *
 * CSS Box Model 4, "Margin Shorthand"; CSS Backgrounds and Borders 3, "Border Line Width Shorthand".
 */
export function boxSides(property: string, comparable: string): readonly [string, string, string, string] | undefined {
  if (!boxShorthands.test(property) || /[(),/]/.test(comparable)) return undefined;
  const parts = comparable.split(' ');
  const [top, right = top, bottom = top, left = right] = parts;
  if (top === undefined || top === '' || parts.length > 4) return undefined;
  return [top, right!, bottom!, left!];
}
