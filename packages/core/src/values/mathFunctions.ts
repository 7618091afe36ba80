import { tableOf } from '../source/tableOf.ts';
import { lowered } from '../source/asciiCase.ts';
import { tokenize, tokenTypes as T } from './cssTokens.ts';

/** The type a calculation has; `length-percentage` where the two are added up. */
type NumericType =
  | 'number'
  | 'length'
  | 'percentage'
  | 'length-percentage'
  | 'angle'
  | 'time'
  | 'frequency'
  | 'resolution'
  | 'flex';

const samples: Readonly<Record<NumericType, readonly string[]>> = {
  number: ['1'],
  length: ['1px'],
  percentage: ['1%'],
  'length-percentage': ['1px', '1%'],
  angle: ['1deg'],
  time: ['1s'],
  frequency: ['1hz'],
  resolution: ['1dppx'],
  flex: ['1fr'],
};

const units: Readonly<Record<string, NumericType>> = tableOf({
  deg: 'angle',
  grad: 'angle',
  rad: 'angle',
  turn: 'angle',
  s: 'time',
  ms: 'time',
  hz: 'frequency',
  khz: 'frequency',
  dpi: 'resolution',
  dpcm: 'resolution',
  dppx: 'resolution',
  x: 'resolution',
  fr: 'flex',
});

export const hasMath = (value: string): boolean => /(^|[^-\w])(-webkit-)?(calc|min|max|clamp)\(/i.test(value);

/**
 * The value with each calculation replaced by a plain number of its type, once per type it may have: a grammar that takes all
 * of them takes the calculation. Undefined when a calculation has no type or cannot be read here.
 *
 * CSS Values and Units 4, "Type Checking" of math functions.
 */
export function withoutMath(value: string): readonly string[] | undefined {
  const tokens: Token[] = [];
  tokenize(value, (type: number, start: number, end: number) => {
    if (type !== T.Comment) tokens.push({ type, text: value.slice(start, end) });
  });
  let variants = [''];
  for (let i = 0; i < tokens.length;) {
    const token = tokens[i]!;
    let parts: readonly string[] = [token.text];
    if (token.type === T.Function && isMath(token.text)) {
      const reader = new Calculation(tokens, i);
      const type = reader.functionType();
      if (!type) return undefined;
      parts = samples[type];
      i = reader.at;
    } else i++;
    variants = variants.flatMap((text) => parts.map((part) => text + part));
    if (variants.length > 16) return undefined;
  }
  return variants;
}

interface Token {
  readonly type: number;
  readonly text: string;
}

const isMath = (text: string): boolean => /^(-webkit-)?(calc|min|max|clamp)\($/i.test(text);

/** Deeper calculations count as unreadable. */
const maxDepth = 100;

class Calculation {
  at: number;
  private depth = 0;
  private readonly tokens: readonly Token[];

  constructor(tokens: readonly Token[], at: number) {
    this.tokens = tokens;
    this.at = at;
  }

  functionType(): NumericType | undefined {
    const name = lowered(this.tokens[this.at++]!.text).replace('-webkit-', '');
    const types: (NumericType | undefined)[] = [];
    do {
      this.space();
      types.push(this.sum());
      this.space();
    } while (this.is(T.Comma) && this.at++ >= 0);
    if (this.at < this.tokens.length && !(this.is(T.RightParenthesis) && this.at++ >= 0)) return undefined;
    if (name === 'calc(' && types.length !== 1) return undefined;
    if (name === 'clamp(' && types.length !== 3) return undefined;
    return types.reduce((a, b) => added(a, b));
  }

  private sum(): NumericType | undefined {
    if (++this.depth > maxDepth) return undefined;
    const type = this.sumOfProducts();
    this.depth--;
    return type;
  }

  private sumOfProducts(): NumericType | undefined {
    let type = this.product();
    for (;;) {
      const mark = this.at;
      const spaced = this.space();
      const sign = this.tokens[this.at];
      if (sign?.type !== T.Delim || !/[+-]/.test(sign.text)) {
        this.at = mark;
        return type;
      }
      this.at++;
      if (!spaced || !this.space()) return undefined;
      type = added(type, this.product());
    }
  }

  private product(): NumericType | undefined {
    let type = this.operand();
    for (;;) {
      const mark = this.at;
      this.space();
      const sign = this.tokens[this.at];
      if (sign?.type !== T.Delim || !/[*/]/.test(sign.text)) {
        this.at = mark;
        return type;
      }
      this.at++;
      this.space();
      const right = this.operand();
      if (!type || !right) return undefined;
      if (right === 'number') continue;
      if (sign.text === '/' || type !== 'number') return undefined;
      type = right;
    }
  }

  private operand(): NumericType | undefined {
    const token = this.tokens[this.at];
    if (!token) return undefined;
    if (token.type === T.Function && isMath(token.text)) return this.functionType();
    this.at++;
    switch (token.type) {
      case T.Number:
        return 'number';
      case T.Percentage:
        return 'percentage';
      case T.Dimension:
        return units[lowered(/[a-z]+$/i.exec(token.text)?.[0] ?? '')] ?? 'length';
      case T.Ident:
        return /^(e|pi|-?infinity|nan)$/i.test(token.text) ? 'number' : undefined;
      case T.LeftParenthesis: {
        this.space();
        const inner = this.sum();
        this.space();
        if (this.at < this.tokens.length && !(this.is(T.RightParenthesis) && this.at++ >= 0)) return undefined;
        return inner;
      }
      default:
        return undefined;
    }
  }

  private space(): boolean {
    const from = this.at;
    while (this.is(T.WhiteSpace)) this.at++;
    return this.at > from;
  }

  private is(type: number): boolean {
    return this.tokens[this.at]?.type === type;
  }
}

function added(a: NumericType | undefined, b: NumericType | undefined): NumericType | undefined {
  if (a === b) return a;
  const both = new Set([a, b]);
  both.delete('length-percentage');
  const mixes = [...both].every((t) => t === 'length' || t === 'percentage');
  return mixes ? 'length-percentage' : undefined;
}
