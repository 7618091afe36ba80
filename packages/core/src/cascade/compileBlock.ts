import { folderOf } from '../source/sitePath.ts';
import { urlReferences } from '../sheet/urlReferences.ts';
import type { Declaration } from '../sheet/sheet.ts';
import { comparableValue } from '../values/comparableValue.ts';
import { declarationValidity } from '../values/declarationValidity.ts';
import { longhandsOf } from '../values/longhands.ts';
import { resolveReference, type Base, type Target } from '../values/urls.ts';
import type { CompiledBlock, CompiledDeclaration } from './compiledRule.ts';

/** Where references count from, and a mark for files whose contents differ between the two states compared. */
export interface BlockContext {
  readonly base: Base;
  readonly fingerprint: ((path: string) => string) | undefined;
}

/** A block whose declarations are made ready when somebody asks: most rules reach nothing on most pages. */
export function compileBlock(declarations: readonly Declaration[], context: BlockContext): CompiledBlock {
  return new LazyBlock(declarations, context);
}

class LazyBlock implements CompiledBlock {
  readonly varFolder: string | undefined;
  readonly definesReference: boolean;
  private compiled: readonly CompiledDeclaration[] | undefined;
  private text: string | undefined;
  private readonly written: readonly Declaration[];
  private readonly context: BlockContext;

  constructor(written: readonly Declaration[], context: BlockContext) {
    this.written = written;
    this.context = context;
    const { base } = context;
    const folder = base.kind === 'site' ? folderOf(base.path) : base.url;
    this.varFolder = written.some((d) => usesVar(d.value)) ? folder : undefined;
    this.definesReference = written.some((d) => d.property.startsWith('--') && /(url|src|image-set)\(/i.test(d.value));
  }

  get declarations(): readonly CompiledDeclaration[] {
    return (this.compiled ??= this.written.map((declaration) => compileDeclaration(declaration, this.context)));
  }

  get key(): string {
    return (this.text ??= this.declarations
      .map((c) => `${c.declaration.property}:${c.comparable}${c.declaration.important ? '!' : ''}`)
      .join(';'));
  }

  get isEmpty(): boolean {
    return this.written.length === 0;
  }
}

const usesVar = (value: string): boolean => /(^|[^-\w])var\(/i.test(value);

function compileDeclaration(declaration: Declaration, context: BlockContext): CompiledDeclaration {
  const { property, value } = declaration;
  const comparable = resolved(comparableValue(property, value), property, context);
  return {
    declaration,
    longhands: property === 'all' ? ['all'] : longhandsOf(property),
    comparable,
    validity: declarationValidity(property, value),
    yields: /^revert(-layer)?$/.test(comparable),
  };
}

/** The value with each reference replaced by what it points at, so that a moved rule compares equal to itself. */
function resolved(comparable: string, property: string, context: BlockContext): string {
  // a relative reference in a custom property counts from the sheet that uses it: see CompiledBlock.varFolder
  if (property.startsWith('--') || !/(url|src|image-set)\(/i.test(comparable)) return comparable;
  let out = '';
  let done = 0;
  for (const { reference, span } of urlReferences(comparable)) {
    const target = resolveReference(reference, context.base);
    out += `${comparable.slice(done, span.start)}url(${targetKey(target, context)})`;
    done = span.end;
  }
  // url("x") has its quotes inside the parentheses: the spans above cover the string, so fold the double form
  return (out + comparable.slice(done)).replace(/url\(\s*url\(([^)]*)\)\s*\)/gi, 'url($1)');
}

export function targetKey(target: Target, context: BlockContext): string {
  switch (target.kind) {
    case 'site':
      return `/${target.path}${target.suffix}${context.fingerprint?.(target.path) ?? ''}`;
    case 'remote':
    case 'data':
      return target.url;
    case 'local':
      return target.fragment;
    case 'outside':
      // it climbs, so that of the page or sheet itself only the folder counts
      return `outside ${target.reference} from ${folderOf(context.base.kind === 'site' ? context.base.path : context.base.url)}`;
    case 'empty':
      return '';
  }
}
