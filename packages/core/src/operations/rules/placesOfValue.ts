import type { Declaration } from '../../sheet/sheet.ts';
import type { Span } from '../../source/span.ts';
import { comparableValue } from '../../values/comparableValue.ts';
import { valueWords } from './valueWords.ts';

/** Where a declaration says the value: as a whole, or as one of its words. A custom property keeps what it says. */
export function placesOfValue({ property, value, valueSpan }: Declaration, wanted: string): readonly Span[] {
  if (property.startsWith('--')) return [];
  const same = (word: string): boolean => comparableValue(property, word) === comparableValue(property, wanted);
  if (same(value)) return [valueSpan];
  return valueWords(value)
    .filter(({ start, end }) => same(value.slice(start, end)))
    .map(({ start, end }) => ({ start: valueSpan.start + start, end: valueSpan.start + end }));
}
