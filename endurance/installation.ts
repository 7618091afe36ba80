import { spawn, type ChildProcess } from 'node:child_process';
import fs from 'node:fs';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { Sequelize } from 'sequelize';

/** What is killed: the server's process, PostgreSQL, one of its connections, the start command, or all of them. */
export const killed = ['server', 'database', 'connection', 'start', 'all'] as const;
export type Victim = (typeof killed)[number];

const root = fileURLToPath(new URL('..', import.meta.url));
const longest = 300_000;

/** `npm start` on a data folder of its own. */
export class Installation {
  readonly origin: string;
  private readonly port: number;
  readonly data: string;
  private readonly temporary: string;
  private running: ChildProcess | undefined;
  private output = '';

  constructor() {
    // where the database's own user can reach it
    const home = fs.mkdtempSync(path.join(process.getuid?.() === 0 ? '/tmp' : os.tmpdir(), 'syndeton-kills-'));
    fs.chmodSync(home, 0o755);
    this.data = path.join(home, 'data');
    this.temporary = path.join(home, 'temporary');
    fs.mkdirSync(this.temporary, { mode: 0o777 });
    this.port = 20_000 + (process.pid % 20_000);
    this.origin = `http://127.0.0.1:${this.port}`;
  }

  /** The last of what was said. */
  lines(): string {
    return this.output.split('\n').slice(-40).join('\n');
  }

  async start(): Promise<void> {
    this.spawn();
    await this.answersAgain();
  }

  /** Begins to start and is killed after so many milliseconds. */
  async startAndKill(after: number): Promise<void> {
    if (!this.running) this.spawn();
    await sleep(after);
    await this.killStart();
  }

  async kill(victim: Victim): Promise<void> {
    if (victim === 'connection') return this.killConnection();
    const [server, database] = [this.serverProcess(), this.databaseProcess()];
    if (victim === 'start' || victim === 'all') await this.killStart();
    if ((victim === 'server' || victim === 'all') && server !== undefined) end(server);
    if ((victim === 'database' || victim === 'all') && database !== undefined) end(database);
    if (victim === 'server') await this.gone('npm start', () => this.running === undefined);
  }

  /** Until it answers; started again where it has ended, as a person would. */
  async answersAgain(): Promise<void> {
    const from = Date.now();
    while (Date.now() - from < longest) {
      // a server whose start was killed gives its port up soon
      if (!this.running && (await this.portIsFree())) this.spawn();
      const reply = await fetch(`${this.origin}/api/sites`).catch(() => undefined);
      // one whose start was killed may go on answering for a moment
      const servers = processesOf(this.data).filter(isServer);
      if (reply?.status === 200 && servers.length === 1 && servers[0]!.parent === this.running?.pid) return;
      await sleep(100);
    }
    throw new Error(`It does not answer ${longest / 1000} seconds after it was started.`);
  }

  /** Stops it as a person does, and says what is left behind that should not be. */
  async stop(beforeRemoving?: () => unknown): Promise<readonly string[]> {
    const faults: string[] = [];
    if (this.running) {
      this.running.kill('SIGINT');
      await this.gone('npm start', () => this.running === undefined).catch((error: Error) =>
        faults.push(error.message),
      );
    }
    const left = processesOf(this.data);
    if (left.length > 0) faults.push(`left running: ${left.map(({ pid, command }) => `${pid} ${command}`).join(', ')}`);
    left.forEach(({ pid }) => end(pid));
    if (fs.existsSync(path.join(this.data, 'lock'))) faults.push('the lock on the data folder is left');
    const files = fs.readdirSync(this.temporary);
    if (files.length > 0) faults.push(`left in the folder for temporary files: ${files.join(', ')}`);
    beforeRemoving?.();
    fs.rmSync(path.dirname(this.data), { recursive: true, force: true });
    return faults;
  }

  private spawn(): void {
    const child = spawn(process.execPath, ['scripts/start.mjs'], {
      cwd: root,
      stdio: ['ignore', 'pipe', 'pipe'],
      env: {
        ...process.env,
        SYNDETON_DATA: this.data,
        PORT: String(this.port),
        TMPDIR: this.temporary,
        SYNDETON_NO_DEMO: '1',
        LOG_LEVEL: 'error',
      },
    });
    for (const stream of [child.stdout, child.stderr])
      stream.on('data', (text: Buffer) => (this.output += text.toString()));
    child.on('exit', () => {
      if (this.running === child) this.running = undefined;
    });
    this.running = child;
  }

  private async killStart(): Promise<void> {
    this.running?.kill('SIGKILL');
    await this.gone('npm start', () => this.running === undefined);
  }

  private serverProcess(): number | undefined {
    return processesOf(this.data).find(isServer)?.pid;
  }

  private databaseProcess(): number | undefined {
    try {
      return Number(fs.readFileSync(path.join(this.data, 'postgres/pgdata/postmaster.pid'), 'utf8').split('\n')[0]);
    } catch {
      return undefined;
    }
  }

  private async killConnection(): Promise<void> {
    const { url } = JSON.parse(fs.readFileSync(path.join(this.data, 'postgres/state.json'), 'utf8')) as { url: string };
    const client = new Sequelize(url, { logging: false });
    // the one that is at work, if any is
    await client.query(
      `SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = current_database() AND pid <> pg_backend_pid()
       ORDER BY (state = 'active') DESC, (state LIKE 'idle in%') DESC, random() LIMIT 1`,
    );
    await client.close();
  }

  private async portIsFree(): Promise<boolean> {
    return new Promise((done) => {
      const probe = net.createServer();
      probe.once('error', () => done(false));
      probe.listen(this.port, '127.0.0.1', () => probe.close(() => done(true)));
    });
  }

  private async gone(what: string, isGone: () => boolean): Promise<void> {
    for (let i = 0; i < 400 && !isGone(); i++) await sleep(100);
    if (!isGone()) throw new Error(`${what} did not end within 40 seconds.`);
  }
}

function end(pid: number): void {
  try {
    process.kill(pid, 'SIGKILL');
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'ESRCH') throw error;
  }
}

interface Process {
  readonly pid: number;
  readonly parent: number;
  readonly command: string;
}

const isServer = ({ command }: Process): boolean => command.includes('dist/main.js');

/** The processes that work on a data folder, by their command or their environment; not those that have ended and wait to be seen off. */
function processesOf(data: string): readonly Process[] {
  return fs.readdirSync('/proc').flatMap((name) => {
    if (!/^\d+$/.test(name)) return [];
    const read = (file: string): string => {
      try {
        return fs.readFileSync(`/proc/${name}/${file}`, 'utf8');
      } catch {
        return ''; // ended meanwhile, or another user's
      }
    };
    const stat = read('stat');
    const [state = 'X', parent = '0'] = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
    const command = read('cmdline').replaceAll('\0', ' ').trim();
    const isOurs = command.includes(data) || read('environ').split('\0').includes(`SYNDETON_DATA=${data}`);
    return isOurs && !/^[ZX]$/.test(state) ? [{ pid: Number(name), parent: Number(parent), command }] : [];
  });
}
