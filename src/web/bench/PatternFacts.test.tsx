import { render, screen } from '@testing-library/react';
import { applyPattern, findPattern } from '#core/bowing';
import { reportTune } from '#core/report';
import { readAbc } from '#formats/abc';
import { PatternFacts } from './PatternFacts';

const REEL = 'X:1\nT:R\nR:reel\nM:4/4\nL:1/8\nK:D\n|:ABcd efga|gfed cBAG:|\n';
const JIG = 'X:1\nT:J\nR:jig\nM:6/8\nL:1/8\nK:D\n|:def gfe|dcB ABc:|\n';

function show(abc: string, name: string) {
  const pattern = findPattern(name)!;
  const report = reportTune(applyPattern(readAbc(abc).tunes[0]!.tune, pattern));
  render(<PatternFacts pattern={pattern} report={report} ids={undefined} where="the tune" />);
}

test('strokes and turns of the range are told, with what their parity does', () => {
  show(REEL, 'pair-first-shuffle');
  expect(screen.getByText('24 strokes in the tune, all passes counted: it comes round')).toBeTruthy();
  expect(screen.getByText('no accent comes by itself')).toBeTruthy();
});

test('a pattern that creeps says which stroke must be driven, and how much', () => {
  show(REEL, 'three-and-one');
  expect(screen.getByText(/accent on stroke 2 of the cycle: drawn 3 times as fast/)).toBeTruthy();
});

test('single strokes in a jig accent both bows in turn', () => {
  show(JIG, 'saw');
  expect(
    screen.getByText(/accents fall on the down-bow and the up-bow in turn; first note to the others 1.12 : 1/),
  ).toBeTruthy();
});
