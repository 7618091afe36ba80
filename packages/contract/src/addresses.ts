/** Where each request goes. `routes.ts` says under the same names what goes in and out; both sides read this table. */
export const addresses = {
  health: ['get', '/api/health'],
  who: ['get', '/api/who'],
  signIn: ['post', '/api/session'],
  signOut: ['delete', '/api/session'],
  changePassword: ['put', '/api/session/password'],
  listTokens: ['get', '/api/tokens'],
  makeToken: ['post', '/api/tokens'],
  dropToken: ['delete', '/api/tokens/:token'],
  listPeople: ['get', '/api/people'],
  addPerson: ['post', '/api/people'],
  removePerson: ['delete', '/api/people/:person'],
  setPassword: ['put', '/api/people/:person/password'],
  listRights: ['get', '/api/sites/:id/people'],
  setRight: ['put', '/api/sites/:id/people'],
  listSites: ['get', '/api/sites'],
  createSite: ['post', '/api/sites'],
  createDemo: ['post', '/api/sites/demo'],
  readSite: ['get', '/api/sites/:id'],
  removeSite: ['delete', '/api/sites/:id'],
  renameSite: ['patch', '/api/sites/:id'],
  restoreSite: ['post', '/api/sites/:id/restore'],
  addFiles: ['post', '/api/sites/:id/files'],
  compareFiles: ['post', '/api/sites/:id/files/compare'],
  takeOutside: ['post', '/api/sites/:id/files/outside'],
  removeFiles: ['post', '/api/sites/:id/files/remove'],
  takeInFile: ['post', '/api/sites/:id/files/take'],
  readAsPages: ['post', '/api/sites/:id/files/pages'],
  listImports: ['get', '/api/imports'],
  followImports: ['get', '/api/imports/events'],
  startImport: ['post', '/api/imports'],
  readImport: ['get', '/api/imports/:id'],
  stopImport: ['delete', '/api/imports/:id'],
  readSurvey: ['get', '/api/sites/:id/revisions/:number/survey'],
  readFamilies: ['get', '/api/sites/:id/revisions/:number/families'],
  readAttributes: ['get', '/api/sites/:id/revisions/:number/attributes'],
  readPage: ['get', '/api/sites/:id/revisions/:number/page'],
  readElement: ['get', '/api/sites/:id/revisions/:number/element'],
  askQuestion: ['get', '/api/sites/:id/revisions/:number/question'],
  listOverrides: ['get', '/api/sites/:id/revisions/:number/overrides'],
  findValue: ['get', '/api/sites/:id/revisions/:number/value'],
  readSheet: ['get', '/api/sites/:id/revisions/:number/sheet'],
  readRule: ['get', '/api/sites/:id/revisions/:number/rule'],
  matchSelector: ['get', '/api/sites/:id/revisions/:number/match'],
  readMarkup: ['get', '/api/sites/:id/revisions/:number/markup'],
  readWords: ['get', '/api/sites/:id/revisions/:number/words'],
  writeNote: ['put', '/api/sites/:id/notes'],
  downloadArchive: ['get', '/api/sites/:id/revisions/:number/archive'],
  readReport: ['get', '/api/sites/:id/revisions/:number/report'],
  downloadReport: ['get', '/api/sites/:id/revisions/:number/report/:format'],
  readRecipe: ['get', '/api/sites/:id/revisions/:number/recipe'],
  fitRecipe: ['post', '/api/sites/:id/draft/recipe'],
  askMachine: ['post', '/api/sites/:id/upload/key'],
  readUpload: ['get', '/api/sites/:id/upload'],
  followUpload: ['get', '/api/sites/:id/upload/events'],
  stopUpload: ['delete', '/api/sites/:id/upload'],
  startUpload: ['post', '/api/sites/:id/revisions/:number/upload'],
  downloadPatch: ['get', '/api/sites/:id/revisions/:number/patch'],
  compareRevisions: ['get', '/api/sites/:id/revisions/:number/proof'],
  listChanges: ['get', '/api/sites/:id/revisions/:number/changes'],
  readFile: ['get', '/api/sites/:id/files/:state/*path'],
  readDraft: ['get', '/api/sites/:id/draft'],
  replaceDraft: ['put', '/api/sites/:id/draft'],
  dropDraft: ['delete', '/api/sites/:id/draft'],
  redoDraft: ['post', '/api/sites/:id/draft/redo'],
  followDraft: ['get', '/api/sites/:id/draft/events'],
  readProof: ['get', '/api/sites/:id/draft/proof'],
  followProof: ['get', '/api/sites/:id/draft/proof/events'],
  tryOperations: ['post', '/api/sites/:id/draft/effect'],
  propose: ['post', '/api/sites/:id/proposal'],
  followProposal: ['get', '/api/sites/:id/proposal/events'],
  saveDraft: ['post', '/api/sites/:id/revisions'],
  restoreRevision: ['post', '/api/sites/:id/revisions/:number/restore'],
  wordRevision: ['patch', '/api/sites/:id/revisions/:number'],
  takeOutOperation: ['post', '/api/sites/:id/revisions/:number/without'],
} as const satisfies Record<string, readonly ['get' | 'post' | 'put' | 'patch' | 'delete', `/api/${string}`]>;

export type RouteName = keyof typeof addresses;

type NamesIn<Path> = Path extends `${string}:${infer Name}/${infer Rest}`
  ? Name | NamesIn<`/${Rest}`>
  : Path extends `${string}:${infer Name}`
    ? Name
    : Path extends `${string}*${infer Name}`
      ? Name
      : never;

/** The parameters in a route's path; `path` of a file is written whole, slashes and all. */
export type ParamsOf<Name extends RouteName> = Readonly<Record<NamesIn<(typeof addresses)[Name][1]>, string>>;

type Query = Readonly<Record<string, string | number | readonly string[] | undefined>>;

/** The address of a request with everything in it encoded. Empty and absent parts of the query are left out. */
export function addressOf<Name extends RouteName>(
  name: Name,
  params: { readonly [Part in keyof ParamsOf<Name>]: string | number },
  query: Query = {},
): string {
  const given = params as Readonly<Record<string, string | number>>;
  const path = addresses[name][1].replace(/([:*])(\w+)/g, (_all, mark: string, part: string) => {
    const value = String(given[part]);
    return mark === '*' ? value.split('/').map(encodeURIComponent).join('/') : encodeURIComponent(value);
  });
  const parts = Object.entries(query).flatMap(([part, value]) =>
    (typeof value === 'object' ? value : [value])
      .filter((one): one is string | number => one !== undefined && one !== '')
      .map((one) => `${part}=${encodeURIComponent(one)}`),
  );
  return parts.length === 0 ? path : `${path}?${parts.join('&')}`;
}
