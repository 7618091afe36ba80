// npm run kills [times] [seed]: `npm start` on a folder of its own, people at work in it, and something killed again and again.
// Whatever the server said is there must be there afterwards, byte for byte; what it was busy with is there whole or not at all.
import { Installation, killed, type Victim } from './installation.ts';
import { dice } from './dice.ts';
import { answered, Person } from './person.ts';

const times = Number(process.argv[2] ?? 10);
const seed = Number(process.argv[3] ?? Date.now() % 1_000_000);
const roll = dice(seed);
console.log(`${times} kills, seed ${seed}`);

const installation = new Installation();
const people = [1, 2, 3].map((n) => new Person(`person ${n}`, installation.origin, roll));
const faults: string[] = [];
try {
  await installation.start();
  for (let n = 1; n <= times && faults.length === 0; n++) {
    const victim = killed[roll(killed.length)]!;
    const work = people.map((person) => person.work());
    await new Promise((f) => setTimeout(f, 100 + roll(1500)));
    people.forEach((person) => person.stopSoon());
    await installation.kill(victim);
    await Promise.all(work);
    await comeBack(victim);
    for (const person of people) faults.push(...(await person.check()));
    faults.push(...(await strangers()).map((one) => `after ${victim}: ${one}`));
    console.log(`${n} ${victim}: ${people.map((person) => person.told()).join('; ')}`);
  }
  faults.push(...(await installation.stop()));
} catch (error) {
  faults.push(String((error as Error).stack ?? error), ...(await installation.stop()));
}
for (const fault of faults) console.error(`FAULT ${fault}`);
if (faults.length > 0) console.error(installation.lines());
process.exitCode = faults.length > 0 ? 1 : 0;

/** A start may be killed as well, before it is through. */
async function comeBack(victim: Victim): Promise<void> {
  while (victim !== 'connection' && victim !== 'database' && roll(4) === 0) await installation.startAndKill(roll(3000));
  await installation.answersAgain();
}

/** Sites that nobody brought in, or that were brought in by halves. */
async function strangers(): Promise<readonly string[]> {
  const { sites } = (await (await answered(`${installation.origin}/api/sites`)).json()) as { sites: { id: string }[] };
  const known = new Set(people.flatMap((person) => person.siteIds()));
  const { imports } = (await (await answered(`${installation.origin}/api/imports`)).json()) as {
    imports: { status: string }[];
  };
  return [
    ...sites.filter(({ id }) => !known.has(id)).map(({ id }) => `site ${id} is nobody's`),
    ...imports.filter(({ status }) => /reading|looking|storing/.test(status)).map(() => 'an import never ends'),
  ];
}
