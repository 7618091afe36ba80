import type { Handlers } from '../../http/router.ts';
import type { ImportService } from './importService.ts';

export function importHandlers(
  imports: ImportService,
): Handlers<'listImports' | 'startImport' | 'readImport' | 'stopImport'> {
  return {
    listImports: () => ({ imports: [...imports.list()] }),
    startImport({ fields }, { archive, response }) {
      const started = imports.start(archive(), fields.name);
      response.location(`/api/imports/${started.id}`);
      return started;
    },
    readImport: ({ params }) => imports.get(params.id),
    stopImport: ({ params }) => imports.stop(params.id),
  };
}
