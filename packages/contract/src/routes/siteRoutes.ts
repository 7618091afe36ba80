import { Type } from '@sinclair/typebox';
import {
  ChangedSite,
  CreatedSite,
  Import,
  OutsideChanges,
  ReadAsPagesBody,
  RemoveFilesBody,
  RenameBody,
  SiteDetail,
  SiteSummary,
  TakeInBody,
} from '../api.ts';
import { NoteBody } from '../precedence.ts';
import type { Route } from '../route.ts';
import { name, names, query, since } from './queries.ts';

/** Sites, their way in, their files and notes. */
export const siteRoutes = {
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
    fields: query({ name, names }),
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
    fields: query({ base: since, folder: Type.Optional(Type.String({ maxLength: 1000 })), name, names }),
    reply: { status: 201, body: ChangedSite },
    problems: [404, 409, 413, 422],
  },
  compareFiles: {
    summary:
      'What became of the site somewhere else: a zip of it as `archive`, the newest revision as `base`; nothing is written',
    fields: query({ base: since, name, names }),
    reply: { status: 200, body: OutsideChanges },
    problems: [404, 409, 413, 422],
  },
  takeOutside: {
    summary:
      'Take what was changed somewhere else, as compareFiles told; `gone`: files that are no more there go too; a new revision',
    fields: query({ base: since, gone: Type.Optional(Type.Boolean()), name, names }),
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
  readAsPages: {
    summary: 'Read files that a server runs as pages, by their endings; a new revision',
    body: ReadAsPagesBody,
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
    fields: query({ name, names }),
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
  writeNote: {
    summary: 'Why an override is kept; an empty note takes it back',
    body: NoteBody,
    reply: { status: 204, body: 'empty' },
    problems: [404],
  },
} as const satisfies Record<string, Route>;
