import { Refusal } from '../../http/refusal.ts';

/** A revision's number as an address names it. */
export function revisionNumber(text: string): number {
  if (/^[1-9]\d{0,8}$/.test(text)) return Number(text);
  throw new Refusal('revision-not-found', `${text} is no revision number. Numbers from 1 are allowed.`);
}
