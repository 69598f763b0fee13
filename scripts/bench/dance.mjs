import { LAYERS, perform } from '#core/performance';
import { reportTune } from '#core/report';
import { render } from '#core/sound';
import { tightSpots, troubleCurve } from '#core/standing';
import { findLilt } from '#core/tempo';
import { readAbc } from '#formats/abc';
import { sideBySide } from './figures.mjs';
import { longReel } from './longTune.mjs';

const TEMPOS = 60;
const MAX_REPORTS = 10;
const MIN_REAL_TIME = 10;
/** Length of the tune that is rendered. */
const RENDERED_SECONDS = 120;

export function benchDance() {
  const { tune } = readAbc(longReel()).tunes[0];
  const bpms = Array.from({ length: TEMPOS }, (_, i) => 60 + 2 * i);
  const count = () => reportTune({ ...tune }).findings.length;
  const check = (lilt) => () => {
    const report = reportTune({ ...tune }, { lilt });
    const { ceiling, floor } = report.figures.check;
    return [troubleCurve(report, bpms).length, tightSpots(report).slice(0, 10).length, ceiling?.ceilingBpm, floor?.bpm];
  };
  const rows = ['straight', 'dotted'].map((name) => {
    const [reportMs, checkMs] = sideBySide(count, check(findLilt(name)), { rounds: 60, warmUp: 20 });
    return {
      what: `dance check of 64 bars over ${TEMPOS} tempos, ${name}`,
      against: 'its report',
      ratio: (checkMs / reportMs).toFixed(2),
      bar: `at most ${MAX_REPORTS}`,
      ms: `${checkMs.toFixed(1)} against ${reportMs.toFixed(1)}`,
      holds: checkMs <= MAX_REPORTS * reportMs,
    };
  });
  const report = reportTune(tune);
  const bpm = (report.settings.bpm * report.timing.total) / RENDERED_SECONDS;
  const { plan } = perform(reportTune(tune, { bpm }), {
    layers: new Set(LAYERS),
    span: null,
    countIn: 0,
    answer: false,
    isHuman: true,
  });
  const began = performance.now();
  const samples = render(plan);
  const seconds = (performance.now() - began) / 1000;
  const ratio = samples.length / 44100 / seconds;
  return [
    ...rows,
    {
      what: `${Math.round(plan.seconds)} s of sound with all layers`,
      against: 'real time',
      ratio: ratio.toFixed(1),
      bar: `at least ${MIN_REAL_TIME}`,
      ms: (1000 * seconds).toFixed(0),
      holds: ratio >= MIN_REAL_TIME,
    },
  ];
}
