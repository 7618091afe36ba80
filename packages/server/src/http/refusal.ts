export type RefusalCode =
  | 'site-not-found'
  | 'revision-not-found'
  | 'file-not-found'
  | 'import-not-found'
  | 'draft-not-empty'
  | 'bad-request'
  | 'bad-archive'
  | 'archive-too-large'
  | 'operation-refused'
  | 'question-refused'
  | 'draft-empty'
  | 'site-changed'
  | 'host-refused';

/** A request we understood and will not carry out. `message` is shown to a person. */
export class Refusal extends Error {
  readonly code: RefusalCode;
  constructor(code: RefusalCode, message: string) {
    super(message);
    this.code = code;
  }
}

export const statusOf: Record<RefusalCode, number> = {
  'site-not-found': 404,
  'revision-not-found': 404,
  'file-not-found': 404,
  'import-not-found': 404,
  'draft-not-empty': 409,
  'bad-request': 400,
  'bad-archive': 400,
  'archive-too-large': 413,
  'operation-refused': 400,
  'question-refused': 400,
  'draft-empty': 400,
  'site-changed': 409,
  'host-refused': 403,
};

export const titleOf: Record<RefusalCode, string> = {
  'site-not-found': 'No such site',
  'revision-not-found': 'No such revision',
  'file-not-found': 'No such file',
  'import-not-found': 'No such import',
  'draft-not-empty': 'Something is lined up',
  'bad-request': 'The request is not as described',
  'bad-archive': 'The archive cannot be read',
  'archive-too-large': 'The archive is too large',
  'operation-refused': 'The operation cannot be carried out',
  'question-refused': 'The question cannot be asked',
  'draft-empty': 'Nothing is lined up',
  'site-changed': 'The site was changed meanwhile',
  'host-refused': 'The request did not come from this application',
};
