import { Type, type TSchema } from '@sinclair/typebox';
import { ChangedSite, CreatedSite, Draft, DraftBody, DraftProof, FileText, Import, Problem, Proposal, ProposalBody, RedoBody, RemoveFilesBody, RenameBody, RestoreBody, SaveBody, SavedRevision, SiteDetail, SiteSummary, TakeInBody } from './api.ts'; // prettier-ignore
import { AttributeGroups, Families } from './families.ts';
import { ElementTable, NoteBody, Overrides, QuestionAnswer, ValuePlaces } from './precedence.ts';
import { PageBands, Survey } from './survey.ts';

interface Route {
  readonly method: 'get' | 'post' | 'put' | 'patch' | 'delete';
  readonly path: string;
  readonly summary: string;
  readonly body?: TSchema;
  readonly upload?: true;
  readonly replies: Readonly<Record<number, TSchema | 'zip' | 'empty'>>;
}

/** Every request the server answers under /api. */
export const routes: readonly Route[] = [
  {
    method: 'get',
    path: '/api/health',
    summary: 'Whether the server and its database answer',
    replies: { 200: Type.Object({ ok: Type.Boolean(), version: Type.String() }) },
  },
  {
    method: 'get',
    path: '/api/sites',
    summary: 'All sites with what is left in their pages',
    replies: { 200: Type.Object({ sites: Type.Array(SiteSummary) }) },
  },
  {
    method: 'post',
    path: '/api/sites',
    summary: 'Bring a site in: a zip as `archive`, and its `name`',
    upload: true,
    replies: { 201: CreatedSite, 400: Problem, 413: Problem },
  },
  { method: 'post', path: '/api/sites/demo', summary: 'Bring in the demo site', replies: { 201: CreatedSite } },
  {
    method: 'get',
    path: '/api/sites/:id',
    summary: 'One site: its revisions and files',
    replies: { 200: SiteDetail, 404: Problem },
  },
  {
    method: 'delete',
    path: '/api/sites/:id',
    summary: 'Remove a site; it can be brought back for a week',
    replies: { 204: 'empty', 404: Problem },
  },
  {
    method: 'patch',
    path: '/api/sites/:id',
    summary: 'Rename a site',
    body: RenameBody,
    replies: { 204: 'empty', 400: Problem, 404: Problem },
  },
  {
    method: 'post',
    path: '/api/sites/:id/restore',
    summary: 'Bring a removed site back',
    replies: { 204: 'empty', 404: Problem },
  },
  {
    method: 'post',
    path: '/api/sites/:id/files',
    summary:
      'Add or replace files: a zip as `archive`, the newest revision as `base`, an optional `folder`; a new revision',
    upload: true,
    replies: { 201: ChangedSite, 400: Problem, 404: Problem, 409: Problem, 413: Problem },
  },
  {
    method: 'post',
    path: '/api/sites/:id/files/remove',
    summary: 'Remove files; a new revision',
    body: RemoveFilesBody,
    replies: { 201: ChangedSite, 400: Problem, 404: Problem, 409: Problem },
  },
  {
    method: 'post',
    path: '/api/sites/:id/files/take',
    summary: 'Take in a file that was left out; a new revision',
    body: TakeInBody,
    replies: { 201: ChangedSite, 404: Problem, 409: Problem },
  },
  {
    method: 'get',
    path: '/api/imports',
    summary: 'Sites on their way in, and those that came or failed in the last minutes',
    replies: { 200: Type.Object({ imports: Type.Array(Import) }) },
  },
  {
    method: 'post',
    path: '/api/imports',
    summary: 'Begin to bring a site in: a zip as `archive`, and its `name`; the reply comes at once',
    upload: true,
    replies: { 202: Import, 400: Problem },
  },
  {
    method: 'get',
    path: '/api/imports/:id',
    summary: 'How far a site on its way in is',
    replies: { 200: Import, 404: Problem },
  },
  {
    method: 'delete',
    path: '/api/imports/:id',
    summary: 'Stop bringing a site in; nothing of it is kept',
    replies: { 204: 'empty', 404: Problem },
  },
  {
    method: 'get',
    path: '/api/sites/:id/revisions/:number/survey',
    summary: 'The inventory of sources; ?with=draft as the draft leaves it',
    replies: { 200: Survey, 404: Problem },
  },
  {
    method: 'get',
    path: '/api/sites/:id/revisions/:number/families',
    summary: 'Rules of embedded blocks, grouped over the site; ?with=draft as the draft leaves them',
    replies: { 200: Families, 404: Problem },
  },
  {
    method: 'get',
    path: '/api/sites/:id/revisions/:number/attributes',
    summary: 'Style attributes grouped by what they say, with the classes proposed; ?with=draft as the draft leaves it',
    replies: { 200: AttributeGroups, 404: Problem },
  },
  {
    method: 'get',
    path: '/api/sites/:id/revisions/:number/page',
    summary:
      'One page (?path=) opened: its sources, their rules, and where they stand; ?with=draft as the draft leaves it',
    replies: { 200: PageBands, 404: Problem },
  },
  {
    method: 'get',
    path: '/api/sites/:id/revisions/:number/element',
    summary:
      'What decides each property of an element (?path=, ?element=, ?pseudo=, ?medium=, ?width=, ?state=, ?peel=); ?with=draft as the draft leaves it',
    replies: { 200: ElementTable, 400: Problem, 404: Problem },
  },
  {
    method: 'get',
    path: '/api/sites/:id/revisions/:number/question',
    summary: 'What decides ?property= of ?selector= over all pages (?medium=, ?width=); ?with=draft with the draft',
    replies: { 200: QuestionAnswer, 400: Problem, 404: Problem },
  },
  {
    method: 'get',
    path: '/api/sites/:id/revisions/:number/overrides',
    summary: 'Declarations in pages that beat shared ones (?medium=, ?width=); ?with=draft with the draft',
    replies: { 200: Overrides, 400: Problem, 404: Problem },
  },
  {
    method: 'get',
    path: '/api/sites/:id/revisions/:number/value',
    summary: 'Where ?value= stands: a colour, a font, a length; ?with=draft with the draft',
    replies: { 200: ValuePlaces, 400: Problem, 404: Problem },
  },
  {
    method: 'put',
    path: '/api/sites/:id/notes',
    summary: 'Why an override is kept; an empty note takes it back',
    body: NoteBody,
    replies: { 204: 'empty', 400: Problem, 404: Problem },
  },
  {
    method: 'get',
    path: '/api/sites/:id/revisions/:number/archive',
    summary: 'The site as a zip; ?since=N gives only files that changed since revision N',
    replies: { 200: 'zip', 404: Problem },
  },
  {
    method: 'get',
    path: '/api/sites/:id/revisions/:number/changes',
    summary: 'Files that changed since ?since=N',
    replies: { 200: Type.Object({ changes: Draft.properties.changes }), 404: Problem },
  },
  {
    method: 'get',
    path: '/api/sites/:id/files/:state/*path',
    summary: 'The text of a page or sheet; state is `draft` or `r3`',
    replies: { 200: FileText, 404: Problem },
  },
  {
    method: 'get',
    path: '/api/sites/:id/draft',
    summary: 'The operations lined up and what they change',
    replies: { 200: Draft, 404: Problem },
  },
  {
    method: 'put',
    path: '/api/sites/:id/draft',
    summary: 'Replace the operations of the draft',
    body: DraftBody,
    replies: { 200: Draft, 400: Problem, 409: Problem },
  },
  {
    method: 'delete',
    path: '/api/sites/:id/draft',
    summary: 'Drop the draft; ?version= is the one that was seen',
    replies: { 204: 'empty', 400: Problem, 404: Problem, 409: Problem },
  },
  {
    method: 'post',
    path: '/api/sites/:id/draft/redo',
    summary: 'Do again, on the draft as it is now, what was refused because it came too late',
    body: RedoBody,
    replies: { 200: Draft, 400: Problem, 404: Problem, 409: Problem, 422: Problem },
  },
  {
    method: 'get',
    path: '/api/sites/:id/draft/proof',
    summary: 'The proof of the draft, or how far it is',
    replies: { 200: DraftProof, 404: Problem },
  },
  {
    method: 'post',
    path: '/api/sites/:id/proposal',
    summary: 'Gathers embedded rules and style attributes as far as every page looks the same',
    body: ProposalBody,
    replies: { 200: Proposal, 400: Problem, 409: Problem },
  },
  {
    method: 'post',
    path: '/api/sites/:id/revisions',
    summary: 'Save the draft as a new revision',
    body: SaveBody,
    replies: { 201: SavedRevision, 400: Problem, 409: Problem },
  },
  {
    method: 'post',
    path: '/api/sites/:id/revisions/:number/restore',
    summary: 'Make an earlier revision the newest again',
    body: RestoreBody,
    replies: { 201: SavedRevision, 404: Problem, 409: Problem },
  },
];

/** The API as an OpenAPI 3.1 document. */
export function openApiDocument(version: string): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const route of routes) {
    const path = route.path.replace(/[:*](\w+)/g, '{$1}');
    paths[path] = { ...paths[path], [route.method]: operationOf(route) };
  }
  return { openapi: '3.1.0', info: { title: 'Syndeton', version }, paths };
}

function operationOf(route: Route): object {
  const parameters = [...route.path.matchAll(/[:*](\w+)/g)].map(([, name]) => ({
    name,
    in: 'path',
    required: true,
    schema: { type: 'string' },
  }));
  const upload = {
    'multipart/form-data': {
      schema: {
        type: 'object',
        required: ['archive'],
        properties: {
          archive: { type: 'string', format: 'binary' },
          name: { type: 'string' },
          base: { type: 'integer', description: 'the newest revision, when files are put into a site' },
          folder: { type: 'string', description: 'where files put into a site go' },
        },
      },
    },
  };
  const content = route.upload ? upload : route.body ? { 'application/json': { schema: route.body } } : undefined;
  return {
    summary: route.summary,
    parameters,
    ...(content ? { requestBody: { required: true, content } } : {}),
    responses: Object.fromEntries(
      Object.entries(route.replies).map(([status, reply]) => [status, replyOf(Number(status), reply)]),
    ),
  };
}

function replyOf(status: number, reply: TSchema | 'zip' | 'empty'): object {
  if (reply === 'empty') return { description: 'done' };
  if (reply === 'zip') return { description: 'a zip archive', content: { 'application/zip': {} } };
  return {
    description: status < 400 ? 'done' : 'refused',
    content: { [status < 400 ? 'application/json' : 'application/problem+json']: { schema: reply } },
  };
}
