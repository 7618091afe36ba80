import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { startFtpsServer } from '../../testing/ftpsServer.ts';
import { ftpsKey, openFtps } from './ftpsRemote.ts';
import { startSftpServer, type SimulatedServer } from '../../testing/sftpServer.ts';
import type { RemoteAddress } from './remote.ts';
import { openSftp, sftpKey } from './sftpRemote.ts';
import { uploadFiles, type UploadState } from './uploadFiles.ts';

let root = '';
let server: SimulatedServer;
beforeEach(() => {
  root = fs.mkdtempSync(path.join(os.tmpdir(), 'syndeton-upload-'));
  fs.mkdirSync(path.join(root, 'www'));
});
afterEach(async () => {
  await server.close();
  fs.rmSync(root, { recursive: true, force: true });
});

const kinds = {
  sftp: { start: startSftpServer, open: openSftp, keyOf: sftpKey },
  ftps: { start: startFtpsServer, open: openFtps, keyOf: ftpsKey },
} as const;

describe.each(['sftp', 'ftps'] as const)('%s', (protocol) => {
  const { start, open, keyOf } = kinds[protocol];
  beforeEach(async () => {
    server = await start(root, 'ferry', 'tide');
  });
  const address = (over: Partial<RemoteAddress> = {}): RemoteAddress => ({
    protocol,
    host: '127.0.0.1',
    port: server.port,
    user: 'ferry',
    password: 'tide',
    folder: '/www',
    ...over,
  });
  const files = ['img/x.png', 'css/site.css', 'css/print.css', 'index.html', 'news/a.html'].map(
    (name) => [name, () => Promise.resolve(Buffer.from(`now ${name} `.repeat(500)))] as const,
  );
  const onServer = (): readonly string[] =>
    fs
      .readdirSync(path.join(root, 'www'), { recursive: true, encoding: 'utf8' })
      .filter((name) => fs.statSync(path.join(root, 'www', name)).isFile())
      .sort();

  async function upload(): Promise<UploadState> {
    const remote = await open(address(), await keyOf(address()));
    try {
      return await uploadFiles(remote, files, () => undefined);
    } finally {
      remote.close();
    }
  }

  test('files in their order, byte for byte, over what was there', async () => {
    fs.writeFileSync(path.join(root, 'www', 'index.html'), 'old');
    expect(await upload()).toEqual({ there: files.map(([name]) => name), total: 5 });
    for (const [name, read] of files) expect(fs.readFileSync(path.join(root, 'www', name))).toEqual(await read());
    expect(onServer()).toHaveLength(5);
  });

  test('broken off at every file: what is there is whole and said, and it goes on from there', async () => {
    fs.writeFileSync(path.join(root, 'www', 'index.html'), 'old');
    for (let after = 0; after < files.length; after++) {
      for (const [name] of files) fs.rmSync(path.join(root, 'www', name), { force: true });
      fs.writeFileSync(path.join(root, 'www', 'index.html'), 'old');
      server.failAfter = after;
      const state = await upload();
      expect(state.there).toEqual(files.slice(0, after).map(([name]) => name));
      expect(state.stopped?.path).toBe(files[after]![0]);
      // no page before its sheets
      if (after < 3) expect(fs.readFileSync(path.join(root, 'www', 'index.html'), 'utf8')).toBe('old');
      server.failAfter = files.length - after;
      expect((await upload()).there).toHaveLength(5);
      server.failAfter = 0;
      // all is there: nothing is written again
      expect((await upload()).stopped).toBeUndefined();
      server.failAfter = undefined;
    }
  });

  test('a wrong password, another machine, nobody there: said in words, nothing sent', async () => {
    const key = await keyOf(address());
    await expect(open(address({ password: 'ebb' }), key)).rejects.toThrow('does not take this name and password');
    await expect(open(address(), 'SHA256:another')).rejects.toThrow('another machine than before');
    await expect(keyOf({ host: '127.0.0.1', port: 1 })).rejects.toThrow('Nobody answers at 127.0.0.1, port 1');
    expect(onServer()).toEqual([]);
  });

  test('stopped by its owner: nothing after that', async () => {
    const remote = await open(address(), await keyOf(address()));
    let told = 0;
    const state = await uploadFiles(
      remote,
      files,
      () => told++,
      () => told >= 2,
    );
    remote.close();
    expect(state).toMatchObject({ there: ['img/x.png', 'css/site.css'], stopped: { path: 'css/print.css' } });
  });
});
