import { createHash } from 'node:crypto';
import { Client, type ConnectConfig, type SFTPWrapper } from 'ssh2';
import { asFolder, foldersOf, RemoteProblem, type Remote, type RemoteAddress } from './remote.ts';

/** Ciphers that Node's own cryptography has come first: others are computed in JavaScript. */
const algorithms: NonNullable<ConnectConfig['algorithms']> = {
  cipher: { prepend: ['aes128-gcm@openssh.com', 'aes256-gcm@openssh.com'], append: [], remove: [] },
};

/** The key of the machine that answers, as `ssh-keygen -l` writes it: `SHA256:…`. Nothing is sent to it but the question. */
export async function sftpKey({ host, port }: Pick<RemoteAddress, 'host' | 'port'>): Promise<string> {
  return new Promise((resolve, reject) => {
    const client = new Client();
    let key = '';
    client.on('error', (error) => (key === '' ? reject(new RemoteProblem(inWords(error, host, port))) : resolve(key)));
    client.connect({
      host,
      port,
      username: 'nobody',
      readyTimeout: 15_000,
      algorithms,
      hostVerifier: (found: Buffer) => {
        key = fingerprint(found);
        return false;
      },
    });
  });
}

/** `key`: the fingerprint the machine has to have. */
export async function openSftp(address: RemoteAddress, key: string): Promise<Remote> {
  const { host, port, user, password, folder } = address;
  const client = new Client();
  const sftp = await new Promise<SFTPWrapper>((resolve, reject) => {
    let isOther = false;
    // small questions do not wait for each other
    client.on('connect', () => client.setNoDelay(true));
    client.on('ready', () =>
      client.sftp((error, made) =>
        error ? reject(new RemoteProblem(`${host} gives no SFTP: ${error.message}`)) : resolve(made),
      ),
    );
    client.on('error', (error) =>
      reject(
        new RemoteProblem(
          isOther
            ? `${host} is another machine than before: its key is not ${key}. Nothing was sent to it.`
            : inWords(error, host, port),
        ),
      ),
    );
    client.connect({
      host,
      port,
      username: user,
      password,
      readyTimeout: 15_000,
      algorithms,
      hostVerifier: (found: Buffer) => {
        isOther = fingerprint(found) !== key;
        return !isOther;
      },
    });
  });
  const root = asFolder(folder);
  const ask = <Answer>(
    how: (done: (error: Error | null | undefined, answer?: Answer) => void) => void,
  ): Promise<Answer> =>
    new Promise((resolve, reject) => how((error, answer) => (error ? reject(error) : resolve(answer as Answer))));
  const isMissing = (error: unknown): boolean => (error as { code?: number } | undefined)?.code === 2;
  const known = new Set<string>();
  return {
    async read(path) {
      try {
        return await ask<Buffer>((done) => sftp.readFile(root + path, done));
      } catch (error) {
        if (isMissing(error)) return undefined;
        throw error;
      }
    },
    async size(path) {
      try {
        return (await ask<{ size: number }>((done) => sftp.stat(root + path, done))).size;
      } catch (error) {
        if (isMissing(error)) return undefined;
        throw error;
      }
    },
    async write(path, bytes) {
      for (const one of foldersOf(path)) {
        if (known.has(one)) continue;
        // it may be there already
        await ask((done) =>
          sftp.mkdir(root + one, (error) => done((error as { code?: number } | null)?.code === 4 ? null : error)),
        );
        known.add(one);
      }
      const part = `${root}${path}.part`;
      await ask((done) => sftp.writeFile(part, bytes, done));
      try {
        await ask((done) => sftp.ext_openssh_rename(part, root + path, done));
      } catch {
        // a server without that extension renames to free names only
        await ask((done) => sftp.unlink(root + path, (error) => done(isMissing(error) ? null : error)));
        await ask((done) => sftp.rename(part, root + path, done));
      }
    },
    close: () => client.end(),
  };
}

const fingerprint = (key: Buffer): string =>
  `SHA256:${createHash('sha256').update(key).digest('base64').replace(/=+$/, '')}`;

function inWords(
  error: Error & { readonly level?: string; readonly code?: string },
  host: string,
  port: number,
): string {
  if (error.level === 'client-authentication') return `${host} does not take this name and password.`;
  if (error.code === 'ECONNREFUSED') return `Nobody answers at ${host}, port ${port}.`;
  if (error.code === 'ENOTFOUND' || error.code === 'EAI_AGAIN') return `There is no machine ${host}.`;
  if (error.level === 'client-timeout') return `${host} does not answer in time.`;
  return `${host}: ${error.message}`;
}
