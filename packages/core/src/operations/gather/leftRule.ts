import type { StayReason } from '../../survey/blockUnits.ts';

/** A rule that was asked for and stays in its page. */
export interface LeftRule {
  readonly page: string;
  readonly label: string;
  readonly family: string;
  readonly reason: StayReason | 'order-conflict' | 'no-scope';
}
