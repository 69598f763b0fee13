import Parse from 'abcjs/src/parse/abc_parse.js';
import { reportTune } from '#core/report';
import { readAbc } from '#formats/abc';
import { sideBySide } from './figures.mjs';
import { longReel } from './longTune.mjs';

/** Most that a report may cost, in times of the bare parser on the same text. */
const MAX_PARSES = 3;

export function benchReport() {
  const abc = longReel();
  const { tune } = readAbc(abc).tunes[0];
  const parse = () => {
    const parser = new Parse();
    parser.parse(abc, {});
    parser.getTune();
  };
  const [parseMs, reportMs] = sideBySide(parse, () => reportTune({ ...tune }).findings.length, {
    rounds: 200,
    warmUp: 300,
  });
  const ratio = reportMs / parseMs;
  const notes = reportTune(tune).unrolled.notes.length;
  return [
    {
      what: `report, ${notes} notes played`,
      against: 'bare parse of the same ABC',
      ratio: ratio.toFixed(2),
      bar: `at most ${MAX_PARSES}`,
      ms: `${reportMs.toFixed(1)} against ${parseMs.toFixed(1)}`,
      holds: ratio <= MAX_PARSES,
    },
  ];
}
