import { Type } from '@sinclair/typebox';
import { Draft, FileText } from '../api.ts';
import { AttributeGroups, Families } from '../families.ts';
import { ElementTable, Overrides, QuestionAnswer, ValuePlaces } from '../precedence.ts';
import { Proof } from '../proof.ts';
import { RuleScore, SelectorReach, SheetReach, SiteWords } from '../sheets.ts';
import { Finding, PageBands, Survey } from '../survey.ts';
import type { Route } from '../route.ts';
import { as, query, since, environment } from './queries.ts';

/** What is asked of a revision or the draft, without changing anything. */
export const readingRoutes = {
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
  compareRevisions: {
    summary:
      'A revision, or the draft on it, against an earlier one, page by page; the one before when none is named. With `against` revision `since` of that site, the newest when none is named',
    query: query({ ...as, since: Type.Optional(since), against: Type.Optional(Type.String({ format: 'uuid' })) }),
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
} as const satisfies Record<string, Route>;
