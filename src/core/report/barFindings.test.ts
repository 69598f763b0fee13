import { rebar } from '#core/editing';
import { part, tune } from '../testing/tunes';
import { reportTune } from './report';

const barCodes = (t: ReturnType<typeof tune>) =>
  reportTune(t).findings.flatMap(({ code, spot }) =>
    /^bar-|^join/.test(code) ? [`${code} ${spot.part}${spot.bar}`] : [],
  );

test('a bar that holds too much or too little is told with its place and both lengths', () => {
  const t = tune([part('A', 'D4:8 | E4:8 F#4 | G4:6 | A4:8')]);
  expect(barCodes(t)).toEqual(['bar-long A2', 'bar-short A3']);
  expect(reportTune(t).findings.find(({ code }) => code === 'bar-long')).toMatchObject({
    length: { n: 9, d: 8 },
    expected: { n: 1, d: 1 },
    ids: ['A2', 'A3'],
  });
});

test('the mend of an overfull bar leaves no bar that does not add up behind it', () => {
  const t = tune([part('A', 'D4:8 | E4:8 F#4 | G4:7 | A4:8')]);
  const mend = reportTune(t).findings.find(({ code }) => code === 'bar-long')!.mends[0]!;
  expect(barCodes(rebar(t, (mend as Extract<typeof mend, { deed: 'rebar' }>).barId))).toEqual([]);
});

test('where only the tune begun again does not add up it is a note', () => {
  const once = tune([part('A', 'D4 | E4:8 | F#4:6')]);
  expect(reportTune(once).findings.filter(({ code }) => code === 'join-does-not-add-up')).toMatchObject([
    { from: 'A1', to: null, severity: 'note' },
  ]);
});

test('pickup and last bar are told on the path where they do not make a bar', () => {
  const fits = tune([part('A', 'D4 | E4:8 | F#4:7')], { form: ['A', 'A'] });
  expect(barCodes(fits)).toEqual([]);
  const misfits = tune([part('A', 'D4 | E4:8 | F#4:8')], { form: ['A', 'A'] });
  expect(reportTune(misfits).findings.filter(({ code }) => code === 'join-does-not-add-up')).toMatchObject([
    { from: 'A1', to: 'A2', severity: 'care', length: { n: 9, d: 8 } },
  ]);
});
