import { useState } from 'react';
import { useNavigate } from 'react-router';
import { problemText } from '../../app/api.ts';
import { useBringInMutation, useLoadDemoMutation, useSitesQuery } from '../site/index.ts';
import { packFiles, type DroppedFile } from './packFiles.ts';
import { StartView } from './StartView.tsx';

export function StartPage() {
  const { data: sites, error } = useSitesQuery();
  const [bringIn] = useBringInMutation();
  const [loadDemo] = useLoadDemoMutation();
  const navigate = useNavigate();
  const [reading, setReading] = useState<{ readonly name: string; readonly files: number } | undefined>(undefined);
  const [problem, setProblem] = useState<string | undefined>(undefined);
  const [brought, setBrought] = useState<
    | {
        readonly id: string;
        readonly name: string;
        readonly leftOut: readonly { readonly path: string; readonly reason: string }[];
      }
    | undefined
  >(undefined);
  const bring = async (files: readonly DroppedFile[]): Promise<void> => {
    if (files.length === 0) return;
    setProblem(undefined);
    setBrought(undefined);
    setReading({ name: files[0]!.path.split('/')[0]!, files: files.length });
    try {
      const created = await bringIn(await packFiles(files)).unwrap();
      if (created.leftOut.length === 0) void navigate(`/sites/${created.id}/survey`);
      else setBrought(created);
    } catch (failure) {
      setProblem(problemText(failure));
    } finally {
      setReading(undefined);
    }
  };
  const demo = async (): Promise<void> => {
    setProblem(undefined);
    try {
      const created = await loadDemo().unwrap();
      void navigate(`/sites/${created.id}/survey`);
    } catch (failure) {
      setProblem(problemText(failure));
    }
  };
  return (
    <StartView
      sites={sites}
      reading={reading}
      brought={brought}
      problem={problem ?? (error ? problemText(error) : undefined)}
      onBring={(files) => void bring(files)}
      onDemo={() => void demo()}
    />
  );
}
