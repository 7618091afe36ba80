import { Type, type TObject, type TSchema } from '@sinclair/typebox';
import type { RouteName } from './addresses.ts';
import {
  ChangedSite,
  CreatedSite,
  Draft,
  DraftBody,
  DraftProof,
  FileText,
  Import,
  EffectBody,
  PlanProgress,
  Proposal,
  ProposalBody,
  RedoBody,
  RemoveFilesBody,
  RenameBody,
  RestoreBody,
  RevisionWordsBody,
  SaveBody,
  SavedRevision,
  SiteDetail,
  SiteSummary,
  TakeInBody,
  WithoutBody,
} from './api.ts';
import { AttributeGroups, Families } from './families.ts';
import { ElementTable, NoteBody, Overrides, QuestionAnswer, ValuePlaces } from './precedence.ts';
import { Proof } from './proof.ts';
import { FittedRecipe, Recipe, RecipeBody } from './recipe.ts';
import { MachineBody, MachineKey, Upload, UploadBody } from './upload.ts';
import { Report } from './report.ts';
import type { Route } from './route.ts';
import { Effect, RuleScore, SelectorReach, SheetReach, SiteWords } from './sheets.ts';
import { Finding, PageBands, Survey } from './survey.ts';

const query = <Properties extends Record<string, TSchema>>(properties: Properties): TObject<Properties> =>
  Type.Object(properties, { additionalProperties: false });

/** `with=draft`: as the draft leaves it; the revision as it was saved when absent. */
const as = { with: Type.Optional(Type.Literal('draft')) };
const environment = {
  medium: Type.Optional(Type.Union([Type.Literal('screen'), Type.Literal('print')])),
  /** In CSS pixels; 1280 when absent. */
  width: Type.Optional(Type.Integer({ minimum: 1, maximum: 100_000 })),
};
const since = Type.Integer({ minimum: 1, maximum: 999_999_999 });
const name = Type.Optional(Type.String({ maxLength: 2000 }));

/** Every request the server answers under /api, by the names of `addresses`. */
export const routes = {
  health: {
    summary: 'Whether the server and its database answer',
    reply: { status: 200, body: Type.Object({ ok: Type.Boolean(), version: Type.String() }) },
    problems: [],
  },
  listSites: {
    summary: 'All sites with what is left in their pages',
    reply: { status: 200, body: Type.Object({ sites: Type.Array(SiteSummary) }) },
    problems: [],
  },
  createSite: {
    summary: 'Bring a site in: a zip as `archive`, and its `name`',
    fields: query({ name }),
    reply: { status: 201, body: CreatedSite },
    problems: [413, 422],
  },
  createDemo: {
    summary: 'Bring in the demo site',
    reply: { status: 201, body: CreatedSite },
    problems: [],
  },
  readSite: {
    summary: 'One site: its revisions and files',
    reply: { status: 200, body: SiteDetail },
    problems: [404],
  },
  removeSite: {
    summary: 'Remove a site; it can be brought back for a week',
    reply: { status: 204, body: 'empty' },
    problems: [404],
  },
  renameSite: {
    summary: 'Rename a site',
    body: RenameBody,
    reply: { status: 204, body: 'empty' },
    problems: [404],
  },
  restoreSite: {
    summary: 'Bring a removed site back',
    reply: { status: 204, body: 'empty' },
    problems: [404],
  },
  addFiles: {
    summary: 'Add or replace files: a zip as `archive`, the newest revision as `base`; a new revision',
    fields: query({ base: since, folder: Type.Optional(Type.String({ maxLength: 1000 })), name }),
    reply: { status: 201, body: ChangedSite },
    problems: [404, 409, 413, 422],
  },
  removeFiles: {
    summary: 'Remove files; a new revision',
    body: RemoveFilesBody,
    reply: { status: 201, body: ChangedSite },
    problems: [404, 409, 422],
  },
  takeInFile: {
    summary: 'Take in a file that was left out; a new revision',
    body: TakeInBody,
    reply: { status: 201, body: ChangedSite },
    problems: [404, 409, 422],
  },
  listImports: {
    summary: 'Sites on their way in, and those that came or failed in the last minutes',
    reply: { status: 200, body: Type.Object({ imports: Type.Array(Import) }) },
    problems: [],
  },
  followImports: {
    summary: 'The same list, told of whenever it changes',
    reply: { status: 200, body: Type.Object({ imports: Type.Array(Import) }), events: true },
    problems: [],
  },
  startImport: {
    summary: 'Begin to bring a site in: a zip as `archive`, and its `name`; the reply comes at once',
    fields: query({ name }),
    reply: { status: 202, body: Import },
    problems: [413],
  },
  readImport: {
    summary: 'How far a site on its way in is',
    reply: { status: 200, body: Import },
    problems: [404],
  },
  stopImport: {
    summary: 'Stop bringing a site in; nothing of it is kept',
    reply: { status: 204, body: 'empty' },
    problems: [404],
  },
  readSurvey: {
    summary: 'The inventory of sources',
    query: query(as),
    reply: { status: 200, body: Survey, packed: true },
    problems: [404, 422],
  },
  readFamilies: {
    summary: 'Rules of embedded blocks, grouped over the site',
    query: query(as),
    reply: { status: 200, body: Families, packed: true },
    problems: [404, 422],
  },
  readAttributes: {
    summary: 'Style attributes grouped by what they say, with the classes proposed',
    query: query(as),
    reply: { status: 200, body: AttributeGroups },
    problems: [404, 422],
  },
  readPage: {
    summary: 'One page opened: its sources, their rules, and where they stand',
    query: query({ ...as, path: Type.String({ minLength: 1, maxLength: 2000 }) }),
    reply: { status: 200, body: PageBands },
    problems: [404, 422],
  },
  readElement: {
    summary: 'What decides each property of an element',
    query: query({
      ...as,
      path: Type.String({ maxLength: 2000 }),
      /** Such as html>body:nth-child(2). */
      element: Type.String({ maxLength: 5000 }),
      pseudo: Type.Optional(Type.String({ maxLength: 100 })),
      ...environment,
      state: Type.Optional(Type.Array(Type.String({ maxLength: 100 }), { maxItems: 50 })),
      peel: Type.Optional(Type.Array(Type.String({ maxLength: 1000 }), { maxItems: 500 })),
    }),
    reply: { status: 200, body: ElementTable },
    problems: [404, 422],
  },
  askQuestion: {
    summary: 'What decides a property of a selector over all pages',
    query: query({
      ...as,
      selector: Type.String({ maxLength: 20_000 }),
      property: Type.String({ maxLength: 400 }),
      ...environment,
    }),
    reply: { status: 200, body: QuestionAnswer },
    problems: [404, 422],
  },
  listOverrides: {
    summary: 'Declarations in pages that beat shared ones',
    query: query({ ...as, ...environment }),
    reply: { status: 200, body: Overrides },
    problems: [404, 422],
  },
  findValue: {
    summary: 'Where a value stands: a colour, a font, a length',
    query: query({ ...as, value: Type.String({ maxLength: 2000, pattern: '\\S' }) }),
    reply: { status: 200, body: ValuePlaces },
    problems: [404, 422],
  },
  readSheet: {
    summary: 'How far each rule of a sheet reaches',
    query: query({ ...as, path: Type.String({ minLength: 1, maxLength: 2000 }) }),
    reply: { status: 200, body: SheetReach },
    problems: [404, 422],
  },
  readRule: {
    summary: 'What a rule of a sheet wins and loses, by where its selector starts, and who beats it',
    query: query({
      ...as,
      path: Type.String({ minLength: 1, maxLength: 2000 }),
      start: Type.Integer({ minimum: 0, maximum: 99_999_999 }),
      ...environment,
    }),
    reply: { status: 200, body: RuleScore },
    problems: [404, 422],
  },
  matchSelector: {
    summary: 'The elements a selector reaches on all pages, or on those that link `sheet`',
    query: query({
      ...as,
      selector: Type.String({ maxLength: 20_000 }),
      sheet: Type.Optional(Type.String({ maxLength: 2000 })),
    }),
    reply: { status: 200, body: SelectorReach },
    problems: [404, 422],
  },
  readMarkup: {
    summary: 'What a validator says of the markup of all pages, as findings; it takes a while',
    query: query(as),
    reply: { status: 200, body: Type.Object({ findings: Type.Array(Finding) }) },
    problems: [404],
  },
  readWords: {
    summary: 'Names, colours and fonts in use on the site',
    query: query(as),
    reply: { status: 200, body: SiteWords },
    problems: [404],
  },
  writeNote: {
    summary: 'Why an override is kept; an empty note takes it back',
    body: NoteBody,
    reply: { status: 204, body: 'empty' },
    problems: [404],
  },
  downloadArchive: {
    summary: 'The files of a revision as a zip, or only those that differ from revision `since`',
    query: query({ since: Type.Optional(since) }),
    reply: { status: 200, body: 'zip' },
    problems: [404],
  },
  readReport: {
    summary:
      'What changed since a revision, the first when none is named: files, proof, findings, what a visitor fetches',
    query: query({ since: Type.Optional(since) }),
    reply: { status: 200, body: Report },
    problems: [404],
  },
  downloadReport: {
    summary: 'The same to keep: `html` (prints well), `csv` or `json`',
    query: query({ since: Type.Optional(since) }),
    reply: { status: 200, body: 'report' },
    problems: [404],
  },
  readRecipe: {
    summary:
      'What was done since a revision, the first when none is named, as a recipe for other pages or another site',
    query: query({ since: Type.Optional(since) }),
    reply: { status: 200, body: Recipe },
    problems: [404],
  },
  fitRecipe: {
    summary: 'What of a recipe fits the draft, and what does not; nothing is lined up',
    body: RecipeBody,
    reply: { status: 200, body: FittedRecipe },
    problems: [404, 409, 422],
  },
  askMachine: {
    summary: 'The key of the machine files are to go to, for its owner to compare; nothing is sent',
    body: MachineBody,
    reply: { status: 200, body: MachineKey },
    problems: [404, 422],
  },
  startUpload: {
    summary:
      'Begin to put what changed on a server by SFTP or FTPS: sheets before pages, each file compared; goes on where it stopped',
    body: UploadBody,
    reply: { status: 202, body: Upload },
    problems: [404, 409, 422],
  },
  readUpload: {
    summary: 'How far the last upload of a site is',
    reply: { status: 200, body: Upload },
    problems: [404],
  },
  followUpload: {
    summary: 'The same, told of with every file',
    reply: { status: 200, body: Upload, events: true },
    problems: [404],
  },
  stopUpload: {
    summary: 'Stop an upload after the file it is at; what is on the server stays',
    reply: { status: 204, body: 'empty' },
    problems: [404],
  },
  downloadPatch: {
    summary: 'What changed since a revision, the first when none is named, as a patch for `git apply` and `patch -p1`',
    query: query({ since: Type.Optional(since) }),
    reply: { status: 200, body: 'patch' },
    problems: [404],
  },
  compareRevisions: {
    summary: 'A revision, or the draft on it, against an earlier one: page by page; the one before when none is named',
    query: query({ ...as, since: Type.Optional(since) }),
    reply: { status: 200, body: Proof },
    problems: [404],
  },
  listChanges: {
    summary: 'Files that changed since a revision, the first when none is named',
    query: query({ since: Type.Optional(since) }),
    reply: { status: 200, body: Type.Object({ changes: Draft.properties.changes }) },
    problems: [404, 422],
  },
  readFile: {
    summary: 'The text of a page or sheet; state is `draft` or `r3`',
    reply: { status: 200, body: FileText },
    problems: [404, 422],
  },
  readDraft: {
    summary: 'The operations lined up and what they change',
    reply: { status: 200, body: Draft },
    problems: [404, 422],
  },
  replaceDraft: {
    summary: 'Replace the operations of the draft',
    body: DraftBody,
    reply: { status: 200, body: Draft },
    problems: [404, 409, 422],
  },
  dropDraft: {
    summary: 'Drop the draft; `version` is the one that was seen',
    query: query({ version: Type.Integer({ minimum: 0, maximum: 999_999_999 }) }),
    reply: { status: 204, body: 'empty' },
    problems: [404, 409],
  },
  redoDraft: {
    summary: 'Do again, on the draft as it is now, what was refused because it came too late',
    body: RedoBody,
    reply: { status: 200, body: Draft },
    problems: [404, 409, 422],
  },
  readProof: {
    summary: 'The proof of the draft, or how far it is',
    reply: { status: 200, body: DraftProof },
    problems: [404],
  },
  followProof: {
    summary: 'The same, told of while the proof is computed; the stream ends with it',
    reply: { status: 200, body: DraftProof, events: true },
    problems: [404],
  },
  tryOperations: {
    summary: 'What would look different if operations were lined up next; nothing is changed',
    body: EffectBody,
    reply: { status: 200, body: Effect },
    problems: [404, 409, 422],
  },
  propose: {
    summary: 'Gathers embedded rules and style attributes as far as every page looks the same',
    body: ProposalBody,
    reply: { status: 200, body: Proposal },
    problems: [404, 409, 422],
  },
  followProposal: {
    summary: 'How far the plan of a site is that is being made, as events',
    reply: { status: 200, body: PlanProgress, events: true },
    problems: [404],
  },
  saveDraft: {
    summary: 'Save the draft as a new revision',
    body: SaveBody,
    reply: { status: 201, body: SavedRevision },
    problems: [404, 409, 422],
  },
  restoreRevision: {
    summary: 'Make an earlier revision the newest again',
    body: RestoreBody,
    reply: { status: 201, body: SavedRevision },
    problems: [404, 409],
  },
  wordRevision: {
    summary: 'Give a revision another name, or say why it looks different',
    body: RevisionWordsBody,
    reply: { status: 204, body: 'empty' },
    problems: [404],
  },
  takeOutOperation: {
    summary: 'A new revision: the newest, as it would be without one operation of an earlier one',
    body: WithoutBody,
    reply: { status: 201, body: SavedRevision },
    problems: [404, 409, 422],
  },
} as const satisfies Record<RouteName, Route>;

export type Routes = typeof routes;
