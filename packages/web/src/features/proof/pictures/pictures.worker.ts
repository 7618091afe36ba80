import { pictureRegions, type Picture } from './pictureRegions.ts';

addEventListener('message', ({ data }: MessageEvent<{ readonly before: Picture; readonly after: Picture }>) => {
  postMessage(pictureRegions(data.before, data.after));
});
