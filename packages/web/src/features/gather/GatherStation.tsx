import { useEffect, useEffectEvent, useMemo, useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import type { FamilyReply } from '@syndeton/contract';
import { freeSheetName } from '@syndeton/core';
import { problemText } from '../../app/api.ts';
import { useAppDispatch, useAppSelector } from '../../app/hooks.ts';
import { useKeys } from '../../ui/useKeys.ts';
import { useProposeMutation, type DraftInHand } from '../drafts/index.ts';
import { useFamiliesQuery, type Asked, type SiteView } from '../site/index.ts';
import { filters, versionKeys } from './familyFilters.ts';
import { choiceCleared, filterChosen, selectChosen, selectFilter, versionsChosen } from './gatherSlice.ts';
import { GatherView } from './GatherView.tsx';
import { SendBox } from './SendBox.tsx';

export function GatherStation({ view, inHand }: { readonly view: SiteView; readonly inHand: DraftInHand }) {
  const dispatch = useAppDispatch();
  const chosen = useAppSelector(selectChosen);
  const filter = useAppSelector(selectFilter);
  const { data } = useFamiliesQuery({ id: view.siteId, number: view.site!.revision });
  const [propose, proposing] = useProposeMutation();
  const [sending, setSending] = useState<string | undefined>(undefined);
  const [notes, setNotes] = useState<readonly string[]>([]);
  const inScope = useMemo(() => new Set(view.scope), [view.scope]);
  const families = useMemo(() => (data ?? []).flatMap((family) => narrowed(family, inScope)), [data, inScope]);
  const shown = families.filter(filters.find(([name]) => name === filter)![2]);
  const keys = useMemo(() => new Set(families.flatMap(versionKeys)), [families]);
  const standing = chosen.filter((key) => keys.has(key));
  useEffect(() => () => void dispatch(choiceCleared()), [dispatch, view.siteId]);

  const proposeAll = async (): Promise<void> => {
    const base = inHand.draft!.base;
    try {
      const reply = await propose({
        id: view.siteId,
        base,
        sheet: proposedName(view),
        ...(view.scoped ? { pages: view.scope } : {}),
      }).unwrap();
      if (reply.operations.length === 0) setNotes(['Nothing more can be gathered with the same look.']);
      else {
        setNotes([]);
        await inHand.lineUp(reply.operations);
      }
    } catch (error) {
      setNotes([problemText(error)]);
    }
  };
  const send = async (sheet: string, keepEmptyBlocks: boolean): Promise<void> => {
    const all = standing.length === keys.size;
    const rules = standing.map((key) => ({
      family: key.slice(0, key.indexOf('\n')),
      version: key.slice(key.indexOf('\n') + 1),
    }));
    await inHand.lineUp([
      {
        kind: 'gather-rules',
        sheet,
        ...(view.scoped ? { pages: [...view.scope] } : {}),
        ...(all ? {} : { rules }),
        ...(keepEmptyBlocks ? { keepEmptyBlocks } : {}),
      },
    ]);
    dispatch(choiceCleared());
    setSending(undefined);
  };
  const location = useLocation();
  const navigate = useNavigate();
  const asked = (location.state as Asked | null)?.propose === true;
  const attributes = view.survey!.pages.some((page) => page.styleAttributes > 0 && inScope.has(page.path));
  const ready = (families.length > 0 || attributes) && !proposing.isLoading;
  const proposeOnce = useEffectEvent(() => {
    void navigate({ pathname: location.pathname, search: location.search }, { replace: true, state: null });
    if (ready) queueMicrotask(() => void proposeAll());
  });
  useEffect(() => {
    if (asked && data !== undefined) proposeOnce();
  }, [asked, data]);
  useKeys({
    m: () => standing.length > 0 && setSending(''),
    p: () => void (ready && proposeAll()),
  });
  return (
    <>
      <GatherView
        loading={data === undefined}
        families={families}
        shown={shown}
        filter={filter}
        chosen={new Set(standing)}
        pages={view.pages}
        scopeSize={view.scope.length}
        scoped={view.scoped}
        draft={inHand.draft!}
        opened={view.opened}
        proposing={proposing.isLoading}
        notes={notes}
        onAllPages={() => view.setScope([])}
        onOpen={view.open}
        onFilter={(name) => dispatch(filterChosen(name))}
        onChoose={(versions, on) => dispatch(versionsChosen({ keys: versions, on }))}
        onPropose={() => void proposeAll()}
        onSend={(sheet) => setSending(sheet)}
        onSheet={(path) => view.go('sheets', path)}
        onUndo={() => void inHand.replace(inHand.draft!.operations.slice(0, -1))}
      />
      {sending !== undefined && (
        <SendBox
          sheets={inHand.draft!.sheets}
          suggested={sending === '' ? proposedName(view) : sending}
          rules={standing.length}
          pages={view.scope.length}
          onSend={send}
          onClose={() => setSending(undefined)}
        />
      )}
    </>
  );
}

const proposedName = (view: SiteView): string => freeSheetName(view.survey!.sheets.map((sheet) => sheet.path));

/** The family as it stands on the chosen pages. */
function narrowed(family: FamilyReply, pages: ReadonlySet<string>): readonly FamilyReply[] {
  const versions = family.versions
    .map((version) => ({ ...version, pages: version.pages.filter((page) => pages.has(page)) }))
    .filter((version) => version.pages.length > 0);
  return versions.length === 0 ? [] : [{ ...family, versions, pages: family.pages.filter((page) => pages.has(page)) }];
}
