import { pitchName } from '#core/pitch';
import { writtenNotes } from '#core/tune';
import { twinFigures } from '#core/twins';
import { readAbc } from '#formats/abc';
import { sideBySide } from './figures.mjs';
import { longReel } from './longTune.mjs';

/** Most that finding twins may cost, in times of one linear scan of the same tune. */
const MAX_SCANS = 10;

export function benchTwins() {
  const medley = readAbc(longReel({ bars: 300 })).tunes[0].tune;
  // The scan a naive reader makes: each note named once and counted.
  const scan = () => {
    const counts = new Map();
    for (const { pitch, duration, link } of writtenNotes(medley)) {
      const name = `${pitchName(pitch)} ${duration.n}/${duration.d} ${link}`;
      counts.set(name, (counts.get(name) ?? 0) + 1);
    }
    return counts.size;
  };
  const [scanMs, twinsMs] = sideBySide(scan, () => twinFigures({ ...medley }).length, { rounds: 60, warmUp: 20 });
  const ratio = twinsMs / scanMs;
  return [
    {
      what: `twins of a medley of 300 bars, ${writtenNotes(medley).length} notes`,
      against: 'one scan of its notes',
      ratio: ratio.toFixed(1),
      bar: `at most ${MAX_SCANS}`,
      ms: `${twinsMs.toFixed(1)} against ${scanMs.toFixed(1)}`,
      holds: ratio <= MAX_SCANS,
    },
  ];
}
