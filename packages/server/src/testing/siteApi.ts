import type { Express } from 'express';
import request, { type Response } from 'supertest';
import type { DraftProofReply, DraftReply } from '@syndeton/contract';
import { makeZip } from './makeZip.ts';

interface Version {
  readonly base: number;
  readonly version: number;
}

/** What tests ask of the API again and again. */
export function siteApi(app: () => Express) {
  const draft = async (id: string): Promise<DraftReply> =>
    (await request(app()).get(`/api/sites/${id}/draft`)).body as DraftReply;
  const seen = async (id: string): Promise<Version> => {
    const { base, version } = await draft(id);
    return { base, version };
  };
  return {
    draft,
    async bringIn(files: readonly { readonly path: string; readonly content: string | Buffer }[], name = 'Test') {
      const reply = await request(app())
        .post('/api/sites')
        .field('name', name)
        .attach('archive', await makeZip(files), 'x.zip');
      if (reply.status !== 201) throw new Error(`brought in: ${reply.status} ${reply.text}`);
      return (reply.body as { id: string }).id;
    },
    /** On the draft as it is, unless another one is named. */
    async put(id: string, operations: readonly object[], made?: Version): Promise<Response> {
      const { base, version } = made ?? (await seen(id));
      return request(app()).put(`/api/sites/${id}/draft`).send({ base, version, operations });
    },
    async save(id: string, made?: Version): Promise<Response> {
      const { base, version } = made ?? (await seen(id));
      return request(app()).post(`/api/sites/${id}/revisions`).send({ base, version });
    },
    async proved(id: string): Promise<Extract<DraftProofReply, { status: 'done' }>> {
      for (let i = 0; i < 400; i++) {
        const { body } = (await request(app()).get(`/api/sites/${id}/draft/proof`)) as { body: DraftProofReply };
        if (body.status === 'done') return body;
        if (body.status === 'failed') throw new Error(body.detail);
        await new Promise((f) => setTimeout(f, 50));
      }
      throw new Error('the proof did not come');
    },
  };
}
