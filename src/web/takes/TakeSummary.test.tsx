import 'fake-indexeddb/auto';
import { act, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { reportTune } from '#core/report';
import type { TakeFinding } from '#core/take';
import { part, tune } from '../../core/testing/tunes';
import { tuneOpened } from '../openTune/openTuneSlice';
import { fakeServer } from '../testing/fakeServer';
import { renderPage } from '../testing/page';
import { sampleTake } from '../testing/sampleTake';
import type { KeptTake } from './keptTakes';
import { TakeSummary } from './TakeSummary';

const report = reportTune(tune([part('A', 'D4:2 E4:2 F#4:2 G4:2 | A4:2 B4:2 A4:2 G4:2')], { form: ['A', 'A'] }), {
  bpm: 90,
});
const finding = (more: Partial<TakeFinding> = {}): TakeFinding => ({
  code: 'late-finger',
  notes: [5],
  loop: 0,
  seconds: 4.24,
  figure: 61,
  unit: 'ms',
  uncertainty: 6,
  threshold: 40,
  drill: 'finger-before-bow',
  ...more,
});

function show(take: KeptTake) {
  fakeServer();
  const onShow = jest.fn();
  const page = renderPage(<TakeSummary take={take} report={report} tuneId="tide" onShow={onShow} />, {
    path: '/',
    at: '/',
  });
  return { ...page, onShow };
}
const withResult = (result: Partial<KeptTake['result']>, figures: Parameters<typeof sampleTake>[1] = {}): KeptTake => {
  const take = sampleTake({}, figures);
  return { ...take, result: { ...take.result, ...result } };
};
const lines = () => screen.getAllByRole('listitem').map(({ textContent }) => textContent);

test('a clean take says so, with how many notes were heard and its tempo', () => {
  show(sampleTake());
  expect(screen.getByRole('status').textContent).toBe('Clean.');
  expect(lines()).toEqual(['40 of 40 notes heard', 'tempo 90 half notes a minute, steady within 8 ms']);
});

test('a take of which too little was heard is not called clean', () => {
  show(withResult({ clean: false }, { heardNotes: 12 }));
  expect(screen.getByRole('status').textContent).toBe('Only 12 of 40 notes heard.');
});

test('drift, lilt, loudness, holds and creeping fingers have a line each, only where there is something to say', () => {
  show(
    withResult(
      { clipped: 0.02 },
      {
        tempo: { bpm: 88.4, driftPercentPerMinute: 6.2, driftUncertainty: 1.8, steadinessMs: 14.6 },
        lilt: [
          { position: 0, offMs: 30, uncertaintyMs: 1, count: 20 },
          { position: 0.5, offMs: -17.4, uncertaintyMs: 2, count: 20 },
          { position: 0.75, offMs: 9, uncertaintyMs: 12, count: 3 },
        ],
        offbeatDecibels: 2.34,
        holdFactor: 0.8,
        fingers: [
          { place: 2, semitones: 4, cents: 2, centsPerMinute: 11.6, uncertainty: 3.2, count: 9 },
          { place: 1, semitones: 2, cents: 1, centsPerMinute: 3, uncertainty: 0.5, count: 9 },
          // As much as may well be chance.
          { place: 3, semitones: 2, cents: 1, centsPerMinute: 17, uncertainty: 11, count: 5 },
        ],
      },
    ),
  );
  expect(lines().slice(0, 7)).toEqual([
    '40 of 40 notes heard',
    'tempo 88 half notes a minute, steady within 15 ms, 6 ± 2 % a minute quicker',
    '50 % into the beat: 17 ms earlier than planned',
    'off the beat 2.3 dB louder than on it',
    'long notes last 80 % of what is planned',
    'A string, 4 semitones up: creeps 12 ± 3 cents a minute up',
    '2.0 % is cut off: record more softly',
  ]);
});

test('a thing to mend has its place, its figure with uncertainty and threshold, and its drill', async () => {
  const { onShow, router } = show(withResult({ clean: false, findings: [finding()] }));
  expect(screen.getByRole('status').textContent).toBe('1 thing to mend.');
  const place = screen.getByRole('button', { name: /^A1, bar 2/ });
  const item = place.closest('li')!.textContent;
  expect(item).toContain('the finger came 61 ms after the bow');
  expect(item).toContain('± 6 ms, told from 40 ms on, 4.2 s into the take');
  await userEvent.click(place);
  expect(onShow).toHaveBeenCalledWith(['A6']);
  await userEvent.click(screen.getByRole('link', { name: 'Finger before bow' }));
  expect(router.state.location.pathname).toBe('/tunes/tide/practice/drill-finger-before-bow');
});

test('a mistake in the second pass is shown in that pass', async () => {
  const { store } = show(withResult({ clean: false, findings: [finding({ notes: [13], drill: null })] }));
  const record = {
    id: 'tide',
    revision: 1,
    updatedAt: '2026-11-01T00:00:00.000Z',
    hasSource: false,
    tune: report.tune,
  };
  act(() => void store.dispatch(tuneOpened({ record, unsaved: null, at: 0 })));
  await userEvent.click(screen.getByRole('button', { name: /^A2, bar 2/ }));
  expect(store.getState().openTune.open).toMatchObject({ passInView: { A: 2 } });
});
