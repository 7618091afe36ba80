import { execFile } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';

const script = fileURLToPath(new URL('./askChromium.mjs', import.meta.url));

export interface Question {
  /** The page's text; `files` are served beside it. */
  readonly html?: string;
  /** The page as bytes in Base64, in its own encoding, in place of `html`. */
  readonly bytes?: string;
  /** Where the page stands; the root when absent. */
  readonly path?: string;
  readonly files?: Readonly<Record<string, string>>;
  /** Sheets as bytes in Base64, where their encoding matters. */
  readonly fileBytes?: Readonly<Record<string, string>>;
  readonly width?: number;
  readonly media?: 'screen' | 'print';
  /** Evaluated in the page; the result comes back as JSON. */
  readonly ask: string;
}

/** What Debian's Chromium answers, one answer per question; run in a process of its own. */
export async function askChromium(questions: readonly Question[]): Promise<readonly unknown[]> {
  const run = promisify(execFile)(process.execPath, [script], { maxBuffer: 1e8, encoding: 'utf8' });
  run.child.stdin!.end(JSON.stringify(questions));
  const { stdout } = await run;
  return JSON.parse(stdout) as readonly unknown[];
}
