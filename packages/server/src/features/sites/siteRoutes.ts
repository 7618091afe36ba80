import type { Handlers } from '../../http/router.ts';
import type { DemoReader } from '../demo/index.ts';
import type { SiteService } from './siteService.ts';

type Names =
  | 'listSites'
  | 'createSite'
  | 'createDemo'
  | 'readSite'
  | 'removeSite'
  | 'renameSite'
  | 'restoreSite'
  | 'writeNote';

export function siteHandlers(sites: SiteService, readDemo: DemoReader): Handlers<Names> {
  return {
    listSites: async () => ({ sites: [...(await sites.list())] }),
    async createSite({ fields }, { archive, signal, response }) {
      const created = await sites.bringIn(archive().path, fields.name, { signal, names: fields.names });
      response.location(`/api/sites/${created.id}`);
      return created;
    },
    async createDemo(_given, { response }) {
      const created = await sites.bringInFiles(await readDemo(), 'Brindle Sound Ferry');
      response.location(`/api/sites/${created.id}`);
      return created;
    },
    readSite: ({ params }) => sites.detail(params.id),
    removeSite: ({ params }) => sites.remove(params.id),
    renameSite: ({ params, body }) => sites.rename(params.id, body.name),
    restoreSite: ({ params }) => sites.restore(params.id),
    writeNote: ({ params, body }) => sites.note(params.id, body.override, body.note.trim()),
  };
}
