import { parseSheet } from '../sheet/parseSheet.ts';
import type { Sheet } from '../sheet/sheet.ts';
import type { Site } from '../source/site.ts';
import { resolveReference, siteBase, type Target } from '../values/urls.ts';
import { countDeclarations, countRules } from './countRules.ts';
import type { SurveySource } from './survey.ts';

type ReadSource = Pick<SurveySource, 'kind' | 'target' | 'problem' | 'rules' | 'declarations' | 'bytes'>;

/** Sheets that import each other doubly would be told of by the million; nobody reads more of one page than this. */
const mostSources = 2000;

/** The sheets of a site, parsed once. */
export class SheetReader {
  private readonly known = new Map<string, { sheet: Sheet; rules: number; declarations: number; bytes: number }>();
  private readonly site: Site;
  private readonly lowerCase: ReadonlyMap<string, string>;

  constructor(site: Site) {
    this.site = site;
    this.lowerCase = new Map([...site.files.keys()].map((path) => [path.toLowerCase(), path]));
  }

  read(path: string): { sheet: Sheet; rules: number; declarations: number; bytes: number } | undefined {
    const file = this.site.files.get(path);
    if (!file || file.kind !== 'sheet') return undefined;
    let known = this.known.get(path);
    if (!known) {
      const sheet = parseSheet(file.text ?? '');
      known = {
        sheet,
        rules: countRules(sheet.rules),
        declarations: countDeclarations(sheet.rules),
        bytes: file.size,
      };
      this.known.set(path, known);
    }
    return known;
  }

  /** A sheet and all it imports, in order of appearance: imports first. */
  withImports(target: Target, reference: string, kind: 'linked' | 'imported'): readonly ReadSource[] {
    const out: ReadSource[] = [];
    this.collect(target, reference, kind, [], out);
    return out;
  }

  private collect(
    target: Target,
    reference: string,
    kind: 'linked' | 'imported',
    chain: readonly string[],
    out: ReadSource[],
  ): void {
    const path = target.kind === 'site' ? target.path : undefined;
    const read = path === undefined ? undefined : this.read(path);
    if (!read || path === undefined) {
      const problem = path === undefined ? 'remote' : this.lowerCase.has(path.toLowerCase()) ? 'wrong-case' : 'missing';
      out.push({ kind, target: reference, problem, rules: 0, declarations: 0, bytes: 0 });
      return;
    }
    for (const rule of read.sheet.rules) {
      if (rule.kind !== 'import' || chain.includes(path) || out.length >= mostSources) continue;
      const next = resolveReference(rule.reference, siteBase(path));
      this.collect(next, rule.reference, 'imported', [...chain, path], out);
    }
    out.push({
      kind,
      target: path,
      problem: undefined,
      rules: read.rules,
      declarations: read.declarations,
      bytes: read.bytes,
    });
  }
}
