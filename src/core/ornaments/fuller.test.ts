import { ornamentSceneOf, reportTune } from '#core/report';
import { type Tune, writtenNotes } from '#core/tune';
import { part, tune } from '../testing/tunes';
import { easierVersions } from './easier';
import { fullerVersions } from './fuller';

const plain = tune([part('A', 'B4:3 A4 F#4:3 E4 | D5:3 A5 F#5:3 E5 | D5:4 A4:4')], { form: ['A', 'A'] });
const fuller = (of: Tune) => fullerVersions(ornamentSceneOf(reportTune(of)));

test('a fuller version puts layers on one after the other; what was there stays', () => {
  const steps = fuller(plain);
  expect(steps.map(({ on }) => on)).toEqual(expect.arrayContaining(['drones on stressed beats']));
  let before = 0;
  for (const { tune: next, notes } of steps) {
    const laden = writtenNotes(next).reduce((sum, { marks, drone }) => sum + (marks?.length ?? 0) + (drone ? 1 : 0), 0);
    expect(laden).toBe(before + notes);
    before = laden;
  }
  // The melody is the same.
  const sounding = (of: Tune) => writtenNotes(of).map(({ pitch, duration }) => [pitch, duration]);
  expect(sounding(steps.at(-1)!.tune)).toEqual(sounding(plain));
});

test('taken off again layer by layer, a fuller version is the plain one', () => {
  const full = fuller(plain).at(-1)!.tune;
  const bare = easierVersions(full).find(({ off }) => off === 'drones')!.tune;
  expect(writtenNotes(bare)).toEqual(writtenNotes(plain));
});

test('where drones sound already none are added', () => {
  const droned = fuller(plain).at(-1)!.tune;
  expect(fuller(droned).map(({ on }) => on)).not.toContain('drones on stressed beats');
});
