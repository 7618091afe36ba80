import readline from 'node:readline/promises';
import { Writable } from 'node:stream';
import { connect, migrate } from './db/connect.ts';
import { makePeopleService } from './features/people/index.ts';
import { Refusal } from './http/refusal.ts';
import { makeSequelizePeopleStore } from './stores/sequelizePeopleStore.ts';

/** `npm run people`: who may sign in, by those who may open the database. */
const usage = `npm run people -- list
npm run people -- add NAME [--administrator]
npm run people -- password NAME
npm run people -- remove NAME
The password is asked for, or read from the first line of standard input.`;

const sequelize = connect(process.env['DATABASE_URL']!, 2);
const people = makePeopleService(makeSequelizePeopleStore(sequelize));
const [task, name, ...flags] = process.argv.slice(2);

try {
  await migrate(sequelize);
  process.exitCode = await run();
} catch (error) {
  if (!(error instanceof Refusal)) throw error;
  process.stderr.write(`${error.message}\n`);
  process.exitCode = 2;
} finally {
  await sequelize.close();
}

async function run(): Promise<number> {
  if (task === 'list' && name === undefined) {
    for (const { name, isAdministrator } of await people.list())
      say(`${name}${isAdministrator ? ', administrator' : ''}`);
    return 0;
  }
  const isAdministrator = flags.includes('--administrator');
  if (
    name === undefined ||
    flags.length > (task === 'add' && isAdministrator ? 1 : 0) ||
    !/^\S(.{0,98}\S)?$/.test(name)
  )
    return misused();
  if (task === 'add') {
    await people.add({ name, password: await askPassword(), isAdministrator });
    say(`${name} may sign in${isAdministrator ? ', as an administrator' : ''}.`);
    return 0;
  }
  const person = (await people.list()).find((one) => one.name.toLowerCase() === name.toLowerCase());
  if (!person) throw new Refusal('person-not-found', `Nobody here is named ${name}.`);
  if (task === 'password') {
    await people.setPassword(person.id, await askPassword());
    say(`The password of ${person.name} is changed, and ${person.name} signed out everywhere.`);
  } else if (task === 'remove') {
    await people.remove(person.id);
    say(`${person.name} is removed. Sites and what was saved stay.`);
  } else return misused();
  return 0;
}

function misused(): number {
  process.stderr.write(`${usage}\n`);
  return 2;
}

async function askPassword(): Promise<string> {
  const isTyped = process.stdin.isTTY;
  // what is typed is not shown
  const quiet = new Writable({ write: (_text, _encoding, done) => done() });
  const lines = readline.createInterface({ input: process.stdin, output: quiet, terminal: isTyped });
  try {
    const ask = async (words: string): Promise<string> => {
      if (isTyped) process.stdout.write(words);
      const text = isTyped ? await lines.question('') : await firstLine(lines);
      if (isTyped) process.stdout.write('\n');
      return text;
    };
    const password = await ask('Password (10 characters at least): ');
    if (password.length < 10 || password.length > 200)
      throw new Refusal('bad-request', 'A password has 10 to 200 characters. Nothing was changed.');
    if (isTyped && (await ask('Once more: ')) !== password)
      throw new Refusal('bad-request', 'These are two passwords. Nothing was changed.');
    return password;
  } finally {
    lines.close();
  }
}

async function firstLine(lines: AsyncIterable<string>): Promise<string> {
  for await (const line of lines) return line;
  return '';
}

function say(text: string): void {
  process.stdout.write(`${text}\n`);
}
