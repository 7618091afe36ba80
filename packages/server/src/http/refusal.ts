export type RefusalCode =
  | 'site-not-found'
  | 'revision-not-found'
  | 'file-not-found'
  | 'import-not-found'
  | 'operation-not-found'
  | 'draft-not-empty'
  | 'draft-not-found'
  | 'bad-request'
  | 'bad-archive'
  | 'archive-too-large'
  | 'too-large'
  | 'operation-refused'
  | 'upload-refused'
  | 'upload-running'
  | 'question-refused'
  | 'draft-empty'
  | 'site-changed'
  | 'draft-changed'
  | 'too-much'
  | 'busy'
  | 'stopping'
  | 'database-away'
  | 'disk-full'
  | 'store-away'
  | 'host-refused'
  | 'sign-in'
  | 'not-allowed'
  | 'too-often'
  | 'person-not-found'
  | 'person-refused';

/** A request we understood and will not carry out. `message` is shown to a person. */
export class Refusal extends Error {
  readonly code: RefusalCode;
  /** Where what came too late can be redone from. */
  readonly redo: string | undefined;
  constructor(code: RefusalCode, message: string, redo?: string) {
    super(message);
    this.code = code;
    this.redo = redo;
  }
}

export const statusOf: Record<RefusalCode, number> = {
  'site-not-found': 404,
  'revision-not-found': 404,
  'file-not-found': 404,
  'import-not-found': 404,
  'operation-not-found': 404,
  'draft-not-found': 404,
  'draft-not-empty': 409,
  'bad-request': 400,
  'bad-archive': 400,
  'archive-too-large': 413,
  'too-large': 413,
  'operation-refused': 422,
  'upload-refused': 422,
  'upload-running': 409,
  'question-refused': 422,
  'draft-empty': 409,
  'site-changed': 409,
  'draft-changed': 409,
  'too-much': 422,
  busy: 503,
  stopping: 503,
  'database-away': 503,
  'disk-full': 507,
  'store-away': 503,
  'host-refused': 403,
  'sign-in': 401,
  'not-allowed': 403,
  'too-often': 429,
  'person-not-found': 404,
  'person-refused': 409,
};

export const titleOf: Record<RefusalCode, string> = {
  'site-not-found': 'No such site',
  'revision-not-found': 'No such revision',
  'file-not-found': 'No such file',
  'import-not-found': 'No such import',
  'operation-not-found': 'No such operation',
  'draft-not-found': 'No such list of operations',
  'draft-not-empty': 'The draft is not empty',
  'bad-request': 'The request is not as described',
  'bad-archive': 'The archive cannot be read',
  'archive-too-large': 'The archive is too large',
  'too-large': 'The request is too large',
  'upload-refused': 'Not uploaded',
  'upload-running': 'An upload is running',
  'operation-refused': 'The operation cannot be carried out',
  'question-refused': 'The question cannot be asked',
  'draft-empty': 'The draft is empty',
  'site-changed': 'The site was changed meanwhile',
  'draft-changed': 'The draft was changed meanwhile',
  'too-much': 'This is too much for one request',
  busy: 'Too many wait already',
  stopping: 'The server is being stopped',
  'database-away': 'The database does not answer',
  'disk-full': 'The disk is full',
  'store-away': 'The store of files does not answer',
  'host-refused': 'The request did not come from this application',
  'sign-in': 'Not signed in',
  'not-allowed': 'Not allowed',
  'too-often': 'Too often',
  'person-not-found': 'No such person',
  'person-refused': 'This cannot be done to a person',
};
