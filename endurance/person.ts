import { isDeepStrictEqual } from 'node:util';
import { strFromU8, strToU8, unzipSync } from 'fflate';
import { applyOperations, makeSite, type Operation } from '@syndeton/core';
import { siteForm } from './siteForm.ts';

type Files = Readonly<Record<string, string>>;

/** What somebody knows of a site of theirs. */
interface Known {
  readonly revisions: readonly Files[];
  readonly draft: { readonly version: number; readonly operations: readonly Operation[] };
}

interface OwnSite {
  readonly id: string;
  known: Known;
  /** What it may be as well: the last request was not answered. */
  perhaps: Known | undefined;
}

const sheet = 'css/site.css';
const first = (name: string): Files => ({
  'index.html': `<!DOCTYPE html><html lang="en"><head><title>${name}</title><link rel="stylesheet" href="${sheet}"><style>h1 { color: teal }</style></head><body><h1>One</h1></body></html>\n`,
  'two/index.html': `<!DOCTYPE html><html lang="en"><head><title>Two</title><link rel="stylesheet" href="../${sheet}"></head><body><p style="margin: 0">Two</p></body></html>\n`,
  [sheet]: 'p { color: navy }\n',
});

/** Brings sites in, changes them and saves, and remembers all that was answered. */
export class Person {
  private readonly name: string;
  private readonly origin: string;
  private readonly roll: (below: number) => number;
  private readonly sites: OwnSite[] = [];
  private stopping = false;
  private brought = 0;
  private acts = 0;
  private unanswered = 0;
  /** A site was on its way in when something was killed: it may be there. */
  private perhapsBrought: { readonly name: string; readonly files: Files } | undefined;
  /** Sites that were said to come in. */
  private readonly coming: { readonly id: string; readonly name: string; readonly files: Files }[] = [];
  private readonly wrong: string[] = [];

  constructor(name: string, origin: string, roll: (below: number) => number) {
    this.name = name;
    this.origin = origin;
    this.roll = roll;
  }

  told(): string {
    return `${this.acts} acts, ${this.unanswered} unanswered, ${this.sites.reduce((sum, one) => sum + one.known.revisions.length, 0)} revisions`;
  }

  siteIds(): readonly string[] {
    return this.sites.map(({ id }) => id);
  }

  stopSoon(): void {
    this.stopping = true;
  }

  /** Until told to stop, or a request is not answered. */
  async work(): Promise<void> {
    this.stopping = false;
    while (!this.stopping) {
      const answered =
        this.sites.length === 0 || (this.sites.length + this.coming.length < 4 && this.roll(6) === 0)
          ? await this.bringIn()
          : await this.change();
      if (!answered) return void this.unanswered++;
      this.acts++;
    }
  }

  /** What is not as it was said to be. */
  async check(): Promise<readonly string[]> {
    const faults = this.wrong.splice(0);
    await nothingComing(this.origin);
    for (const one of this.coming.splice(0)) await this.lookForComing(one, faults);
    if (this.perhapsBrought) await this.lookForBrought(this.perhapsBrought);
    this.perhapsBrought = undefined;
    for (const site of this.sites) {
      const seen = await this.look(site.id, faults);
      if (!seen) continue;
      const found = [site.known, site.perhaps].find((one) => one !== undefined && isSame(one, seen));
      if (!found)
        faults.push(
          `${this.name}, site ${site.id}: ${difference(site.known, seen)}${site.perhaps ? `; or ${difference(site.perhaps, seen)}` : ''}`,
        );
      else site.known = found;
      site.perhaps = undefined;
    }
    return faults;
  }

  private async bringIn(): Promise<boolean> {
    const name = `${this.name}, site ${++this.brought}`;
    const files = first(name);
    this.perhapsBrought = { name, files };
    if (this.roll(2) === 0) return this.startImport(name, files);
    const reply = await this.ask('POST', '/api/sites', form(files, { name }), 201);
    if (!reply) return false;
    this.perhapsBrought = undefined;
    const { id } = (await reply.json()) as { id: string };
    this.sites.push({ id, known: { revisions: [files], draft: { version: 0, operations: [] } }, perhaps: undefined });
    return true;
  }

  /** It comes in whatever is killed meanwhile. */
  private async startImport(name: string, files: Files): Promise<boolean> {
    const reply = await this.ask('POST', '/api/imports', form(files, { name }), 202);
    if (!reply) return false;
    this.perhapsBrought = undefined;
    const { id } = (await reply.json()) as { id: string };
    this.coming.push({ id, name, files });
    return true;
  }

  private async change(): Promise<boolean> {
    const site = this.sites[this.roll(this.sites.length)]!;
    const { revisions, draft } = site.known;
    const base = revisions.length;
    const newest = revisions.at(-1)!;
    const act = this.roll(10);
    if (act < 4 || (act < 7 && draft.operations.length === 0)) {
      const operations = this.operations(newest);
      const after = { revisions, draft: { version: draft.version + 1, operations } };
      return this.send(site, after, 'PUT', '/draft', { base, version: draft.version, operations }, 200);
    }
    const emptied = { version: draft.version + 1, operations: [] };
    if (act < 7) {
      const after = { revisions: [...revisions, afterOperations(newest, draft.operations)], draft: emptied };
      return this.send(site, after, 'POST', '/revisions', { base, version: draft.version }, 201);
    }
    if (draft.operations.length > 0) return this.handOff(site);
    if (act < 9) {
      const files = { 'three.html': `<!DOCTYPE html><title>Three</title><p>${this.roll(1e6)}</p>\n` };
      const after = { revisions: [...revisions, { ...newest, ...files }], draft: emptied };
      return this.send(site, after, 'POST', '/files', form(files, { base: String(base) }), 201);
    }
    return this.handOff(site);
  }

  private operations(files: Files): readonly Operation[] {
    const { hash } = siteOf(files).files.get(sheet)!;
    const edit: Operation = {
      kind: 'edit-sheet',
      path: sheet,
      hash,
      text: `${files[sheet]!}.n${this.roll(1e6)} { top: 0 }\n`,
    };
    const page = files['index.html']!;
    const at = page.indexOf('<link') < page.indexOf('<style') ? 'last' : 'first';
    return this.roll(2) === 0 ? [edit] : [edit, { kind: 'move-link', sheet, pages: ['index.html'], place: { at } }];
  }

  private async handOff(site: OwnSite): Promise<boolean> {
    const number = 1 + this.roll(site.known.revisions.length);
    const files = await this.archive(site.id, number);
    if (files && !isSameFiles(files, site.known.revisions[number - 1]!))
      this.wrong.push(`${this.name}, site ${site.id}: r${number} is handed off as something else`);
    return files !== undefined;
  }

  private async send(
    site: OwnSite,
    after: Known,
    method: string,
    address: string,
    body: object,
    status: number,
  ): Promise<boolean> {
    // oxfmt-ignore
    site.perhaps = after;
    const reply = await this.ask(method, `/api/sites/${site.id}${address}`, body, status);
    if (!reply) return false;
    await reply.arrayBuffer();
    site.known = after;
    site.perhaps = undefined;
    return true;
  }

  /** Undefined where it is not answered, or the server is in trouble. */
  private async ask(
    method: string,
    address: string,
    body: object | undefined,
    status: number,
  ): Promise<Response | undefined> {
    // oxfmt-ignore
    const isForm = body instanceof FormData;
    try {
      const reply = await fetch(this.origin + address, {
        method,
        ...(body === undefined ? {} : { body: isForm ? body : JSON.stringify(body) }),
        ...(isForm || body === undefined ? {} : { headers: { 'content-type': 'application/json' } }),
      });
      if (reply.status === status) return reply;
      const text = await reply.text();
      if (reply.status !== 503) this.wrong.push(`${this.name}: ${method} ${address} answers ${reply.status} ${text}`);
      return undefined;
    } catch {
      return undefined;
    }
  }

  private async archive(id: string, number: number): Promise<Files | undefined> {
    const reply = await this.ask('GET', `/api/sites/${id}/revisions/${number}/archive`, undefined, 200);
    try {
      const entries = reply && unzipSync(new Uint8Array(await reply.arrayBuffer()));
      return (
        entries && Object.fromEntries(Object.entries(entries).map(([path, bytes]) => [path, strFromU8(bytes, true)]))
      );
    } catch {
      return undefined; // cut off in the middle
    }
  }

  /** All of a site as it is now. */
  private async look(id: string, faults: string[]): Promise<Known | undefined> {
    const get = async <Reply>(address: string): Promise<Reply | undefined> => {
      const reply = await answered(this.origin + address);
      if (reply.status === 200) return (await reply.json()) as Reply;
      faults.push(`${this.name}: GET ${address} answers ${reply.status} ${await reply.text()}`);
      return undefined;
    };
    const site = await get<{ revision: number }>(`/api/sites/${id}`);
    const draft = await get<Known['draft']>(`/api/sites/${id}/draft`);
    if (!site || !draft) return undefined;
    const revisions: Files[] = [];
    for (let n = 1; n <= site.revision; n++) {
      await answered(`${this.origin}/api/sites/${id}/revisions/${n}/survey`);
      const files = await this.archive(id, n);
      if (!files) return void faults.push(`${this.name}: r${n} of ${id} cannot be handed off`);
      revisions.push(files);
      if (!(await get(`/api/sites/${id}/revisions/${n}/survey`))) return undefined;
    }
    return { revisions, draft: { version: draft.version, operations: draft.operations } };
  }

  /** Here, or said to be lost when what brought it in ended again and again. */
  private async lookForComing(
    { id, name, files }: { readonly id: string; readonly name: string; readonly files: Files },
    faults: string[],
  ): Promise<void> {
    const { status } = (await (await answered(`${this.origin}/api/imports/${id}`)).json()) as { status: string };
    const before = this.sites.length;
    await this.lookForBrought({ name, files });
    if (status !== (this.sites.length > before ? 'done' : 'interrupted'))
      faults.push(`${name} was said to come in, is ${status} and ${this.sites.length - before} times here`);
  }

  private async lookForBrought({ name, files }: { readonly name: string; readonly files: Files }): Promise<void> {
    const { sites } = (await (await answered(`${this.origin}/api/sites`)).json()) as {
      sites: { id: string; name: string }[];
    };
    const one = sites.find((site) => site.name === name);
    if (one)
      this.sites.push({
        id: one.id,
        known: { revisions: [files], draft: { version: 0, operations: [] } },
        perhaps: undefined,
      });
  }
}

/** What was on its way in when something was killed is ended by the next server. */
async function nothingComing(origin: string): Promise<void> {
  for (let i = 0; i < 300; i++) {
    const { imports } = (await (await answered(`${origin}/api/imports`)).json()) as { imports: { status: string }[] };
    if (!imports.some(({ status }) => /reading|looking|storing/.test(status))) return;
    await new Promise((f) => setTimeout(f, 100));
  }
}

/** A database that was killed is back soon; until then it is said that it is not there. */
export async function answered(address: string): Promise<Response> {
  for (let i = 0; i < 600; i++) {
    const reply = await fetch(address);
    if (reply.ok) return reply;
    if (reply.status !== 503) throw new Error(`${address} answers ${reply.status} ${await reply.text()}`);
    await new Promise((f) => setTimeout(f, 100));
  }
  return fetch(address);
}

const siteOf = (files: Files) => makeSite(Object.entries(files).map(([path, text]) => [path, strToU8(text)] as const));

const form = (files: Files, fields: Readonly<Record<string, string>>): FormData =>
  siteForm(Object.fromEntries(Object.entries(files).map(([path, text]) => [path, strToU8(text)])), fields);

function afterOperations(files: Files, operations: readonly Operation[]): Files {
  const done = applyOperations(siteOf(files), operations);
  if (!done.ok) throw new Error('operations that cannot be done');
  return Object.fromEntries(
    [...done.value.site.files].map(([path, { bytes }]) => [path, new TextDecoder().decode(bytes)]),
  );
}

function isSameFiles(a: Files, b: Files): boolean {
  const paths = new Set([...Object.keys(a), ...Object.keys(b)]);
  return [...paths].every((path) => a[path] === b[path]);
}

const isSame = (a: Known, b: Known): boolean =>
  a.draft.version === b.draft.version &&
  isDeepStrictEqual(a.draft.operations, b.draft.operations) &&
  a.revisions.length === b.revisions.length &&
  a.revisions.every((files, i) => isSameFiles(files, b.revisions[i]!));

const difference = (said: Known, seen: Known): string =>
  `it was said to have ${said.revisions.length} revisions and draft ${said.draft.version} of ${said.draft.operations.length} operations, and has ${seen.revisions.length}, draft ${seen.draft.version} of ${seen.draft.operations.length}`;
