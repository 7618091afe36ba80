import { expect, test } from '@jest/globals';
import { uploadOrder } from './uploadOrder.ts';

test('what pages need comes before them; what went may be deleted last', () => {
  const changes = [
    { path: 'a.html', change: 'edited', kind: 'page' },
    { path: 'css/new.css', change: 'created', kind: 'sheet' },
    { path: 'old.css', change: 'deleted', kind: 'sheet' },
    { path: 'p.png', change: 'edited', kind: 'other' },
    { path: 'css/a.css', change: 'edited', kind: 'sheet' },
  ] as const;
  expect(uploadOrder(changes)).toEqual({ put: ['p.png', 'css/a.css', 'css/new.css', 'a.html'], mayGo: ['old.css'] });
});
