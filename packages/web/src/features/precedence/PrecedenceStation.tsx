import { useState } from 'react';
import type { OperationBody } from '@syndeton/contract';
import { problemText } from '../../app/api.ts';
import { useAskedFirst, type DraftInHand } from '../drafts/index.ts';
import type { SiteView } from '../site/index.ts';
import { Act } from '../../ui/Act.tsx';
import { ElementView } from './ElementView.tsx';
import { OverridesView } from './OverridesView.tsx';
import {
  useElementQuery,
  useOverridesQuery,
  usePutNoteMutation,
  useQuestionQuery,
  useValueQuery,
} from './precedenceApi.ts';
import { keepQuestion, readQuestions } from './questionHistory.ts';
import { QuestionView, type Question } from './QuestionView.tsx';
import { useAsked, type Way } from './useAsked.ts';
import { ValueView } from './ValueView.tsx';

const ways: readonly (readonly [Way, string])[] = [
  ['element', 'An element'],
  ['question', 'A question'],
  ['overrides', 'Overrides'],
  ['value', 'A value'],
];

/** Who wins, and why: on one element, on all pages, against the shared sheets. */
export function PrecedenceStation({ view, inHand }: { readonly view: SiteView; readonly inHand: DraftInHand }) {
  const asked = useAsked();
  const at = { id: view.siteId, number: view.site!.revision };
  const [problem, setProblem] = useState<string | undefined>(undefined);
  const page = view.pages.find((one) => one === view.opened) ?? view.scope[0] ?? view.pages[0]!;
  const element = useElementQuery(
    {
      ...at,
      path: page,
      element: asked.element,
      pseudo: asked.pseudo,
      medium: asked.medium,
      width: asked.width,
      states: asked.states,
      peeled: asked.peeled,
    },
    { skip: asked.way !== 'element' || asked.element === '' },
  );
  const question = useQuestionQuery(
    { ...at, selector: asked.selector, property: asked.property, medium: asked.medium },
    { skip: asked.way !== 'question' },
  );
  const overrides = useOverridesQuery(at, { skip: asked.way !== 'overrides' && asked.way !== 'element' });
  const value = useValueQuery({ ...at, value: asked.value }, { skip: asked.way !== 'value' || asked.value === '' });
  const [putNote] = usePutNoteMutation();

  const toBeAsked = useAskedFirst(view.siteId, inHand);
  const dropCopies = async (operations: readonly OperationBody[]): Promise<void> => {
    setProblem(undefined);
    try {
      await toBeAsked.addToDraft('Drop the copies?', operations);
    } catch (error) {
      setProblem(problemText(error));
    }
  };
  const addToDraft = async (operations: readonly OperationBody[]): Promise<void> => {
    setProblem(undefined);
    try {
      await inHand.addToDraft(operations);
      asked.set({ peel: [], override: undefined });
    } catch (error) {
      setProblem(problemText(error));
    }
  };
  const onFile = (file: string, line: number): void =>
    view.pages.includes(file) ? view.openAt('survey', file, line) : view.openAt('sheets', file, line);
  const ask = (one: Question): void => {
    keepQuestion(view.siteId, one);
    asked.set({ way: 'question', selector: one.selector, property: one.property });
  };
  const before = readQuestions(view.siteId).filter(
    (one) => one.selector !== asked.selector || one.property !== asked.property,
  );
  const count = overrides.data?.overrides.filter((one) => one.note === null).length;
  const failedOf = (query: { readonly error?: unknown }): string | undefined =>
    problem ?? (query.error === undefined ? undefined : problemText(query.error));
  return (
    <div className="flex h-full flex-col">
      <div className="flex min-h-12.5 flex-none items-center justify-between gap-4 border-b border-line-2 px-5 text-table/[inherit] text-ink-2 max-phone:flex-wrap max-phone:gap-y-1 max-phone:py-1.5 [&_b]:mx-2 [&_b]:text-ink">
        <Ways
          way={asked.way}
          overrides={count}
          onWay={(way) => {
            setProblem(undefined);
            asked.set({ way: way === 'element' ? undefined : way });
          }}
        />
        {asked.way === 'element' ? (
          <span>
            page {view.pages.indexOf(page) + 1} of {view.pages.length} <b className="m">{page}</b>{' '}
            <span className="text-note text-ink-3">next page J back K, peel E</span>
          </span>
        ) : asked.way === 'question' && before.length > 0 ? (
          <AskedBefore questions={before.slice(0, 3)} onAsk={ask} />
        ) : asked.way === 'overrides' ? (
          <span className="text-note text-ink-3">
            {view.scoped ? `${view.scope.length} of ${view.pages.length} pages` : `all ${view.pages.length} pages`},
            screen
          </span>
        ) : null}
      </div>
      <div className="min-h-0 flex-1">
        {asked.way === 'element' && (
          <ElementView
            siteId={view.siteId}
            page={page}
            pages={view.pages}
            asked={asked}
            table={element.currentData ?? (element.isFetching ? element.data : undefined)}
            failed={failedOf(element)}
            busy={inHand.changing}
            onPage={(next) => {
              asked.set({ open: next, element: undefined, peel: [], pseudo: undefined });
            }}
            onFile={onFile}
            onAdd={(operations) => void addToDraft(operations)}
          />
        )}
        {asked.way === 'question' && (
          <QuestionView
            key={`${asked.selector} ${asked.property}`}
            question={{ selector: asked.selector, property: asked.property }}
            medium={asked.medium}
            answer={question.currentData}
            failed={failedOf(question)}
            before={before}
            busy={inHand.changing}
            onAsk={ask}
            onMedium={() => asked.set({ medium: asked.medium === 'print' ? undefined : 'print' })}
            onPages={view.setScope}
            onElement={(path, picked) => asked.set({ way: undefined, open: path, element: picked, peel: [] })}
            onValue={(said) => asked.set({ way: 'value', value: said })}
            onAdd={(operation) => void addToDraft([operation])}
          />
        )}
        {asked.way === 'overrides' && (
          <OverridesView
            on={{ id: view.siteId, base: inHand.draft!.base, version: inHand.draft!.version }}
            found={overrides.currentData}
            failed={failedOf(overrides)}
            pages={view.pages}
            scope={view.scope}
            scoped={view.scoped}
            opened={asked.override}
            busy={inHand.changing || toBeAsked.looking}
            onOpen={(id) => asked.set({ override: id })}
            onAdd={(operations) => void addToDraft(operations)}
            onCopies={(operations) => void dropCopies(operations)}
            onPages={view.setScope}
            onNote={(override, note) => void putNote({ id: view.siteId, override, note })}
            onSheet={(path) => view.go('sheets', path)}
          />
        )}
        {asked.way === 'value' && (
          <ValueView
            key={asked.value}
            value={asked.value}
            found={value.currentData}
            failed={failedOf(value)}
            onAsk={(next) => asked.set({ value: next })}
            onFile={onFile}
          />
        )}
      </div>
      {toBeAsked.question}
    </div>
  );
}

interface WaysProps {
  readonly way: Way;
  /** How many are without a note; undefined while it is not known. */
  readonly overrides: number | undefined;
  readonly onWay: (way: Way) => void;
}

function Ways({ way: chosen, overrides, onWay }: WaysProps) {
  return (
    <div className="flex gap-5.5 text-body/[inherit] max-phone:whitespace-nowrap" role="group" aria-label="Ways to ask">
      {ways.map(([way, words]) => (
        <button
          key={way}
          type="button"
          className="leading-6.5 aria-pressed:font-bold aria-pressed:text-ink aria-pressed:shadow-under"
          aria-pressed={chosen === way}
          onClick={() => onWay(way)}
        >
          {words}{' '}
          {way === 'overrides' && overrides !== undefined && (
            <span className="text-table/[inherit] text-ink-3">{overrides}</span>
          )}
        </button>
      ))}
    </div>
  );
}

interface AskedProps {
  readonly questions: readonly Question[];
  readonly onAsk: (question: Question) => void;
}

function AskedBefore({ questions, onAsk }: AskedProps) {
  return (
    <span className="text-note text-ink-3">
      asked before:{' '}
      {questions.map((one) => (
        <Act key={`${one.selector} ${one.property}`} className="ml-2" onClick={() => onAsk(one)}>
          {one.selector}, {one.property}
        </Act>
      ))}
    </span>
  );
}
