import { reportTune } from '#core/report';
import { DEFAULT_WISHES, proposeBowings } from '#core/search';
import { barSumFaults } from '#core/tune';
import { readAbc, writeAbc } from '.';

const HEAD = 'X:1\nT:A round\nM:4/4\nL:1/8\nK:D\n';
const read = (music: string) => readAbc(`${HEAD}${music}\n`).tunes[0]!;
const checked = (music: string) => reportTune(read(music).tune);
const ledgerOf = (music: string) => checked(music).figures.ledger;

/** Written notes by their order, each with its link. */
const links = (music: string) =>
  read(music)
    .tune.parts.flatMap(({ events }) => events)
    .flatMap((event) => (event.kind === 'note' ? [event.link] : []));

describe('a lead-in that the last bar already holds', () => {
  const led = 'A|:d2fd AdfA|d2fd AdfA:|';

  test('the tune begins again at its first full bar, and comes round', () => {
    const report = checked(led);
    expect(report.figures.ledger).toMatchObject({ comesRound: true, comesRoundAgain: true });
    expect(report.figures.ledger.passes.map(({ pickup, entry, next }) => [pickup, entry, next])).toEqual([
      ['up', 'down', 'down'],
      [null, 'down', 'down'],
    ]);
    expect(barSumFaults(report.tune)).toEqual([]);
    expect(report.findings.filter(({ severity }) => severity === 'problem')).toEqual([]);
  });

  test('one stroke less in it flips the tune, and each mend offered brings it back', () => {
    const report = checked('A|:d2fd AdfA|d2(fd) AdfA:|');
    expect(report.figures.ledger.comesRound).toBe(false);
    const [flips] = report.findings;
    expect(flips!.mends.length).toBeGreaterThan(0);
    for (const { comesRound } of flips!.mends) expect(comesRound).toBe(true);
  });

  test('a last bar that lacks what the pickup holds begins again with the pickup', () => {
    expect(ledgerOf('A|d2fd AdfA|d2fd Adf|]').comesRoundAgain).toBe(true);
    expect(ledgerOf('A|d2fd AdfA|d2fd (Adf)|]').comesRoundAgain).toBe(true);
    expect(ledgerOf('A|d2fd AdfA|d2fd A(df)|]').comesRoundAgain).toBe(false);
  });

  test('the search proposes bowings that come round', () => {
    const proposed = proposeBowings(checked(led), DEFAULT_WISHES, 3);
    expect(proposed.map(({ figures }) => figures.comesRound)).toEqual([true, true, true]);
  });
});

describe('a tie from the last note to the first', () => {
  test('holds the stroke over, so an even count from then on comes round', () => {
    const { comesRound, passes } = ledgerOf('|:d2fA dfAd|f2Ad fAd2-:|');
    expect(passes.map(({ entry, strokes }) => [entry, strokes])).toEqual([
      ['down', 13],
      ['down', 12],
    ]);
    expect(comesRound).toBe(true);
    expect(ledgerOf('|:d2fA dfAd|f2Ad fAd2:|').comesRound).toBe(false);
  });

  test('the search knows it', () => {
    const [best] = proposeBowings(checked('|:d2fA dfAd|f2Ad fAd2-:|'), DEFAULT_WISHES, 1);
    expect(best!.figures.comesRound).toBe(true);
  });

  test('a tie to another pitch holds nothing over', () => {
    expect(ledgerOf('|:d2fA dfAd|f2Ad fAA2-:|').comesRound).toBe(false);
  });
});

describe('what is open where the first ending begins', () => {
  test('a slur runs on into every ending', () => {
    const abc = '|:d2 fd|A2 F(A|[1 d)f e2:|[2 d)e d2|]';
    expect(read(abc).messages.filter(({ code }) => code !== 'bar-sum')).toEqual([]);
    expect(links(abc)).toEqual(
      'start change change change change change slur change change slur change change'.split(' '),
    );
  });

  test('it may last longer in one ending than in another, and be closed in one only', () => {
    expect(links('|:A2 F(A|[1 d)f e2:|[2 de)d2|]').slice(3)).toEqual('slur change change slur slur change'.split(' '));
    expect(links('|:A2 F(A|[1 d)f e2:|[2 ded2|]').slice(3)).toEqual('slur change change slur change change'.split(' '));
    expect(links('|:A2 F(A|[1 A)f e2:|[2 d)e d2|]').slice(3)).toEqual(
      'hook change change slur change change'.split(' '),
    );
  });

  test('a slur that the first ending opens and leaves open is told, and joins nothing in the second', () => {
    const abc = '|:d4 f4|[1 gece d2(BA:|[2 gece) d4|]';
    expect(read(abc).messages.map(({ code, column }) => [code, column])).toEqual([
      ['unclosed-slur', 19],
      ['unopened-slur', 31],
    ]);
    expect(new Set(links(abc).slice(1))).toEqual(new Set(['change']));
  });

  test('a tie holds over into every ending', () => {
    const { notes } = checked('|:d2 fA-|[1 Af e2:|[2 Ae d2|]').unrolled;
    expect(notes.map(({ pass, note, duration }) => [pass, note.pitch.letter, (duration.n * 8) / duration.d])).toEqual([
      [1, 'D', 2],
      [1, 'F', 1],
      [1, 'A', 2],
      [1, 'F', 1],
      [1, 'E', 2],
      [2, 'D', 2],
      [2, 'F', 1],
      [2, 'A', 2],
      [2, 'E', 1],
      [2, 'D', 2],
    ]);
  });

  test('it is written so that it is read the same', () => {
    for (const abc of ['|:d2 fd|A2 F(A|[1 d)f e2:|[2 d)e d2|]', '|:A2 F(A|[1 d)f e2:|[2 de)d2|]']) {
      const { tune } = read(abc);
      expect(readAbc(writeAbc(tune)).tunes[0]!.tune.parts).toEqual(tune.parts);
    }
  });
});

test('only a top note that is tied itself is held over', () => {
  const struck = (music: string) => checked(music).unrolled.notes.length;
  expect(struck('[A-c]c d2|')).toBe(3);
  expect(struck('[Ac]c d2|')).toBe(3);
  expect(struck('[Ac-]c d2|')).toBe(2);
  expect(struck('[A-c-][Ac] d2|')).toBe(2);
});
