import { useState } from 'react';
import type { OperationBody, QuestionReply, ValueDeciderReply } from '@syndeton/contract';
import { askedLook, sayLook } from '../../ui/looks.ts';
import { Button } from '../../ui/Button.tsx';
import { Act } from '../../ui/Act.tsx';
import { Mark, type MarkKind } from '../../ui/Mark.tsx';
import { count, someNames } from '../../ui/format.ts';
import { coloursIn, Swatch } from '../../ui/Swatch.tsx';
import { StyleSample } from '../../ui/StyleSample.tsx';
import { Problem } from '../../ui/Said.tsx';
import { Explain } from './Explain.tsx';
import { InCode } from './InCode.tsx';
import { deciderHeight, Strands } from './Strands.tsx';

export interface Question {
  readonly selector: string;
  readonly property: string;
}

export const exampleQuestions: readonly (Question & { readonly words: string })[] = [
  { words: 'colour of headings', selector: 'h1', property: 'color' },
  { words: 'body font', selector: 'body', property: 'font-family' },
  { words: 'link colour', selector: 'a', property: 'color' },
  { words: 'page background', selector: 'body', property: 'background-color' },
  { words: 'margins of the body', selector: 'body', property: 'margin' },
];

interface Props {
  readonly question: Question;
  readonly medium: string;
  readonly answer: QuestionReply | undefined;
  readonly failed: string | undefined;
  readonly before: readonly Question[];
  readonly busy: boolean;
  readonly onAsk: (question: Question) => void;
  readonly onMedium: () => void;
  readonly onPages: (pages: readonly string[]) => void;
  readonly onElement: (page: string, element: string) => void;
  readonly onValue: (value: string) => void;
  readonly onAdd: (operation: OperationBody) => void;
}

/** What decides a property of a selector on every page, as strands from values to what decides them. */
export function QuestionView(props: Props) {
  const { question, medium, answer, failed, onAsk, onMedium } = props;
  const [property, setProperty] = useState(question.property);
  const [selector, setSelector] = useState(question.selector);
  const ask = (): void => onAsk({ selector: selector.trim(), property: property.trim() });
  return (
    <div className="h-full overflow-auto px-6 pt-3.5 pb-6">
      <h1 className="sr-only">
        What decides {question.property} of {question.selector}
      </h1>
      <form
        className={`${sayLook} pt-0.5 pb-1.5`}
        onSubmit={(event) => {
          event.preventDefault();
          ask();
        }}
      >
        What decides{' '}
        <input
          className={askedLook}
          aria-label="Property"
          value={property}
          size={Math.max(4, property.length)}
          onChange={(event) => setProperty(event.target.value)}
        />{' '}
        of{' '}
        <input
          className={askedLook}
          aria-label="Selector"
          value={selector}
          size={Math.max(2, selector.length)}
          onChange={(event) => setSelector(event.target.value)}
        />{' '}
        on <b>{answer ? `all ${answer.pages} pages` : 'all pages'}</b> for{' '}
        <button type="button" className={askedLook} onClick={onMedium} title="Turn to the other medium">
          {medium}
        </button>
        ? <Button type="submit">Ask</Button>
      </form>
      <p className="text-note text-ink-3 flex flex-wrap gap-y-1 gap-x-3.5 pb-2.5">
        {exampleQuestions.map((one) => (
          <Act key={one.words} onClick={() => onAsk(one)}>
            {one.words}
          </Act>
        ))}
      </p>
      {failed !== undefined ? (
        <Problem>{failed}</Problem>
      ) : !answer ? (
        <p className="text-note text-ink-3" role="status">
          Asking every page …
        </p>
      ) : (
        <Answer {...props} answer={answer} />
      )}
    </div>
  );
}

function Answer(props: Props & { readonly answer: QuestionReply }) {
  const { answer, question } = props;
  const deciders = answer.values.reduce((sum, value) => sum + value.deciders.length, 0);
  const [first] = answer.values;
  const several = answer.values.reduce((sum, value) => sum + value.pages.length, 0) > answer.pages;
  const alone = several ? [] : answer.values.slice(1).filter((value) => value.pages.length === 1);
  if (!first)
    return (
      <p className="text-ink-2">
        No page has an element <code>{question.selector}</code>.
      </p>
    );
  return (
    <>
      <p className="pb-3 text-ink-2">
        {count(answer.values.length, 'value')} from {count(deciders, 'place')}.{' '}
        {answer.values.length === 1 ? (
          'All pages look alike'
        ) : several ? (
          <>
            Many pages have more than one; <code>{first.value}</code> stands on {count(first.pages.length, 'page')}
          </>
        ) : (
          `${count(first.pages.length, 'page')} look alike`
        )}
        {alone.length > 0 && alone.length <= 3 && (
          <>
            ; <b>{someNames(alone.flatMap((value) => value.pages))}</b> {alone.length === 1 ? 'stands' : 'stand'} alone
          </>
        )}
        . One strand is one page.
        {answer.without > 0 &&
          ` ${count(answer.without, 'page')} ${answer.without === 1 ? 'has' : 'have'} no such element.`}
      </p>
      <div className="grid grid-cols-[190px_250px_minmax(0,1fr)] min-w-190 max-[1101px]:grid-cols-[150px_130px_minmax(0,1fr)] max-[1101px]:min-w-140">
        <div>
          {answer.values.map((value) => (
            <div
              key={value.value}
              className="grid content-start justify-items-start gap-0.5 pt-2 pr-3 [&_.sample]:max-w-44.5 [&_.sample]:truncate [&_.sample]:px-1 [&_.sample]:py-0.5 [&_.sample]:text-[18px]"
              style={{ minHeight: value.deciders.length * deciderHeight }}
            >
              <button
                type="button"
                className="flex max-w-44.5 items-center gap-2 text-left wrap-anywhere [&_.sw]:size-5 [&_.sw]:flex-none"
                title="Where does this value stand on the site?"
                onClick={() => props.onValue(value.value)}
              >
                {coloursIn(value.value)[0] !== undefined && <Swatch colour={coloursIn(value.value)[0]!} />}
                <b className="m">{value.value}</b>
              </button>
              <StyleSample
                text={value.deciders[0]!.first.text || 'No sailing today.'}
                declarations={[{ property: question.property, value: value.value }]}
              />
              <span className="text-note text-ink-3">
                {value.pages.length === 1 ? '1 page, alone' : count(value.pages.length, 'page')}
              </span>
            </div>
          ))}
        </div>
        <Strands values={answer.values} />
        <div>
          {answer.values
            .flatMap((value) => value.deciders)
            .map((decider, i) => (
              <DeciderRow key={i} {...props} decider={decider} />
            ))}
        </div>
      </div>
    </>
  );
}

function DeciderRow({ decider, busy, onPages, onElement, onAdd }: Props & { readonly decider: ValueDeciderReply }) {
  const { kind, path, selector, specificity, inheritedFrom, sentence, pages, copies, over } = decider;
  const mark: MarkKind = kind === 'browser' || kind === 'initial' ? 'default' : kind;
  const local = kind === 'embedded' || kind === 'attribute';
  const said = {
    where: kind === 'attribute' ? ('attribute' as const) : ('block' as const),
    ...(kind === 'attribute' ? {} : { selector }),
    property: decider.property,
    value: decider.value,
    ...(decider.important ? { important: true } : {}),
  };
  return (
    <div
      className="grid h-21 grid-cols-[20px_minmax(0,1fr)_auto] gap-2 overflow-hidden border-t border-line pt-2 pb-1.5 text-table [&>svg]:mt-1"
      style={{ minHeight: deciderHeight }}
    >
      <Mark kind={mark} hidden />
      <div className="min-w-0">
        <p className="truncate">
          {kind === 'browser' || kind === 'initial' ? (
            <b>{kind === 'browser' ? 'the browser’s default' : 'the initial value'}</b>
          ) : kind === 'attribute' || kind === 'presentational' ? (
            <>
              <b className="m">{kind === 'attribute' ? `style="${decider.property}: …"` : selector}</b> in{' '}
              {kind === 'attribute' ? 'a style attribute' : 'a presentational attribute'}
            </>
          ) : (
            <>
              <b className="m">{selector}</b> in{' '}
              {kind === 'embedded' ? 'an embedded block' : <span className="m">{path}</span>} {specificity}
            </>
          )}
          {inheritedFrom !== null && <span className="text-note text-ink-3"> inherited from {inheritedFrom}</span>}
        </p>
        <p className="truncate text-ink-2">
          <Explain
            kind={sentence.kind}
            words={sentence.lead.replaceAll('`', '')}
            winner={{
              text: `${decider.property}: ${decider.value}`,
              where: path === '' ? 'in the page' : `in ${path}`,
            }}
            loser={over ? { text: `${over.selector} { ${over.value} }`, where: `in ${over.path}` } : undefined}
          />{' '}
          <InCode text={sentence.rest} />
        </p>
        <p className="truncate text-ink-2 m">{someNames(pages, 4)}</p>
      </div>
      <div className="grid justify-items-end content-start gap-px">
        <b>{count(pages.length, 'page')}</b>
        {copies && local ? (
          <Act disabled={busy} onClick={() => onAdd({ kind: 'drop-declaration', ...said, pages })}>
            {pages.length === 1 ? 'Drop the copy' : 'Drop the copies'}
          </Act>
        ) : over && local ? (
          <Act disabled={busy} onClick={() => onAdd({ kind: 'drop-declaration', ...said, pages })}>
            Drop it
          </Act>
        ) : (
          <Act onClick={() => onPages(pages)}>Choose {pages.length === 1 ? 'it' : `these ${pages.length}`}</Act>
        )}
        {decider.first.element !== '' && (
          <Act onClick={() => onElement(decider.first.page, decider.first.element)}>
            {local ? 'See what wins next' : 'See one'}
          </Act>
        )}
      </div>
    </div>
  );
}
