import { execFile } from 'node:child_process';
import net from 'node:net';
import { text } from 'node:stream/consumers';
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

/** What Debian's Chromium answers, one answer per question: by the host that `npm test` keeps, or in a process of its own. */
export async function askChromium(questions: readonly Question[]): Promise<readonly unknown[]> {
  const socket = process.env['CHROMIUM_SOCKET'];
  if (socket !== undefined) return askHost(socket, questions);
  const run = promisify(execFile)(process.execPath, [script], { maxBuffer: 1e8, encoding: 'utf8' });
  run.child.stdin!.end(JSON.stringify(questions));
  const { stdout } = await run;
  return JSON.parse(stdout) as readonly unknown[];
}

async function askHost(path: string, questions: readonly Question[]): Promise<readonly unknown[]> {
  const socket = net.connect(path);
  socket.end(JSON.stringify({ worker: process.env['JEST_WORKER_ID'] ?? '', questions }));
  const { answers, error } = JSON.parse(await text(socket)) as { answers?: readonly unknown[]; error?: string };
  if (!answers) throw new Error(error);
  return answers;
}
