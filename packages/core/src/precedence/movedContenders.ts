import type { CompiledDeclaration, CompiledRule } from '../cascade/compiledRule.ts';
import type { Contender } from '../cascade/contenders.ts';
import type { Declaration } from '../sheet/sheet.ts';
import type { Span } from '../source/span.ts';
import type { SheetMoves } from '../survey/sheetMoves.ts';

type ByName = ReadonlyMap<string, readonly Contender[]>;

/** Declarations of sheets taken along to where these have them now; a rule that moved stays one object. */
export class MovedContenders {
  private readonly sheets: ReadonlyMap<string, SheetMoves>;
  private readonly rules = new Map<CompiledRule, CompiledRule>();

  constructor(sheets: ReadonlyMap<string, SheetMoves>) {
    this.sheets = sheets;
  }

  /** The same map where none of them moved. */
  of(byName: ByName): ByName {
    let isMoved = false;
    const out = new Map<string, readonly Contender[]>();
    for (const [name, contenders] of byName)
      out.set(
        name,
        contenders.map((one) => {
          const { source, rule, compiled } = one;
          const moves = source && source.kind !== 'embedded' ? this.sheets.get(source.path) : undefined;
          const by = rule && moves?.by(rule.rule.span.start);
          if (!by) return one;
          isMoved = true;
          return { ...one, rule: this.moved(rule, by), compiled: movedCompiled(compiled, by) };
        }),
      );
    return isMoved ? out : byName;
  }

  private moved(compiled: CompiledRule, by: number): CompiledRule {
    let known = this.rules.get(compiled);
    if (!known) {
      const { rule } = compiled;
      const declarations = rule.declarations.map((one) => movedDeclaration(one, by));
      const own = {
        ...rule,
        declarations,
        span: movedSpan(rule.span, by),
        selectorSpan: movedSpan(rule.selectorSpan, by),
      };
      this.rules.set(compiled, (known = { ...compiled, rule: own }));
    }
    return known;
  }
}

const movedSpan = ({ start, end }: Span, by: number): Span => ({ start: start + by, end: end + by });

const movedDeclaration = (one: Declaration, by: number): Declaration => ({
  ...one,
  span: movedSpan(one.span, by),
  valueSpan: movedSpan(one.valueSpan, by),
});

const movedCompiled = (one: CompiledDeclaration, by: number): CompiledDeclaration => ({
  ...one,
  declaration: movedDeclaration(one.declaration, by),
});
