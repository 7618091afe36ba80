import type { MessagePort } from 'node:worker_threads';
import { knownNames, SiteProver, unpackedFile, type Site, type SiteFile } from '@syndeton/core';
import { endOf, flagOf, type PartnerOrder, type PartnerReply } from './partnerOrders.ts';

type ProveOrder = Extract<PartnerOrder, { kind: 'prove' }>;

/** Pages that are read ahead between two looks whether something else is asked. */
const atOnce = 5;

/** The partner's end of `ThreadPartner`. */
export function servePartner(port: MessagePort): void {
  let prover: SiteProver | undefined;
  let before: Site = { files: new Map() };
  /** The files of the last state that the beginning has not. */
  let changed: ReadonlyMap<string, SiteFile> = new Map();
  let ahead: readonly string[] = [];

  port.on('message', (order: PartnerOrder) => {
    if (order.kind === 'beginning') {
      before = { ...order.terms, files: new Map(order.files.map((file) => [file.path, unpackedFile(file)])) };
      prover = new SiteProver(before);
      changed = new Map();
      ahead = [];
    } else if (order.kind === 'prepare') {
      ahead = order.pages;
      readAhead();
    } else prove(order);
  });

  function readAhead(): void {
    for (const path of ahead.slice(0, atOnce))
      try {
        prover?.look(before.files.get(path)!);
      } catch {
        // the proof will meet it again, and leave the page out or give up
      }
    ahead = ahead.slice(atOnce);
    if (ahead.length > 0) setImmediate(readAhead);
  }

  function prove(order: ProveOrder): void {
    const flags = new Int32Array(order.flags);
    ahead = [];
    let end: number = endOf.lost;
    try {
      const after = stateOf(order);
      const onPage = (done: number): void => {
        if (Atomics.load(flags, flagOf.stop) !== 0) throw new Error('stopped');
        Atomics.store(flags, flagOf.done, done);
      };
      const pages = prover!.proveShare(after, new Set(order.pages), onPage);
      port.postMessage({
        id: order.id,
        pages: pages.map((proof) => ({ proof, names: namesOf(after.files.get(proof.path)) })),
      } satisfies PartnerReply);
      end = endOf.given;
    } catch {
      // whoever asked proves these pages itself, and meets what was met here
    }
    Atomics.store(flags, flagOf.end, end);
    Atomics.notify(flags, flagOf.end);
  }

  function stateOf({ changed: list, removed, terms }: ProveOrder): Site {
    const last = changed;
    changed = new Map(list.map(([path, , packed]) => [path, packed ? unpackedFile(packed) : last.get(path)!]));
    const files = new Map(before.files);
    for (const path of removed) files.delete(path);
    for (const [path, file] of changed) files.set(path, file);
    return { ...terms, files };
  }
}

function namesOf(file: SiteFile | undefined): readonly string[] | undefined {
  const names = file && knownNames(file);
  return names && [...names];
}
