import { Type } from '@sinclair/typebox';
import { Recipe } from '../recipe.ts';
import { MachineBody, MachineKey, Upload, UploadBody } from '../upload.ts';
import { Report } from '../report.ts';
import type { Route } from '../route.ts';
import { query, since } from './queries.ts';

/** What leaves: archives, patches, reports, recipes, uploads. */
export const handoffRoutes = {
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
} as const satisfies Record<string, Route>;
