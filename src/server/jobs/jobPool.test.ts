import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { DEFAULT_SETTINGS, playerSettings } from '#contract/settings';
import { readAbc } from '#formats/abc';
import { jobPool } from './jobPool';
import { JOB_LIMITS, type JobName, jobsHere } from './jobs';

const SCRIPT = pathToFileURL(path.resolve('src/server/jobs/jobs.worker.ts'));
const settings = playerSettings(DEFAULT_SETTINGS);
const { tune } = readAbc('X:1\nT:Sent away\nM:4/4\nL:1/8\nK:D\n|:d2 (AF) DFA2:|\n').tunes[0]!;
const document = JSON.stringify(tune);
const bytes = (value: unknown) => Buffer.from(JSON.stringify(value));
const limitsWith = (name: JobName, ms: number) => ({ ...JOB_LIMITS, [name]: { ...JOB_LIMITS[name], ms } });

test('a job on another thread answers as it does here, and refuses in the same words', async () => {
  const pool = jobPool(SCRIPT);
  expect(await pool.jobs.countTunes([document], settings)).toEqual(await jobsHere.countTunes([document], settings));
  expect(await pool.jobs.readSave(bytes({ baseRevision: 3, tune }))).toEqual({ baseRevision: 3, document });
  await expect(pool.jobs.readSave(bytes({ tune: { ...tune, form: ['Z'] } }))).rejects.toMatchObject({
    code: 'bad-tune',
    details: expect.arrayContaining([{ path: 'tune.form.0', message: expect.any(String) as string }]) as unknown,
  });
  await expect(pool.jobs.readSave(Buffer.from('{"baseRevision"'))).rejects.toMatchObject({ code: 'bad-request' });
  await pool.stop();
});

test('a job over its time is given up with its thread, and the next one is worked on', async () => {
  const pool = jobPool(SCRIPT, { limits: limitsWith('countNow', 1) });
  await expect(pool.jobs.countNow([document], settings)).rejects.toMatchObject({ code: 'too-much-work' });
  expect(await pool.jobs.headTunes([document], settings)).toHaveLength(1);
  await pool.stop();
});

test('jobs that end with the threads are not said to be too much', async () => {
  const pool = jobPool(SCRIPT);
  const long = Array.from({ length: 4 }, () => pool.jobs.countTunes(Array(300).fill(document) as string[], settings));
  const ends = Promise.allSettled(long);
  await pool.jobs.headTunes([document], settings);
  await pool.stop();
  const reasons = (await Promise.race([ends, new Promise<[]>((go) => setTimeout(() => go([]), 2000))])).map((end) =>
    end.status === 'rejected' ? (end.reason as { code: string }).code : end.status,
  );
  expect(reasons).not.toContain('too-much-work');
});

test('a job over its memory is given up, and the process goes on', async () => {
  const pool = jobPool(SCRIPT, { maxHeapMb: 48 });
  const many = bytes({ melodies: Array.from({ length: 300_000 }, () => ({ print: [1], pitches: [60, 62, 64] })) });
  await expect(pool.jobs.readLikenessAsked(many)).rejects.toMatchObject({ code: 'too-much-work' });
  await pool.stop();
});

test('no number of long jobs keeps a quick one waiting, and beyond a number they are turned away', async () => {
  const pool = jobPool(SCRIPT);
  await pool.jobs.headTunes([document], settings);
  const long = Array.from({ length: 100 }, () =>
    pool.jobs.countTunes(Array(40).fill(document) as string[], settings).then(
      () => 'done',
      (error: unknown) => (error as { code: string }).code,
    ),
  );
  let done = 0;
  for (const one of long) void one.then((end) => (done += Number(end === 'done')));
  await pool.jobs.readSave(bytes({ baseRevision: 1, tune }));
  expect(done).toBeLessThan(60);
  const ends = await Promise.all(long);
  expect(ends.filter((end) => end === 'busy').length).toBeGreaterThan(20);
  expect(ends.filter((end) => end === 'done').length).toBeGreaterThan(60);
  await pool.stop();
});

test('what takes minutes has a lane of its own: a copy of the whole book keeps nobody waiting', () => {
  const slow = Object.entries(JOB_LIMITS).filter(([, { ms }]) => ms > 120_000);
  expect(slow.map(([name, { lane }]) => [name, lane])).toEqual([
    ['keepCopyFile', 'backup'],
    ['verifyBackupFile', 'backup'],
    ['restoreBackupFile', 'backup'],
  ]);
  expect(Object.values(JOB_LIMITS).filter(({ lane }) => lane === 'backup')).toHaveLength(slow.length);
});
