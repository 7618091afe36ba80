import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import type { SiteSummaryReply } from '@syndeton/contract';
import { problemText } from '../../app/api.ts';
import { PersonMenu } from '../people/index.ts';
import {
  chooseFolder,
  filesOfFolder,
  packFiles,
  rememberFolder,
  useBringBackSiteMutation,
  useBringInMutation,
  useFollowedImports,
  useImportsQuery,
  useLoadDemoMutation,
  useRemoveSiteMutation,
  useRenameSiteMutation,
  useSitesQuery,
  useStopImportMutation,
  useTakeInMutation,
  type DroppedFile,
} from '../site/index.ts';
import { StartView } from './StartView.tsx';

/** An import that was begun on this page, and the folder it is read from when one was opened to work in. */
interface Begun {
  readonly id: string;
  readonly folder: FileSystemDirectoryHandle | undefined;
}

const isRunning = (status: string): boolean => status === 'reading' || status === 'looking' || status === 'storing';

export function StartPage() {
  const { data: sites, error, refetch } = useSitesQuery();
  const [bringIn] = useBringInMutation();
  const [loadDemo] = useLoadDemoMutation();
  const [stop] = useStopImportMutation();
  const [rename] = useRenameSiteMutation();
  const [remove] = useRemoveSiteMutation();
  const [bringBack] = useBringBackSiteMutation();
  const [takeIn, taking] = useTakeInMutation();
  const navigate = useNavigate();
  const [sending, setSending] = useState<{ readonly name: string; readonly files: number } | undefined>(undefined);
  const [begun, setBegun] = useState<readonly Begun[]>([]);
  const [problem, setProblem] = useState<string | undefined>(undefined);
  const [removed, setRemoved] = useState<SiteSummaryReply | undefined>(undefined);
  const [taken, setTaken] = useState<readonly string[]>([]);
  const { data: imports = [], refetch: lookAgain } = useImportsQuery();
  const running = imports.filter(({ status }) => isRunning(status));
  const own = imports.filter(({ id }) => begun.some((one) => one.id === id));
  useFollowedImports(running.length > 0 || begun.length > own.length);
  const ended = own.filter(({ status }) => !isRunning(status)).at(-1);
  useEffect(() => {
    if (!ended) return;
    void refetch();
    if (ended.status !== 'done') return;
    const folder = begun.find(({ id }) => id === ended.id)?.folder;
    if (folder) void rememberFolder(ended.siteId!, { folder, revision: 1 });
    if (ended.leftOut.length === 0) void navigate(`/sites/${ended.siteId}/survey`);
  }, [ended?.id, ended?.status]); // oxlint-disable-line react-hooks/exhaustive-deps -- once for each import that ends

  const attempt = async (what: () => Promise<unknown>): Promise<void> => {
    setProblem(undefined);
    try {
      await what();
    } catch (failure) {
      setProblem(problemText(failure));
    }
  };
  const bring = (files: readonly DroppedFile[], folder?: FileSystemDirectoryHandle): Promise<void> =>
    attempt(async () => {
      if (files.length === 0) return;
      setSending({ name: files[0]!.path.split('/')[0]!, files: files.length });
      try {
        const started = await bringIn(await packFiles(files)).unwrap();
        setBegun((all) => [...all, { id: started.id, folder }]);
        await lookAgain();
      } finally {
        setSending(undefined);
      }
    });
  const openFolder = (): Promise<void> =>
    attempt(async () => {
      const folder = await chooseFolder();
      if (folder) await bring(await filesOfFolder(folder), folder);
    });
  const still = ended?.leftOut.filter(({ path }) => !taken.includes(`${ended.id} ${path}`)) ?? [];
  // one that was begun before a reload, or in another window, is told of too when a restart ended it
  const cut = imports.find(({ status }) => status === 'interrupted');
  const lost = ended?.status === 'failed' || ended?.status === 'interrupted' ? ended : cut;
  const failed = lost ? `${lost.name} was not brought in. ${lost.detail}` : undefined;
  return (
    <StartView
      person={<PersonMenu />}
      sites={sites}
      sending={sending}
      reading={running}
      brought={ended?.status === 'done' && still.length > 0 ? { ...ended, leftOut: still } : undefined}
      taking={taking.isLoading}
      problem={problem ?? failed ?? (error ? problemText(error) : undefined)}
      removed={removed}
      onBring={(files) => void bring(files)}
      onDemo={() =>
        void attempt(async () => {
          const created = await loadDemo().unwrap();
          await navigate(`/sites/${created.id}/survey`);
        })
      }
      onOpenFolder={() => void openFolder()}
      onStop={(id) => void attempt(() => stop(id).unwrap())}
      onRename={(id, name) => void attempt(() => rename({ id, name }).unwrap())}
      onRemove={(site) =>
        void attempt(async () => {
          await remove(site.id).unwrap();
          setRemoved(site);
        })
      }
      onBringBack={(site) =>
        void attempt(async () => {
          await bringBack(site.id).unwrap();
          setRemoved(undefined);
        })
      }
      onTake={(path) =>
        void attempt(async () => {
          const site = sites?.find(({ id }) => id === ended?.siteId);
          await takeIn({ id: ended!.siteId!, base: site?.revision ?? 1, path }).unwrap();
          setTaken((all) => [...all, `${ended!.id} ${path}`]);
        })
      }
    />
  );
}
