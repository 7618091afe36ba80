import os from 'node:os';
import { MessageChannel, receiveMessageOnPort, type MessagePort, type Worker } from 'node:worker_threads';
import {
  packedFile,
  packedName,
  termsOf,
  type PackedFile,
  type ProofPartner,
  type SharedPage,
  type SharedProof,
  type Site,
  type SiteFile,
} from '@syndeton/core';
import { endOf, flagOf, type ChangedFile, type PartnerOrder, type PartnerReply } from './partnerOrders.ts';
import { startThread } from './startThread.ts';

/** What answers requests and what collects garbage want to run as well; two processors are often two halves of one. */
const fewestProcessors = 4;
/** Of a smaller site one thread proves all pages before another one is told of them. */
const fewestPages = 300;
/** What is no page is copied for the partner. */
const mostBytes = 64_000_000;
/** A page of many tags may take a while. */
const usualPatience = 60_000;

/**
 * A second thread of a large site, which proves half of its pages at the same time. It is told what it has to know once: the
 * beginning, then of each state what is new. Where it is lost whoever asked goes on alone.
 */
export class ThreadPartner implements ProofPartner {
  private readonly heap: number;
  private readonly processors: number;
  private thread: { readonly worker: Worker; readonly port: MessagePort } | undefined;
  private beginning: Site | undefined;
  /** Hashes of the last state's files that the beginning has not. */
  private last: ReadonlyMap<string, string> = new Map();
  private orders = 0;

  private readonly patience: number;
  /** How many pages it has proved. */
  proved = 0;

  /** `heap`: megabytes; `patience`: milliseconds without a further page after which the partner is given up. */
  constructor(heap: number, processors = os.availableParallelism(), patience = usualPatience) {
    this.heap = heap;
    this.processors = processors;
    this.patience = patience;
  }

  helps({ files }: Site): boolean {
    if (this.processors < fewestProcessors) return false;
    let pages = 0;
    let bytes = 0;
    for (const { kind, size } of files.values())
      if (kind === 'page') pages++;
      else bytes += size;
    return pages >= fewestPages && bytes <= mostBytes;
  }

  prepare(before: Site, share: ReadonlySet<string>): void {
    if (this.beginning === before) return;
    this.tellBeginning(before, share);
    this.send({ kind: 'prepare', pages: [...share] });
  }

  begin(before: Site, after: Site, share: ReadonlySet<string>, pages: readonly SiteFile[]): SharedProof {
    if (this.beginning !== before) this.tellBeginning(before, share);
    const flags = new SharedArrayBuffer(12);
    const id = ++this.orders;
    const changed = this.changedOf(before, after, share);
    const removed = [...before.files.keys()].filter((path) => !after.files.has(path));
    this.send(
      { kind: 'prove', id, changed, removed, terms: termsOf(after), pages: pages.map(({ path }) => path), flags },
      changed.flatMap(([, , file]) => file ?? []),
    );
    return this.proofOf(id, new Int32Array(flags));
  }

  /** Lets the thread end, with all it holds. */
  letGo(): void {
    const { thread } = this;
    this.thread = undefined;
    this.beginning = undefined;
    this.last = new Map();
    thread?.port.close();
    void thread?.worker.terminate();
  }

  private tellBeginning(before: Site, share: ReadonlySet<string>): void {
    this.beginning = before;
    this.last = new Map();
    const files = [...before.files.values()].map((file) => packedFor(file, share));
    this.send({ kind: 'beginning', files, terms: termsOf(before) }, files);
  }

  private changedOf(before: Site, after: Site, share: ReadonlySet<string>): readonly ChangedFile[] {
    const { last } = this;
    const files = [...after.files.values()].filter(({ path, hash }) => before.files.get(path)?.hash !== hash);
    this.last = new Map(files.map(({ path, hash }) => [path, hash]));
    return files.map((file) => [
      file.path,
      file.hash,
      last.get(file.path) === file.hash ? undefined : packedFor(file, share),
    ]);
  }

  private proofOf(id: number, flags: Int32Array): SharedProof {
    let reached = 0;
    let since = Date.now();
    const done = (): number => Atomics.load(flags, flagOf.done);
    return {
      done,
      wait: (milliseconds) => {
        Atomics.wait(flags, flagOf.end, 0, milliseconds);
        const end = Atomics.load(flags, flagOf.end);
        if (end === endOf.given) return this.replyTo(id) ?? this.lose();
        if (end === endOf.lost) return this.lose();
        if (done() > reached) [reached, since] = [done(), Date.now()];
        return Date.now() - since > this.patience ? this.lose() : undefined;
      },
      stop: () => void Atomics.store(flags, flagOf.stop, 1),
    };
  }

  private replyTo(id: number): readonly SharedPage[] | undefined {
    const { port } = this.thread!;
    for (let next = receiveMessageOnPort(port); next; next = receiveMessageOnPort(port)) {
      const reply = next.message as PartnerReply;
      if (reply.id !== id) continue;
      this.proved += reply.pages.length;
      return reply.pages;
    }
    return undefined;
  }

  private lose(): 'lost' {
    this.letGo();
    return 'lost';
  }

  /** Bytes are copies of their own: they go over, and are not copied once more. */
  private send(order: PartnerOrder, files: readonly PackedFile[] = []): void {
    this.thread ??= this.startThread();
    this.thread.port.postMessage(
      order,
      files.flatMap(({ bytes }) => (bytes ? [bytes.buffer] : [])),
    );
  }

  private startThread(): { readonly worker: Worker; readonly port: MessagePort } {
    const { port1, port2 } = new MessageChannel();
    const worker = startThread(this.heap, { partner: port2 }, [port2]);
    const mine = { worker, port: port1 };
    const gone = (): void => {
      if (this.thread === mine) this.letGo();
    };
    worker.on('error', gone).on('exit', gone);
    // what has nothing to do keeps no thread alive
    worker.unref();
    port1.unref();
    return mine;
  }
}

/** A page that is not the partner's to prove is there by name. */
const packedFor = (file: SiteFile, share: ReadonlySet<string>): PackedFile =>
  file.kind === 'page' && !share.has(file.path) ? packedName(file) : packedFile(file);
