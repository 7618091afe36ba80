/** A property by the name an author would call it, with the control that fits what it takes. */
export type FormProperty = {
  readonly name: string;
  readonly label: string;
  /** What it says when it is chosen. */
  readonly first: string;
} & (
  | { readonly control: 'colour' | 'length' | 'font' | 'text' }
  | { readonly control: 'choice'; readonly choices: readonly string[] }
);

export const units = ['px', 'em', 'rem', '%', 'ch', 'vw', 'vh', 'pt'];

const colour = (name: string, label: string): FormProperty => ({ name, label, first: '#000000', control: 'colour' });
const length = (name: string, label: string, first = '1em'): FormProperty => ({
  name,
  label,
  first,
  control: 'length',
});
const choice = (name: string, label: string, choices: readonly string[]): FormProperty => ({
  name,
  label,
  first: choices[0]!,
  control: 'choice',
  choices,
});
const text = (name: string, label: string, first: string): FormProperty => ({ name, label, first, control: 'text' });

/** What hand-written pages say most. Common practice. */
export const formProperties: readonly FormProperty[] = [
  colour('color', 'Text colour'),
  colour('background-color', 'Background colour'),
  { name: 'font-family', label: 'Font', first: 'serif', control: 'font' },
  length('font-size', 'Text size'),
  choice('font-weight', 'Text weight', ['normal', 'bold', '600', '700']),
  choice('font-style', 'Text slant', ['normal', 'italic']),
  text('line-height', 'Line height', '1.5'),
  choice('text-align', 'Text stands', ['left', 'center', 'right', 'justify']),
  choice('text-decoration', 'Text line', ['none', 'underline', 'line-through']),
  choice('text-transform', 'Capitals', ['none', 'uppercase', 'lowercase', 'capitalize']),
  length('letter-spacing', 'Space between letters', '0.02em'),
  ...['top', 'right', 'bottom', 'left'].map((side) => length(`margin-${side}`, `Space outside, ${side}`)),
  ...['top', 'right', 'bottom', 'left'].map((side) => length(`padding-${side}`, `Space inside, ${side}`)),
  text('margin', 'Space outside, all sides', '1em'),
  text('padding', 'Space inside, all sides', '1em'),
  text('border', 'Border', '1px solid #000000'),
  length('border-radius', 'Round corners', '4px'),
  length('width', 'Width', '100%'),
  length('max-width', 'Width at most', '40em'),
  length('height', 'Height', '10em'),
  choice('display', 'Shown as', ['block', 'inline', 'inline-block', 'flex', 'grid', 'none']),
  choice('float', 'Floats', ['none', 'left', 'right']),
  choice('clear', 'Below floats', ['none', 'left', 'right', 'both']),
  choice('list-style-type', 'List marks', ['disc', 'circle', 'square', 'decimal', 'none']),
];

/** A number with its unit; undefined for anything else. */
export function lengthParts(value: string): { readonly number: string; readonly unit: string } | undefined {
  const found = /^(-?(?:\d+\.?\d*|\.\d+))(px|em|rem|%|ch|vw|vh|pt)$/i.exec(value.trim());
  return found ? { number: found[1]!, unit: found[2]!.toLowerCase() } : undefined;
}
