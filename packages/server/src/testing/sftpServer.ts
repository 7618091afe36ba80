import { generateKeyPairSync } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import type { AddressInfo } from 'node:net';
import ssh2, { type Attributes, type Connection, type SFTPWrapper } from 'ssh2';

const { Server, utils } = ssh2;
const { STATUS_CODE, OPEN_MODE } = utils.sftp;

export interface SimulatedServer {
  readonly port: number;
  /** Writes fail from now on after so many more; undefined: none. */
  failAfter: number | undefined;
  readonly close: () => Promise<void>;
}

/** A small SFTP server on loopback that serves a folder to one person. */
export async function startSftpServer(root: string, user: string, password: string): Promise<SimulatedServer> {
  const state = { failAfter: undefined as number | undefined };
  const { privateKey: key } = generateKeyPairSync('rsa', {
    modulusLength: 2048,
    privateKeyEncoding: { type: 'pkcs1', format: 'pem' },
    publicKeyEncoding: { type: 'pkcs1', format: 'pem' },
  });
  const connections = new Set<Connection>();
  const server = new Server({ hostKeys: [key] }, (client) => {
    connections.add(client);
    (client as Connection & { setNoDelay(on: boolean): void }).setNoDelay(true);
    client.on('authentication', (asked) => {
      if (asked.method === 'password' && asked.username === user && asked.password === password) asked.accept();
      else asked.reject(['password']);
    });
    client.on('session', (accept) => accept().on('sftp', (open) => serve(open(), root, state)));
    client.on('error', () => undefined);
    client.on('close', () => connections.delete(client));
  });
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  return Object.assign(state, {
    port: (server.address() as AddressInfo).port,
    close: () => new Promise<void>((done) => {
      for (const one of connections) one.end();
      server.close(() => done());
    }),
  });
} // oxfmt-ignore

function serve(sftp: SFTPWrapper, root: string, state: { failAfter: number | undefined }): void {
  const handles = new Map<number, number>();
  let next = 0;
  const at = (name: string): string => path.join(root, path.posix.normalize(`/${name}`));
  /** What the file system says becomes a status of the protocol. */
  const answer = (id: number, act: () => void): void => {
    try {
      act();
    } catch (error) {
      const { code } = error as NodeJS.ErrnoException;
      sftp.status(id, code === 'ENOENT' ? STATUS_CODE.NO_SUCH_FILE : STATUS_CODE.FAILURE);
    }
  };
  const attributes = (name: string): Attributes => {
    const { mode, uid, gid, size, atimeMs, mtimeMs } = fs.statSync(at(name));
    return { mode, uid, gid, size, atime: Math.floor(atimeMs / 1000), mtime: Math.floor(mtimeMs / 1000) };
  };
  const fdOf = (handle: Buffer): number => handles.get(handle.readUInt32BE(0))!;
  sftp.on('OPEN', (id, name, flags) =>
    answer(id, () => {
      const writes = (flags & OPEN_MODE.WRITE) !== 0;
      if (writes && state.failAfter !== undefined && state.failAfter-- <= 0) throw new Error('the line broke');
      const handle = Buffer.alloc(4);
      handle.writeUInt32BE(next);
      handles.set(next++, fs.openSync(at(name), writes ? 'w' : 'r'));
      sftp.handle(id, handle);
    }),
  );
  sftp.on('READ', (id, handle, offset, length) =>
    answer(id, () => {
      const bytes = Buffer.alloc(length);
      const read = fs.readSync(fdOf(handle), bytes, 0, length, offset);
      if (read === 0) sftp.status(id, STATUS_CODE.EOF);
      else sftp.data(id, bytes.subarray(0, read));
    }),
  );
  sftp.on('WRITE', (id, handle, offset, data) =>
    answer(id, () => {
      fs.writeSync(fdOf(handle), data, 0, data.length, offset);
      sftp.status(id, STATUS_CODE.OK);
    }),
  );
  sftp.on('CLOSE', (id, handle) =>
    answer(id, () => {
      fs.closeSync(fdOf(handle));
      sftp.status(id, STATUS_CODE.OK);
    }),
  );
  sftp.on('FSTAT', (id, handle) =>
    answer(id, () => sftp.attrs(id, { ...attributes('/'), size: fs.fstatSync(fdOf(handle)).size })),
  );
  for (const name of ['STAT', 'LSTAT'] as const)
    sftp.on(name, (id: number, of: string) => answer(id, () => sftp.attrs(id, attributes(of))));
  for (const name of ['SETSTAT', 'FSETSTAT'] as const) sftp.on(name, (id: number) => sftp.status(id, STATUS_CODE.OK));
  const done = (id: number, act: () => void): void =>
    answer(id, () => {
      act();
      sftp.status(id, STATUS_CODE.OK);
    });
  sftp.on('MKDIR', (id, name) => done(id, () => fs.mkdirSync(at(name))));
  sftp.on('REMOVE', (id, name) => done(id, () => fs.unlinkSync(at(name))));
  sftp.on('RENAME', (id, from, to) =>
    done(id, () => {
      // as the protocol has it: not over a file that is there
      if (fs.existsSync(at(to))) throw new Error('it is there');
      fs.renameSync(at(from), at(to));
    }),
  );
}
