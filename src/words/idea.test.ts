import { reportTune } from '#core/report';
import { DEFAULT_WISHES, proposeBowings } from '#core/search';
import { readAbc } from '#formats/abc';
import { ideaInBars, ideaWords } from './idea';

test('a way of bowing is named as players name it', () => {
  expect(ideaWords('saw')).toBe('singles');
  expect(ideaWords('pair-first-shuffle')).toBe('pair-first shuffle');
  expect(ideaWords('three-three-two')).toBe('three-three-two');
  expect(ideaWords('offbeat-pairs-after-a-single-bar')).toBe('offbeat pairs, first bar of each phrase single');
});

test('an idea is told with the bars that keep to it, two with those of each', () => {
  expect(ideaInBars('saw', ['saw', 'saw'])).toBe('singles throughout');
  expect(ideaInBars('saw', ['saw', null])).toBe('singles in 1 of 2 bars');
  expect(ideaInBars('pair-first-shuffle + saw', ['pair-first-shuffle', 'saw', 'saw', null])).toBe(
    'pair-first shuffle in 1 and singles in 2 of 4 bars',
  );
});

test('no proposal is named by a word of the code', () => {
  for (const [rhythm, meter, bar] of [
    ['reel', '4/4', 'defg afed'],
    ['jig', '6/8', 'def gfe'],
    ['strathspey', '4/4', 'd>ef<g a>fe<d'],
    ['air', '3/4', 'd2 ef g2'],
  ]) {
    const { tune } = readAbc(`X:1\nT:T\nR:${rhythm}\nM:${meter}\nL:1/8\nK:D\n|:${bar}|${bar}|${bar}|${bar}:|\n`)
      .tunes[0]!;
    const ideas = proposeBowings(reportTune(tune), DEFAULT_WISHES, 5).flatMap(({ template }) =>
      template.split(' + ').map(ideaWords),
    );
    expect(ideas.length).toBeGreaterThan(0);
    for (const idea of ideas) expect(idea).toMatch(/^[a-z][a-z, -]*$/);
  }
});
