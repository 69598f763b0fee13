import { bestFirst, rankTunings } from '#core/crossTuning';
import { droneLine } from '#core/drones';
import { FREE_HAND, searchFingering } from '#core/fingering';
import { defaultSettings, droneSceneOf, reportTune } from '#core/report';
import { parseTuning, STANDARD_TUNING, TUNINGS } from '#core/tuning';
import { readAbc } from '#formats/abc';
import { sideBySide } from './figures.mjs';
import { longReel } from './longTune.mjs';

/** Ranking of twelve tunings may take so long. */
const MAX_RANKING_MS = 1000;
const OWN = ['G3 D4 A4 D5', 'A3 D4 A4 D5', 'G3 C4 G4 D5', 'F3 C4 A4 E5'];

export function benchHand() {
  const { tune } = readAbc(longReel()).tunes[0];
  const report = reportTune(tune);
  const { unrolled, settings } = report;
  const count = () => reportTune({ ...tune }).findings.length;
  const rounds = { rounds: 60, warmUp: 20 };
  const [reportMs, fingeringMs] = sideBySide(
    count,
    () => searchFingering({ ...tune }, unrolled, FREE_HAND, settings.instrument).cost,
    rounds,
  );
  const [againMs, dronesMs] = sideBySide(
    count,
    () => droneLine(droneSceneOf({ ...report }), 0, unrolled.notes.length, 'stressed').cost,
    rounds,
  );
  const tunings = [...TUNINGS, ...OWN.map((strings) => ({ name: strings, tuning: parseTuning(strings) }))];
  const rank = () => bestFirst([...rankTunings(tune, tunings, STANDARD_TUNING, defaultSettings())]).length;
  const [, rankMs] = sideBySide(count, rank, { rounds: 8, warmUp: 3 });
  const row = (what, ms, against) => ({
    what,
    against: 'its report',
    ratio: (ms / against).toFixed(2),
    bar: 'at most 1',
    ms: `${ms.toFixed(1)} against ${against.toFixed(1)}`,
    holds: ms <= against,
  });
  return [
    row('fingering of 64 bars', fingeringMs, reportMs),
    row('drone line of 64 bars, as played', dronesMs, againMs),
    {
      what: `${tunings.length} tunings ranked for 64 bars`,
      against: 'its report',
      ratio: (rankMs / reportMs).toFixed(1),
      bar: `${MAX_RANKING_MS} ms`,
      ms: rankMs.toFixed(0),
      holds: rankMs <= MAX_RANKING_MS,
    },
  ];
}
