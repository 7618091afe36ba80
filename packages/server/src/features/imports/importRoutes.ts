import type { Handlers } from '../../http/router.ts';
import type { ImportService } from './importService.ts';

export function importHandlers(
  imports: ImportService,
): Handlers<'listImports' | 'followImports' | 'startImport' | 'readImport' | 'stopImport'> {
  return {
    listImports: () => ({ imports: [...imports.list()] }),
    followImports: () => (tell, end) => imports.follow((list) => tell({ imports: [...list] }), end),
    startImport({ fields }, { archive, response }) {
      const started = imports.start(archive(), fields.name, fields.names);
      response.location(`/api/imports/${started.id}`);
      return started;
    },
    readImport: ({ params }) => imports.get(params.id),
    stopImport: ({ params }) => imports.stop(params.id),
  };
}
