import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

/** What the start script says of a folder: it runs on Node alone, as a module that Jest cannot load. */
function say(expression: string, folder: string): string {
  const program = `import * as own from './scripts/lib/postgres.mjs'; const dir = process.argv[1]; process.stdout.write(String(${expression}));`;
  return execFileSync(process.execPath, ['--input-type=module', '-e', program, folder], { encoding: 'utf8' });
}
const stateOf = (folder: string) => say('own.clusterState(dir)', folder);

let parent: string;
let folder: string;
beforeEach(() => {
  parent = mkdtempSync(path.join(tmpdir(), 'morrin-cluster-'));
  folder = path.join(parent, 'postgres');
});
afterEach(() => rmSync(parent, { recursive: true, force: true }));

const put = (...names: string[]) => {
  mkdirSync(folder, { recursive: true });
  for (const name of names) writeFileSync(path.join(folder, name), name);
};

test('a database on which a server ran is whole, also where the mark beside it is missing', () => {
  put('PG_VERSION', 'postmaster.opts');
  expect(stateOf(folder)).toBe('whole');
  writeFileSync(`${folder}.complete`, '');
  expect(stateOf(folder)).toBe('whole');
});

test('one that was just made is whole by its mark, one that a killed start left is not, and an empty folder is none', () => {
  expect(stateOf(folder)).toBe('none');
  put();
  expect(stateOf(folder)).toBe('none');
  put('PG_VERSION', 'postgresql.conf');
  expect(stateOf(folder)).toBe('half-made');
  writeFileSync(`${folder}.complete`, '');
  expect(stateOf(folder)).toBe('whole');
});

test('what is in the way is set aside under a name of its own, with all that it holds', () => {
  put('PG_VERSION', 'the book');
  const now = "new Date('2026-11-29T05:06:07Z')";
  const [first, second] = [0, 1].map(() => {
    put('the book');
    return say(`own.setAside(dir, ${now})`, folder);
  });
  expect(path.basename(first!)).toBe('postgres.aside-20261129050607');
  expect(path.basename(second!)).toBe('postgres.aside-20261129050607-1');
  for (const aside of [first!, second!]) expect(readFileSync(path.join(aside, 'the book'), 'utf8')).toBe('the book');
  expect(existsSync(folder)).toBe(false);
  expect(say('own.setAside(dir)', folder)).toBe('null');
  expect(readdirSync(parent)).toHaveLength(2);
});

test('a number left behind that another program has by now is nobody to be ended', () => {
  // This very process is alive and serves no database.
  expect(say(`own.isServerOf(${process.pid}, dir)`, folder)).toBe('false');
  expect(say('own.isServerOf(1, dir)', folder)).toBe('false');
  expect(say('own.isServerOf(999999999, dir)', folder)).toBe('false');
});

test('a database made by another PostgreSQL is opened by that one, or it is said which is missing', () => {
  put('PG_VERSION');
  writeFileSync(path.join(folder, 'PG_VERSION'), '3\n');
  expect(() => say("own.programsFor(dir, '/newest')", folder)).toThrow(/made by PostgreSQL 3, which is not here/);
  rmSync(path.join(folder, 'PG_VERSION'));
  expect(say("own.programsFor(dir, '/newest')", folder)).toBe('/newest');
});

/** Runs what keeps things running over starts that fail or live so long, on a clock of its own; tells the waits. */
function waits(lives: readonly (number | 'fails' | 'final')[]): string {
  const program = `
    import { keepRunning } from './scripts/lib/backoff.mjs';
    const lives = JSON.parse(process.argv[1]); let clock = 0, k = 0; const told = [];
    const start = async () => {
      const life = lives[k++];
      if (typeof life === 'string') throw Object.assign(new Error(life), { isFinal: life === 'final' });
      return { ended: { then: (go) => { clock += life; go(); } } };
    };
    keepRunning({ start, isStopping: () => k >= lives.length, tell: (_error, wait) => told.push(wait), sleep: async (ms) => { clock += ms; }, now: () => clock })
      .then(() => console.log(told.join(' ')), (error) => console.log(told.join(' ') + ' gives up: ' + error.message));`;
  return execFileSync(process.execPath, ['--input-type=module', '-e', program, JSON.stringify(lives)], {
    encoding: 'utf8',
  }).trim();
}

test('what ended is started again after ever longer waits, short ones once it ran for a while, and never given up', () => {
  expect(waits([10, 10, 'fails', 'fails', 5000, 10, 10])).toBe('250 500 1000 2000 250 500');
  expect(waits([10, ...Array<'fails'>(12).fill('fails'), 10])).toMatch(/ 2000 4000( 4000){8}$/);
});

test('what never ran is given up after a few tries, and at once where no other try can mend it', () => {
  expect(waits(Array<'fails'>(20).fill('fails'))).toBe('250 500 1000 2000 4000 gives up: fails');
  expect(waits(['fails', 10, 'fails', 10])).toBe('250 500 1000');
  expect(waits(['final', 10])).toBe('gives up: final');
});
