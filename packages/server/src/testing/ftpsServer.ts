import fs from 'node:fs';
import net, { type AddressInfo, type Socket } from 'node:net';
import path from 'node:path';
import tls from 'node:tls';
import { generate } from 'selfsigned';
import type { SimulatedServer } from './sftpServer.ts';

/** A small server of explicit FTPS (RFC 959, RFC 4217) on loopback that serves a folder to one person. */
export async function startFtpsServer(root: string, user: string, password: string): Promise<SimulatedServer> {
  const state = { failAfter: undefined as number | undefined };
  const { private: key, cert } = await generate([{ name: 'commonName', value: 'ferry.test' }], { keySize: 2048 });
  const context = tls.createSecureContext({ key, cert });
  const sockets = new Set<Socket>();
  const track = <One extends Socket>(socket: One): One => {
    sockets.add(socket);
    socket.setNoDelay(true);
    socket.on('error', () => undefined);
    socket.on('close', () => sockets.delete(socket));
    return socket;
  };
  const server = net.createServer((socket) => {
    talk(track(socket), { root, user, password, context, state, track });
  });
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  return Object.assign(state, {
    port: (server.address() as AddressInfo).port,
    close: () => new Promise<void>((done) => {
      for (const one of sockets) one.destroy();
      server.close(() => done());
    }),
  });
} // oxfmt-ignore

interface Talk {
  readonly root: string;
  readonly user: string;
  readonly password: string;
  readonly context: tls.SecureContext;
  readonly state: { failAfter: number | undefined };
  readonly track: <One extends Socket>(socket: One) => One;
}

function talk(plain: Socket, { root, user, password, context, state, track }: Talk): void {
  let socket: Socket = plain;
  let named = '';
  let isIn = false;
  let from = '';
  let data: Promise<tls.TLSSocket> | undefined;
  const at = (name: string): string => path.join(root, path.posix.normalize(`/${name}`));
  const say = (line: string): void => void socket.write(`${line}\r\n`);
  const attempt = (act: () => string): void => {
    try {
      say(act());
    } catch {
      say('550 That cannot be done');
    }
  };
  const listen = (): void => {
    const passive = net.createServer();
    data = new Promise((resolve) => passive.once('connection', (one) => {
      resolve(track(new tls.TLSSocket(track(one), { isServer: true, secureContext: context })));
      passive.close();
    })); // oxfmt-ignore
    passive.listen(0, '127.0.0.1', () => say(`229 Extended passive (|||${(passive.address() as AddressInfo).port}|)`));
  };
  const commands: Readonly<Record<string, (said: string) => void>> = {
    AUTH: () => {
      say('234 Go on in TLS');
      plain.removeListener('data', hear);
      socket = track(new tls.TLSSocket(plain, { isServer: true, secureContext: context }));
      socket.on('data', hear);
    },
    USER: (said) => {
      named = said;
      say('331 And the password');
    },
    PASS: (said) => {
      isIn = named === user && said === password;
      say(isIn ? '230 Come in' : '530 Not so');
    },
    PBSZ: () => say('200 0'),
    PROT: () => say('200 Private'),
    TYPE: () => say('200 Bytes'),
    STRU: () => say('200 Files'),
    OPTS: () => say('200 So be it'),
    FEAT: () => say('211-Features\r\n EPSV\r\n SIZE\r\n UTF8\r\n211 End'),
    PWD: () => say('257 "/"'),
    CWD: (said) => attempt(() => (fs.statSync(at(said)).isDirectory() ? '250 There' : '550 No folder')),
    EPSV: listen,
    SIZE: (said) => attempt(() => `213 ${fs.statSync(at(said)).size}`),
    MKD: (said) => attempt(() => (fs.mkdirSync(at(said)), `257 "${said}"`)),
    RNFR: (said) => attempt(() => (fs.statSync(at(said)), (from = said), '350 And to')),
    RNTO: (said) => attempt(() => (fs.renameSync(at(from), at(said)), '250 Renamed')),
    RETR: (said) => {
      if (!fs.existsSync(at(said))) {
        say('550 No such file');
        return;
      }
      say('150 Here it comes');
      void data!.then((line) => line.end(fs.readFileSync(at(said)), () => say('226 Done')));
    },
    STOR: (said) => {
      if (state.failAfter !== undefined && state.failAfter-- <= 0) {
        say('451 The line broke');
        return;
      }
      say('150 Send it');
      void data!.then((line) => {
        const parts: Buffer[] = [];
        line.on('data', (part: Buffer) => parts.push(part));
        line.on('end', () => {
          fs.writeFileSync(at(said), Buffer.concat(parts));
          say('226 Kept');
        });
      });
    },
    QUIT: () => say('221 Bye'),
  };
  let rest = '';
  function hear(part: Buffer): void {
    rest += part.toString();
    for (let end = rest.indexOf('\r\n'); end >= 0; end = rest.indexOf('\r\n')) {
      const line = rest.slice(0, end);
      rest = rest.slice(end + 2);
      const [word = '', ...said] = line.split(' ');
      const isOpen = /^(AUTH|USER|PASS|PBSZ|PROT|FEAT|QUIT)$/.test(word);
      if (!isIn && !isOpen) say('530 Say who you are');
      else (commands[word.toUpperCase()] ?? (() => say('502 Not here')))(said.join(' '));
    }
  }
  plain.on('data', hear);
  say('220 Ferry');
}
