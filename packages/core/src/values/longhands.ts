import { lowered } from '../source/asciiCase.ts';
import { inheritedLonghands, longhandNames, longhandsOfShorthand } from './propertyTable.ts';

const known = new Set(longhandNames);
const expanded = new Map<string, readonly string[]>(
  Object.entries(longhandsOfShorthand).map(([name, list]) => [name, list.split(' ')]),
);

export type PropertyKind = 'longhand' | 'shorthand' | 'all' | 'custom' | 'unknown';

/** A property name as it is compared: custom properties by exact name, others in lower case. */
export const propertyName = (name: string): string => (name.startsWith('--') ? name : lowered(name));

export function propertyKind(name: string): PropertyKind {
  if (name.startsWith('--')) return 'custom';
  if (name === 'all') return 'all';
  if (expanded.has(name)) return 'shorthand';
  return known.has(name) ? 'longhand' : 'unknown';
}

/**
 * The longhands a property sets, reset-only ones included: itself for a longhand or custom property, none for an unknown one
 * and for `all`, which callers treat apart. Legacy names give the longhands they stand for (`word-wrap` → `overflow-wrap`).
 */
export function longhandsOf(name: string): readonly string[] {
  const list = expanded.get(name);
  if (list) return list;
  return name.startsWith('--') || known.has(name) ? [name] : [];
}

/** Every longhand that `all` sets. */
export const longhandsForAll: readonly string[] = longhandNames.filter((name) => !isOutsideAll(name));

/** CSS Cascading and Inheritance Level 5, "Resetting All Properties: the all property". */
export function isOutsideAll(longhand: string): boolean {
  return longhand === 'direction' || longhand === 'unicode-bidi' || longhand.startsWith('--');
}

export const isInherited = (longhand: string): boolean => longhand.startsWith('--') || inheritedLonghands.has(longhand);

/**
 * The physical longhands a flow-relative one may land on, depending on writing mode and direction; empty for others.
 *
 * CSS Logical Properties and Values Level 1, "Flow-Relative Box Model Properties".
 */
export function physicalCounterparts(longhand: string): readonly string[] {
  let list = counterparts.get(longhand);
  if (list === undefined) counterparts.set(longhand, (list = findCounterparts(longhand)));
  return list;
}

const counterparts = new Map<string, readonly string[]>();
const corners = ['top-left', 'top-right', 'bottom-right', 'bottom-left'];
const sides = ['top', 'right', 'bottom', 'left'];

function findCounterparts(name: string): readonly string[] {
  if (/(^|-)(block|inline)-size$/.test(name)) {
    const prefix = name.replace(/(block|inline)-size$/, '');
    return [`${prefix}width`, `${prefix}height`];
  }
  const corner = /^(border|corner)-(?:start|end)-(?:start|end)-(radius|shape)$/.exec(name);
  if (corner) return corners.map((at) => `${corner[1]!}-${at}-${corner[2]!}`);
  if (/^(overflow|overscroll-behavior)-(block|inline)$/.test(name))
    return ['x', 'y'].map((axis) => name.replace(/(block|inline)$/, axis));
  if (/^inset-(block|inline)-(start|end)$/.test(name)) return sides;
  if (/-(block|inline)-(start|end)(-|$)/.test(name))
    return sides.map((side) => name.replace(/-(block|inline)-(start|end)/, `-${side}`)).filter((n) => known.has(n));
  return [];
}
