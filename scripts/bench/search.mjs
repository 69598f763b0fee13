import highs from 'highs';
import { reportTune } from '#core/report';
import { bestBowings, bowingTerms, DEFAULT_WISHES, proposeBowings, searchModel } from '#core/search';
import { readAbc } from '#formats/abc';
import { integerProgram } from '../../src/core/testing/integerProgram.ts';
import { quantile } from './figures.mjs';
import { longReel } from './longTune.mjs';

/** How many times quicker than the integer program the search is to be, and its time on 32 bars. */
const MIN_SPEEDUP = 100;
const MAX_MS = 250;

/** The first bars of the long reel as one part played twice. */
function reelOf(bars) {
  const [head, body] = longReel({ repeats: false }).split('K:D\n');
  const music = body.replaceAll('||', '|').split('|').slice(0, bars).join('|');
  return readAbc(`${head}K:D\n|:${music}:|\n`).tunes[0].tune;
}

function timed(work, rounds) {
  const times = [];
  for (let round = -1; round < rounds; round++) {
    const from = performance.now();
    work();
    if (round >= 0) times.push(performance.now() - from);
  }
  return quantile(times, 0.5);
}

export async function benchSearch() {
  const short = searchModel(reportTune(reelOf(3)), DEFAULT_WISHES);
  const notes = short.ids.flat().length;
  const solver = await highs();
  const program = integerProgram(short);
  const programMs = timed(() => solver.solve(program, { mip_rel_gap: 0, mip_abs_gap: 0 }), 3);
  const searchMs = timed(() => bestBowings(short, 1), 60);
  const speedup = programMs / searchMs;

  const reel = reportTune(reelOf(32));
  const proposeMs = timed(() => proposeBowings(reel, DEFAULT_WISHES, 5), 15);

  const fine = searchModel(reel, DEFAULT_WISHES, { cellCm: 0.5 });
  const [coarse] = bestBowings(searchModel(reel, DEFAULT_WISHES), 1);
  const inFine = Object.values(bowingTerms(fine, coarse)).reduce((sum, term) => sum + term, 0);
  const loss = inFine / bestBowings(fine, 1)[0].cost - 1;
  return [
    {
      what: `integer program, ${notes} notes`,
      against: 'search for the same best bowing',
      ratio: speedup.toFixed(0),
      bar: `at least ${MIN_SPEEDUP}`,
      ms: `${programMs.toFixed(0)} against ${searchMs.toFixed(2)}`,
      holds: speedup >= MIN_SPEEDUP,
    },
    {
      what: 'five bowings proposed, 32 bars',
      against: '—',
      ratio: '—',
      bar: `under ${MAX_MS} ms`,
      ms: proposeMs.toFixed(0),
      holds: proposeMs < MAX_MS,
    },
    {
      what: 'points lost by cells of 4.5 cm of bow, 32 bars',
      against: 'cells of 0.5 cm',
      ratio: (1 + loss).toFixed(4),
      bar: 'for information',
      ms: '—',
      holds: true,
    },
  ];
}
