import type { Handlers } from '../../http/router.ts';
import type { ImportService } from './importService.ts';

export function importHandlers(
  imports: ImportService,
): Handlers<'listImports' | 'followImports' | 'startImport' | 'readImport' | 'stopImport'> {
  return {
    listImports: async () => ({ imports: [...(await imports.list())] }),
    followImports: () => (tell, end) => imports.follow((list) => tell({ imports: [...list] }), end),
    async startImport({ fields }, { archive, response }) {
      const started = await imports.start(archive(), fields);
      response.location(`/api/imports/${started.id}`);
      return started;
    },
    readImport: ({ params }) => imports.get(params.id),
    stopImport: ({ params }) => imports.stop(params.id),
  };
}
