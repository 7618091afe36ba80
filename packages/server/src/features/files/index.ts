export { makeFileChanges } from './fileChanges.ts';
export { type FileReader, makeFileReader } from './fileReader.ts';
export { fileHandlers } from './fileRoutes.ts';
export { makeFileService } from './fileService.ts';
export { makeOutsideService } from './outsideService.ts';
