import { lowered } from '../source/asciiCase.ts';
import { conditionsHold } from '../cascade/conditions.ts';
import type { Contender } from '../cascade/contenders.ts';
import type { Environment } from '../cascade/environment.ts';
import { initial, ownOutcome, type OwnOutcome } from '../cascade/ownOutcome.ts';
import { isFlowFree } from '../cascade/pageOutcomes.ts';
import { flowOf, slotOf, type Flow } from '../values/logicalSlot.ts';
import type { Kind, KindTable } from './kindTable.ts';

/** Where the value of an element comes from. */
export interface KeptOutcome {
  readonly own: OwnOutcome;
  /** How many ancestors up the element stands that has it of its own. */
  readonly up: number;
  /** The kind of that element. */
  readonly kind: Kind;
}

const plainFlow = flowOf('initial', 'initial');

/** What each longhand of the site's elements comes from in one environment. */
export class OutcomesIn {
  private readonly inPlay = new Map<Kind, Map<string, readonly Contender[]>>();
  private readonly columns = new Map<string, (OwnOutcome | null | undefined)[]>();
  private readonly found = new Map<string, (KeptOutcome | undefined)[]>();
  private readonly table: KindTable;
  private readonly environment: Environment;
  private readonly flows: boolean;

  constructor(table: KindTable, environment: Environment) {
    this.table = table;
    this.environment = environment;
    this.flows = table.flows;
  }

  /** The declarations of a kind that count here, strongest first. */
  contendersOf(kind: Kind, pseudoElement = ''): readonly Contender[] {
    let byName = this.inPlay.get(kind);
    if (!byName) this.inPlay.set(kind, (byName = new Map<string, readonly Contender[]>()));
    let known = byName.get(pseudoElement);
    if (!known) {
      const all = kind.contenders.get(pseudoElement) ?? [];
      known = all.filter((one) => conditionsHold(one.conditions, this.environment) === true);
      byName.set(pseudoElement, known);
    }
    return known;
  }

  /** Of an element with this row of kinds. */
  outcomeOf(chain: number, longhand: string, pseudoElement = ''): KeptOutcome {
    const key = pseudoElement === '' ? longhand : `${longhand} ${pseudoElement}`;
    let column = this.found.get(key);
    if (!column) this.found.set(key, (column = []));
    return (column[chain] ??= this.find(chain, longhand, pseudoElement));
  }

  private find(chain: number, longhand: string, pseudoElement: string): KeptOutcome {
    const kind = this.table.kindOfChain(chain);
    const flow = isFlowFree(longhand) || !this.flows ? plainFlow : this.flowOf(chain);
    const own = this.ownOf(kind, longhand, pseudoElement, flow);
    if (own) return { own, up: 0, kind };
    // a pseudo-element inherits from its element
    const steps = pseudoElement === '' ? this.stepsToParent(chain, longhand) : 0;
    let parent = chain;
    for (let i = 0; i < steps && parent >= 0; i++) parent = this.table.parentChain(parent);
    if (parent < 0) return { own: initial(longhand), up: 0, kind };
    const outcome = this.outcomeOf(parent, slotOf(longhand, flow));
    return outcome.own.kind === 'initial' ? { ...outcome, up: 0 } : { ...outcome, up: outcome.up + Math.max(steps, 1) };
  }

  /** Quirks Mode Standard, "The tables inherit color from body quirk". */
  private stepsToParent(chain: number, longhand: string): number {
    const kind = this.table.kindOfChain(chain);
    if (!kind.quirks || longhand !== 'color' || kind.tag !== 'table') return 1;
    let steps = 1;
    for (let at = this.table.parentChain(chain); at >= 0; at = this.table.parentChain(at), steps++)
      if (this.table.kindOfChain(at).tag === 'body') return steps;
    return 1;
  }

  /** How text runs on an element. */
  private flowOf(chain: number): Flow {
    return flowOf(this.keyword(chain, 'writing-mode'), this.keyword(chain, 'direction'));
  }

  private keyword(chain: number, longhand: 'direction' | 'writing-mode'): string {
    for (let at = chain; at >= 0; at = this.table.parentChain(at)) {
      const kind = this.table.kindOfChain(at);
      if (longhand === 'direction' && kind.auto !== undefined) return kind.auto;
      const own = this.ownOf(kind, longhand, '', plainFlow);
      if (own?.kind === 'declared') return lowered(own.contender.compiled.comparable);
      if (own) return 'initial';
    }
    return 'initial';
  }

  private ownOf(kind: Kind, longhand: string, pseudoElement: string, flow: Flow): OwnOutcome | undefined {
    const key =
      flow === plainFlow && pseudoElement === ''
        ? longhand
        : `${longhand} ${pseudoElement} ${slotOf('margin-block-start', flow)} ${slotOf('margin-inline-start', flow)}`;
    let column = this.columns.get(key);
    if (!column) this.columns.set(key, (column = []));
    let own = column[kind.number];
    if (own === undefined) {
      const contenders = this.contendersOf(kind, pseudoElement);
      const defaults = kind.defaults.get(pseudoElement) ?? [];
      own =
        ownOutcome({ tag: kind.tag, contenders, defaults, flow: isFlowFree(longhand) ? undefined : flow }, longhand) ??
        null;
      column[kind.number] = own;
    }
    return own ?? undefined;
  }
}
