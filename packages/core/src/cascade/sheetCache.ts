import { declaredCharset, isAscii } from '../source/sheetEncoding.ts';
import { byteOrderMark } from '../source/pageEncoding.ts';
import type { Site, SiteFile } from '../source/site.ts';
import { folderOf } from '../source/sitePath.ts';
import { decodeText, encodingName } from '../source/textCoding.ts';
import { parseDeclarations, parseSheet } from '../sheet/parseSheet.ts';
import { siteBase, type Base } from '../values/urls.ts';
import { compileBlock } from './compileBlock.ts';
import { compileSheet } from './compileSheet.ts';
import type { CompiledBlock, CompiledSheet } from './compiledRule.ts';

/**
 * Compiled sheets, blocks and style attributes, shared by all pages of one or two states of a site: equal text with equal
 * base is compiled once. Holds no site, so one cache serves before and after.
 */
export class SheetCache {
  private readonly sheets = new Map<string, CompiledSheet>();
  private readonly blocks = new Map<string, CompiledSheet>();
  private compiled = 0;
  private readonly attributes = new Map<string, CompiledBlock>();
  private readonly fingerprints: ReadonlyMap<string, string> | undefined;

  /** `fingerprints`: for files whose bytes differ between two states, a mark per state, so that references to them differ. */
  constructor(fingerprints?: ReadonlyMap<string, string>) {
    this.fingerprints = fingerprints;
  }

  /** A sheet file read with the page's encoding as its environment; undefined when there is no such sheet. */
  file(site: Site, path: string, environmentEncoding: string): CompiledSheet | undefined {
    const file = site.files.get(path);
    if (file?.kind !== 'sheet' || file.isTooMuch) return undefined;
    const encoding = this.encodingOf(file, environmentEncoding);
    return this.text(this.sheets, `${file.hash} ${encoding}`, siteBase(path), () => decodeText(file.bytes, encoding));
  }

  /** In which encoding a sheet is read where the page, the link or the importing sheet says this one. */
  encodingOf(file: SiteFile, environment: string): string {
    return encodingFor(file, encodingName(environment) ?? 'windows-1252');
  }

  embedded(text: string, base: Base): CompiledSheet {
    return this.text(this.blocks, text, base, () => text);
  }

  /** Lets go of embedded blocks, which few pages share. */
  forgetEmbedded(): void {
    this.blocks.clear();
  }

  styleAttribute(value: string, base: Base): CompiledBlock {
    const key = `${baseKey(base)}\n${value}`;
    let known = this.attributes.get(key);
    if (!known) {
      known = compileBlock(parseDeclarations(value), { base, fingerprint: this.fingerprint });
      this.attributes.set(key, known);
    }
    return known;
  }

  private text(sheets: Map<string, CompiledSheet>, contentKey: string, base: Base, read: () => string): CompiledSheet {
    const key = `${baseKey(base)}\n${contentKey}`;
    let known = sheets.get(key);
    if (!known) {
      const context = { base, fingerprint: this.fingerprint };
      known = compileSheet(parseSheet(read()), this.compiled++, context);
      sheets.set(key, known);
    }
    return known;
  }

  /** Of all files whose bytes differ: for what may name any of them. */
  marks(): string {
    return this.fingerprints ? [...this.fingerprints].join(' ') : '';
  }

  private readonly fingerprint = (path: string): string => this.fingerprints?.get(path) ?? '';
}

/** Relative references count from the folder, so sheets in one folder share what they compile to. */
const baseKey = (base: Base): string => (base.kind === 'site' ? folderOf(base.path) : `remote ${base.url}`);

const ownEncodings = new WeakMap<SiteFile, string | null>();

/** CSS Syntax 3, "The input byte stream". Pure ASCII reads the same in every encoding we know. */
function encodingFor(file: SiteFile, environment: string): string {
  let own = ownEncodings.get(file);
  if (own === undefined) {
    own = byteOrderMark(file.bytes) ?? declaredCharset(file.bytes) ?? (isAscii(file.bytes) ? 'utf-8' : null);
    ownEncodings.set(file, own);
  }
  if (/^utf-16/.test(environment)) return byteOrderMark(file.bytes) ?? declaredCharset(file.bytes) ?? environment;
  return own ?? environment;
}
