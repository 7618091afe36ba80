import { useEffect, useEffectEvent, useMemo, useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import type { FamilyReply, OperationBody } from '@syndeton/contract';
import { withoutPlan } from '@syndeton/core';
import { problemText } from '../../app/api.ts';
import { useAppDispatch, useAppSelector } from '../../app/hooks.ts';
import { useKeys } from '../../ui/useKeys.ts';
import { useAskedFirst, useProposeMutation, type DraftChange, type DraftInHand } from '../drafts/index.ts';
import { useSheetTextQuery } from '../sheets/index.ts';
import { presentationalBytes, useAttributesQuery, useFamiliesQuery, type Asked, type SiteView } from '../site/index.ts';
import { attributeKey, goesToSheet, renamed } from './attributeGroups.ts';
import type { Becomes } from './becomes.ts';
import { classNameProblem } from './classNameProblem.ts';
import { becoming } from './becoming.ts';
import { sending, taking, withoutTaking } from './decisions.ts';
import { correctablePaths } from './correctablePaths.ts';
import { keepPlan, keptPlan } from './keptPlan.ts';
import { narrowedFamily } from './narrowedFamily.ts';
import { renamedMark } from './renamedMark.ts';
import { isInFolder, ownSheetName, proposedName } from './sheetNames.ts';
import { filters, versionKeys } from './familyFilters.ts';
import {
  choiceCleared,
  filterChosen,
  nameGiven,
  planMade,
  selectChosen,
  selectFilter,
  selectNames,
  selectPlan,
  selectSettings,
  settingsChosen,
  versionsChosen,
} from './gatherSlice.ts';
import { GatherView } from './GatherView.tsx';
import { PlanSettingsBox } from './PlanSettingsBox.tsx';
import { usePlanProgress } from './usePlanProgress.ts';
import { SendBox, type SendOptions } from './SendBox.tsx';

export interface Props {
  readonly view: SiteView;
  readonly inHand: DraftInHand;
  /** Opens what the site holds, where files are brought in. */
  readonly onBringIn: () => void;
}

export function GatherStation({ view, inHand, onBringIn }: Props) {
  const dispatch = useAppDispatch();
  const site = view.siteId;
  const chosen = useAppSelector((state) => selectChosen(state, site));
  const filter = useAppSelector((state) => selectFilter(state, site));
  const names = useAppSelector((state) => selectNames(state, site));
  const made = useAppSelector((state) => selectPlan(state, site));
  const plan = useMemo(() => made ?? keptPlan(site, inHand.draft!), [made, site, inHand.draft]);
  const settings = useAppSelector((state) => selectSettings(state, site));
  const [setting, setSetting] = useState(false);
  const at = { id: view.siteId, number: view.site!.revision };
  const { data, error } = useFamiliesQuery(at);
  const { data: attributes, error: unread } = useAttributesQuery(at);
  const [propose] = useProposeMutation();
  const [making, setMaking] = useState(false);
  const progress = usePlanProgress(site, making);
  const [sheetFor, setSheetFor] = useState<string | undefined>(undefined);
  const [notes, setNotes] = useState<readonly string[]>([]);
  const operations = inHand.draft!.operations;
  const written = operations.find((one) => one.kind === 'gather-sheet');
  // while a plan is made again its sheet is not in the draft: the one before stays in sight
  const { currentData: sheetFile, data: lastSheet } = useSheetTextQuery(
    { id: view.siteId, path: written?.sheet ?? '' },
    { skip: making || written === undefined || filter !== 'sheet' },
  );
  const inScope = useMemo(() => new Set(view.scope), [view.scope]);
  const families = useMemo(() => (data ?? []).flatMap((family) => narrowedFamily(family, inScope)), [data, inScope]);
  const groups = useMemo(
    () => (attributes?.groups ?? []).filter((group) => group.pages.some((page) => inScope.has(page))),
    [attributes, inScope],
  );
  const shown = families.filter(filters.find(([name]) => name === filter)?.[2] ?? (() => false));
  const keys = useMemo(
    () => new Set([...families.flatMap(versionKeys), ...groups.map((group) => attributeKey(group.key))]),
    [families, groups],
  );
  const standing = chosen.filter((key) => keys.has(key));

  /** Changes the draft; a refusal is said here. */
  const settle = async (change: DraftChange): Promise<void> => {
    setNotes([]);
    try {
      await inHand.change(change);
    } catch (error) {
      setNotes([problemText(error)]);
    }
  };
  const surveyed = view.survey!.pages.filter((page) => inScope.has(page.path));
  const presentational = presentationalBytes(surveyed);
  const styled = families.length > 0 || surveyed.some((page) => page.styleAttributes > 0);
  // where nothing else is left, a plan is about these
  const usual = styled || presentational === 0 ? settings : { ...settings, hints: true };
  /** Plans on what is in the draft besides a plan; `first`: what goes before it. */
  const proposeAll = async (how = usual, first: DraftChange = (now) => now): Promise<void> => {
    setMaking(true);
    const old = operations;
    let plannedOn: readonly OperationBody[] = [];
    try {
      // made again, a plan keeps the name of its sheet
      const before = written?.sheet;
      await inHand.change((now) => (plannedOn = first(withoutPlan(now))));
      const pages = view.scoped ? { pages: view.scope } : {};
      const { folder, ...wanted } = how;
      const sheet = before !== undefined && isInFolder(before, folder) ? before : proposedName(view.survey!, folder);
      const body = { id: view.siteId, base: inHand.draft!.base, sheet, ...pages, settings: wanted };
      const reply = await propose(body).unwrap();
      dispatch(planMade({ site, plan: reply }));
      keepPlan(site, inHand.draft!.base, reply);
      if (reply.operations.length === 0) setNotes(['Nothing more can be gathered with the same look.']);
      else {
        setNotes([]);
        let late = false;
        await inHand.change((now) => {
          late = JSON.stringify(now) !== JSON.stringify(plannedOn);
          return late ? now : [...now, ...reply.operations.map((operation) => renamed(operation, names))];
        });
        if (late) setNotes(['The draft was changed while the plan was made. Propose it again.']);
      }
    } catch (error) {
      // what was in the draft comes back, unless something else was done meanwhile
      await inHand
        .change((now) => (JSON.stringify(now) === JSON.stringify(plannedOn) ? old : now))
        .catch(() => undefined);
      setNotes([problemText(error)]);
    } finally {
      setMaking(false);
    }
  };
  const send = async (typed: string, { keepEmptyBlocks, place }: SendOptions): Promise<void> => {
    const sheet = /\.[a-z]+$/i.test(typed) ? typed : `${typed}.css`;
    const versions = families.flatMap((family) =>
      family.versions
        .filter((version) => standing.includes(`${family.id}\n${version.id}`))
        .map((version) => ({ family, version })),
    );
    const all = versions.length === families.flatMap(versionKeys).length;
    const pages = view.scoped ? { pages: [...view.scope] } : {};
    const rules = versions.map(({ family, version }) => ({ family: family.id, version: version.id }));
    const gather = {
      sheet,
      ...pages,
      ...(keepEmptyBlocks ? { keepEmptyBlocks } : {}),
      ...(place === undefined ? {} : { place }),
    };
    const only = groups.filter((group) => standing.includes(attributeKey(group.key))).map((group) => group.key);
    const gathered: OperationBody = { kind: 'gather-attributes', sheet, ...pages, only };
    await inHand.change((now) => {
      const some = all && now.length === 0 ? gather : { ...gather, rules };
      const rest = versions.length === 0 ? now : sending(now, versions, some);
      return only.length === 0 ? rest : [...rest, renamed(gathered, names)];
    });
    dispatch(choiceCleared(site));
    setSheetFor(undefined);
  };
  const planned = operations.some((operation) => operation.kind === 'gather-sheet');
  const becomes = (family: FamilyReply, version: FamilyReply['versions'][number], choice: Becomes): void => {
    const taken = choice.startsWith('take ') ? choice.slice('take '.length) : undefined;
    // a plan of one sheet is made again with what changed
    if (planned && (taken !== undefined || choice === 'sheet'))
      return void proposeAll(usual, (now) => {
        const rest = now.flatMap((one) =>
          one.kind === 'settle-drift' && one.family === family.id ? withoutTaking(one, version.id, family) : [one],
        );
        return taken === undefined ? rest : taking(rest, family, version, taken);
      });
    const own = ownSheetName(inHand.draft!, settings.folder, version.pages[0]!);
    const shared = proposedName(view.survey!, settings.folder);
    void settle((now) => becoming(now, family, version, choice, { own, shared }));
  };
  const wrongPaths = useMemo(() => correctablePaths(view.survey!.findings), [view.survey]);
  const asking = useAskedFirst(site, inHand);
  const correct = async (path: string): Promise<void> => {
    const mend: OperationBody = { kind: 'mend', finding: wrongPaths.get(path)! };
    try {
      // before the plan, which is then made again
      await asking.addToDraft(`Correct the path ${path}?`, [mend], [], () =>
        proposeAll(usual, (now) => [...now, mend]),
      );
    } catch (error) {
      setNotes([problemText(error)]);
    }
  };
  const nameMark = (from: string, to: string): string | undefined => {
    const problem = classNameProblem(to);
    if (problem !== undefined) return problem;
    const marks = operations.flatMap((one) => (one.kind === 'gather-sheet' ? (one.marks ?? []) : []));
    if (marks.some(({ name }) => name.toLowerCase() === to.toLowerCase() && name !== from))
      return `Other pages have the class ${to} already.`;
    void settle((now) => now.map((operation) => renamedMark(operation, from, to)));
    return undefined;
  };
  const nameGroup = (key: string, name: string): string | undefined => {
    const problem = classNameProblem(name);
    if (problem !== undefined) return problem;
    dispatch(nameGiven({ site, key, name }));
    if (goesToSheet(operations, key) !== undefined)
      void settle((now) => now.map((operation) => renamed(operation, { ...names, [key]: name })));
    return undefined;
  };
  const location = useLocation();
  const navigate = useNavigate();
  const asked = (location.state as Asked | null)?.propose === true;
  const canPropose = styled || presentational > 0;
  const proposeOnce = useEffectEvent(() => {
    void navigate({ pathname: location.pathname, search: location.search }, { replace: true, state: null });
    if (canPropose && !making) queueMicrotask(() => void proposeAll());
  });
  useEffect(() => {
    if (asked && data !== undefined) proposeOnce();
  }, [asked, data]);
  useKeys({
    m: () => standing.length > 0 && setSheetFor(''),
    p: () => void (canPropose && !making && proposeAll()),
  });
  return (
    <>
      <GatherView
        loading={data === undefined}
        failed={data === undefined && error !== undefined ? problemText(error) : undefined}
        families={families}
        shown={shown}
        filter={filter}
        chosen={new Set(standing)}
        pages={view.pages}
        scopeSize={view.scope.length}
        scoped={view.scoped}
        canPropose={canPropose}
        presentational={presentational}
        draft={inHand.draft!}
        opened={view.opened}
        proposing={making}
        progress={progress}
        notes={notes}
        plan={operations.length > 0 ? plan : undefined}
        attributes={{
          groups,
          state: attributes ? 'there' : unread === undefined ? 'reading' : problemText(unread),
          left: attributes?.left ?? [],
          names,
          goesTo: (key) => goesToSheet(operations, key),
        }}
        onAllPages={() => view.setScope([])}
        onOpen={view.open}
        onFilter={(name) => dispatch(filterChosen({ site, filter: name }))}
        onChoose={(versions, on) => dispatch(versionsChosen({ site, keys: versions, on }))}
        onPropose={() => void proposeAll()}
        onSend={(sheet) => setSheetFor(sheet)}
        onSettings={() => setSetting(true)}
        onSettle={becomes}
        onName={nameGroup}
        onMarkName={nameMark}
        sheetText={(making ? lastSheet : sheetFile)?.text ?? undefined}
        onTrade={({ operation }) => void proposeAll(usual, (now) => [...now, operation])}
        onNowhere={(paths) =>
          void proposeAll(usual, (now) => [{ kind: 'take-as-missing', sheets: [...paths] }, ...now])
        }
        correctable={new Set(wrongPaths.keys())}
        onCorrect={(path) => void correct(path)}
        onBringIn={onBringIn}
        onSheet={(path) => view.go('sheets', path)}
        onUndo={() => inHand.undo()}
      />
      {asking.question}
      {setting && (
        <PlanSettingsBox
          settings={usual}
          onSettle={(next) => {
            dispatch(settingsChosen({ site, settings: next }));
            if (planned) void proposeAll(next);
          }}
          onClose={() => setSetting(false)}
        />
      )}
      {sheetFor !== undefined && (
        <SendBox
          sheets={inHand.draft!.sheets}
          suggested={sheetFor === '' ? proposedName(view.survey!, settings.folder) : sheetFor}
          rules={standing.length}
          pages={view.scope.length}
          onSend={send}
          onClose={() => setSheetFor(undefined)}
        />
      )}
    </>
  );
}
