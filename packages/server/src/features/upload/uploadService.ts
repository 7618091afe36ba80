import type { Follow, MachineKeyReply, MachineRequest, UploadReply, UploadRequest } from '@syndeton/contract';
import { uploadOrder } from '@syndeton/core';
import { Refusal } from '../../http/refusal.ts';
import type { RevisionStore } from '../../stores/revisionStore.ts';
import type { RevisionService } from '../revisions/index.ts';
import type { SiteService } from '../sites/index.ts';
import { ftpsKey, openFtps } from './ftpsRemote.ts';
import { RemoteProblem } from './remote.ts';
import { openSftp, sftpKey } from './sftpRemote.ts';
import { uploadFiles } from './uploadFiles.ts';

export interface UploadService {
  key(siteId: string, machine: MachineRequest): Promise<MachineKeyReply>;
  /** Begins; how far it is tells `follow`. */
  start(siteId: string, number: number, body: UploadRequest): Promise<UploadReply>;
  read(siteId: string): Promise<UploadReply>;
  follow(siteId: string): Promise<Follow<UploadReply>>;
  stop(siteId: string): Promise<void>;
}

interface Running {
  state: UploadReply;
  stopped: boolean;
  readonly listeners: Set<(state: UploadReply) => void>;
}

const nothing: UploadReply = { status: 'none', there: [], total: 0, mayGo: [] };

/** One upload a site at a time, known as long as the server runs. */
export function makeUploadService({
  sites,
  revisions,
  store,
}: {
  readonly sites: SiteService;
  readonly revisions: RevisionService;
  readonly store: RevisionStore;
}): UploadService {
  const runs = new Map<string, Running>();
  const refused = (error: unknown): never => {
    throw error instanceof RemoteProblem ? new Refusal('upload-refused', error.message) : error;
  };

  function tell(run: Running, state: UploadReply): void {
    run.state = state;
    for (const listen of run.listeners) listen(state);
  }

  async function send(
    siteId: string,
    number: number,
    body: UploadRequest,
    run: Running,
    put: readonly string[],
  ): Promise<void> {
    const { key, since: _since, ...address } = body;
    const { mayGo, total } = run.state;
    try {
      const remote = await (body.protocol === 'sftp' ? openSftp : openFtps)(address, key);
      try {
        const files = put.map((path) => [path, async () => (await store.file(siteId, number, path))!] as const);
        const end = await uploadFiles(
          remote,
          files,
          ({ there }) => tell(run, { status: 'running', there: [...there], total, mayGo }),
          () => run.stopped,
        );
        tell(run, {
          status: end.stopped ? 'stopped' : 'done',
          there: [...end.there],
          total,
          mayGo: end.stopped ? [] : mayGo,
          ...end.stopped,
        });
      } finally {
        remote.close();
      }
    } catch (error) {
      tell(run, {
        ...run.state,
        status: 'stopped',
        why: error instanceof Error ? error.message : 'The line broke.',
        mayGo: [],
      });
    }
  }

  return {
    async key(siteId, machine) {
      await sites.get(siteId);
      return { key: await (machine.protocol === 'sftp' ? sftpKey : ftpsKey)(machine).catch(refused) };
    },
    async start(siteId, number, body) {
      const { put, mayGo } = uploadOrder(await revisions.changes(siteId, number, body.since));
      if (runs.get(siteId)?.state.status === 'running')
        throw new Refusal(
          'upload-running',
          'Files of this site are on their way already. Wait for them, or stop that.',
        );
      if (put.length === 0) throw new Refusal('upload-refused', 'Nothing has changed since that revision.');
      const state: UploadReply = { status: 'running', there: [], total: put.length, mayGo: [...mayGo] };
      const run: Running = { state, stopped: false, listeners: runs.get(siteId)?.listeners ?? new Set() };
      runs.set(siteId, run);
      tell(run, state);
      void send(siteId, number, body, run, put);
      return state;
    },
    async read(siteId) {
      await sites.get(siteId);
      return runs.get(siteId)?.state ?? nothing;
    },
    async follow(siteId) {
      await sites.get(siteId);
      return (say) => {
        const run = runs.get(siteId) ?? {
          state: nothing,
          stopped: false,
          listeners: new Set<(state: UploadReply) => void>(),
        };
        if (!runs.has(siteId)) runs.set(siteId, run);
        say(run.state);
        run.listeners.add(say);
        return () => run.listeners.delete(say);
      };
    },
    async stop(siteId) {
      await sites.get(siteId);
      const run = runs.get(siteId);
      if (run) run.stopped = true;
    },
  };
}
