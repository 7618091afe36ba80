import fs from 'node:fs';
import { Provider } from 'react-redux';
import { configure, render } from '@testing-library/react';
import type { DraftReply, OperationBody } from '@syndeton/contract';
import { App } from '../app/App.tsx';
import { makeStore } from '../app/store.ts';
import { answeringServer, type Answer, type AnsweringServer } from './answeringServer.ts';

// the first test of a file loads the station it opens, which takes a busy machine a while
configure({ asyncUtilTimeout: 30_000 });

export const siteId = '11111111-1111-4111-8111-111111111111';
export const at = `/api/sites/${siteId}`;

type Replies = Readonly<Record<string, unknown>>;

/** What the server said of the small site, by request. */
export const replies = JSON.parse(fs.readFileSync(new URL('./recorded.json', import.meta.url), 'utf8')) as Replies;

export interface RecordedSite extends AnsweringServer {
  /** The draft as the server has it. */
  readonly draft: () => Pick<DraftReply, 'base' | 'version' | 'operations'>;
  /** Somebody else changes it. */
  readonly changeElsewhere: (operations: readonly OperationBody[]) => void;
  /** The recorded plan was saved before the site is opened: it stands at r2. */
  readonly stand: () => void;
  /** What was asked for of drafts and revisions: `PUT draft`. */
  readonly written: () => readonly string[];
}

/** The whole application at an address of the small site. */
export const openAt = (place: string): void => openAddress(`/sites/${siteId}/${place}`);

export function openAddress(address: string): void {
  window.history.replaceState(null, '', address);
  render(
    <Provider store={makeStore()}>
      <App />
    </Provider>,
  );
}

/** In place of the server, in each test of the file: the small site, a draft that can be changed, and saving it. */
export function recordedSite(): RecordedSite {
  let draft = { base: 1, version: 0, operations: [] as readonly OperationBody[] };
  const first = replies[`GET ${at}/draft`] as DraftReply;
  const reply = (): DraftReply => ({
    ...first,
    ...draft,
    operations: [...draft.operations],
    steps: draft.operations.map(({ kind }) => ({ sentence: `Does ${kind}.`, left: [] })),
    changes: draft.operations.map((_one, i) => ({ path: `${i}.html`, kind: 'page', bytesBefore: 9, bytesAfter: 8, change: 'edited' })),
  }); // oxfmt-ignore
  const put = (operations: readonly OperationBody[]): void => {
    draft = { ...draft, version: draft.version + 1, operations };
  };
  const answers = (): Record<string, Answer> => {
    draft = { base: 1, version: 0, operations: [] };
    const revision = (): number => draft.base;
    return {
      // whatever else was asked of the same
      ...Object.fromEntries(
        Object.entries(replies).map(([name, body]) => [name.replace(/\?.*/, ''), () => [200, body]] as const),
      ),
      // what was found in the revision that is saved here is what was found before
      ...Object.fromEntries(
        ['survey', 'families', 'attributes', 'overrides'].map(
          (name) => [`GET ${at}/revisions/2/${name}`, () => [200, replies[`GET ${at}/revisions/1/${name}`]]] as const,
        ),
      ),
      [`GET ${at}`]: () => [200, { ...(replies[`GET ${at}`] as object), revision: revision() }],
      [`GET ${at}/draft`]: () => [200, reply()],
      [`PUT ${at}/draft`]: (body) => {
        const { version, operations } = body as { version: number; operations: OperationBody[] };
        if (version !== draft.version)
          return [409, { detail: 'In another window 1 operation was put in meanwhile.', redo: 'late-1' }];
        put(operations);
        return [200, reply()];
      },
      [`POST ${at}/draft/redo`]: () => {
        put([...draft.operations, { kind: 'sort-rules', sheet: 'css/site.css' } as OperationBody]);
        return [200, reply()];
      },
      [`DELETE ${at}/draft`]: () => {
        put([]);
        return [204];
      },
      [`POST ${at}/revisions`]: () => {
        draft = { base: 2, version: draft.version + 1, operations: [] };
        return [201, { number: 2 }];
      },
    };
  };
  const server = answeringServer(answers);
  return Object.assign(server, {
    draft: () => draft,
    changeElsewhere: put,
    stand: () => void (draft = { base: 2, version: 2, operations: [] }),
    written: () =>
      server.asked
        .filter((one) => !one.startsWith('GET') && !one.includes('/effect'))
        .map((one) => one.replace(`${at}/`, '')),
  });
}
