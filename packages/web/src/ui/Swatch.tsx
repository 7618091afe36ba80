/** A small square of a colour an author wrote. */
export const Swatch = ({ colour }: { readonly colour: string }) => (
  <span className="sw" style={{ backgroundColor: colour }} aria-hidden="true" />
);

/** The colours written in a value, in order. */
export const coloursIn = (value: string): readonly string[] =>
  value.match(/#[0-9a-f]{3,8}\b|(?:rgb|hsl)a?\([^)]*\)/gi)?.filter((colour) => CSS.supports('color', colour)) ?? [];
