import { formatFraction } from '#core/base';
import { reuseBars } from '#core/editing';
import { pitchName } from '#core/pitch';
import { reportTune } from '#core/report';
import { type Tune, unroll, writtenBars, writtenNotes } from '#core/tune';
import { readAbc, readAbcTunes } from './readAbc';
import { writeAbc } from './writeAbc';

const head = (fields: string) => `X:1\nT:Test\n${fields}\n`;
const common = (music: string, key = 'D') => `${head('M:4/4\nL:1/8')}K:${key}\n${music}\n`;

function read(text: string): Tune {
  const { tunes, messages } = readAbc(text);
  if (!tunes[0]) throw new Error(JSON.stringify(messages));
  return tunes[0].tune;
}

const codes = (text: string) => {
  const { tunes, messages } = readAbc(text);
  return [...messages, ...tunes.flatMap((tune) => tune.messages)].map(
    ({ line, column, code }) => `${line}:${column} ${code}`,
  );
};
const pitches = (tune: Tune) => writtenNotes(tune).map(({ pitch }) => pitchName(pitch));
const lengths = (tune: Tune) => writtenNotes(tune).map(({ duration }) => formatFraction(duration));
const links = (tune: Tune) => writtenNotes(tune).map(({ link }) => link);

describe('pitches', () => {
  test('key signature and octaves', () => {
    expect(pitches(read(common("D,Fcf c'2", 'D')))).toEqual(['D3', 'F#4', 'C#5', 'F#5', 'C#6']);
  });

  test('an accidental holds to the bar line for its letter in every octave, and a tie carries it over', () => {
    expect(pitches(read(common('^G G g =G g2- | g2 G2 z4', 'C')))).toEqual([
      'G#4',
      'G#4',
      'G#5',
      'G4',
      'G5',
      'G5',
      'G4',
    ]);
    expect(pitches(read(common('^c2- c6 | c8', 'C')))).toEqual(['C#5', 'C#5', 'C5']);
    expect(pitches(read(common('c8- | ^c8- | c4 c4', 'C'))).slice(-2)).toEqual(['C#5', 'C5']);
  });

  test('the directive for octaves is followed', () => {
    expect(pitches(read(common('%%propagate-accidentals octave\n^G g G2 z4', 'C')))).toEqual(['G#4', 'G5', 'G#4']);
  });

  test.each([
    ['Gdor', ['Bb4', 'F5']],
    ['Amix', ['B4', 'F#5']],
    ['Bb', ['Bb4', 'F5']],
    ['HP', ['B4', 'F#5']],
    ['D =c', ['B4', 'F#5']],
  ])('K:%s', (key, expected) => {
    expect(pitches(read(common('B4 f4', key)))).toEqual(expected);
  });

  test('in a chord the top note is the melody, grace notes hang on their note', () => {
    const [note] = writtenNotes(read(common('{g}[DAf]8')));
    expect(pitchName(note!.pitch)).toBe('F#5');
    expect(note!.stops!.map(pitchName)).toEqual(['A4', 'D4']);
    expect(note!.graceNotes!.map(pitchName)).toEqual(['G5']);
  });
});

describe('lengths', () => {
  test('broken rhythm, tuplets and odd divisions are exact', () => {
    expect(lengths(read(common('A>B c<d (3efg a/3b/3a/3 A2')))).toEqual([
      '3/16',
      '1/16',
      '1/16',
      '3/16',
      '1/12',
      '1/12',
      '1/12',
      '1/24',
      '1/24',
      '1/24',
      '1/4',
    ]);
  });

  test('a chord keeps its outer length, rests of several bars fill them', () => {
    const tune = read(common('[DA]4 z4 | Z2 | D8'));
    expect(formatFraction(unroll(tune).duration)).toBe('4');
  });

  test('meter and key changes hold from their bar on', () => {
    const tune = read(common('D8 | [M:6/8][K:G] c6 | c6', 'D'));
    expect(pitches(tune)).toEqual(['D4', 'C5', 'C5']);
    const bars = tune.parts[0]!.events.filter((event) => event.kind === 'bar');
    expect(bars[1]).toMatchObject({ meter: { num: 6, den: 8 }, key: { letter: 'G' } });
  });
});

describe('form', () => {
  const form = (music: string) => read(common(music)).form.join('');
  const played = (music: string) =>
    unroll(read(common(music))).notes.map(({ note, part, pass }) => `${note.pitch.letter}${part}${pass}`);

  test('parts are cut at repeat signs and double bars', () => {
    expect(form('|:D8:|:E8:|')).toBe('AABB');
    expect(form('|:D8::E8:|')).toBe('AABB');
    expect(form('|:D8:|:|:E8:|')).toBe('AABB');
    expect(form('D8|E8||F8|G8|]')).toBe('AB');
    expect(form('|:D8||E8:|F8|]')).toBe('AAB');
    expect(form('D8|E8:|F8:|')).toBe('AABB');
  });

  test('three plays by a doubled repeat sign', () => {
    expect(form('|::D8::|E8|]')).toBe('AAAB');
  });

  test('endings by their numbers', () => {
    expect(played('|:D8|1 E8:|2 F8||G8|]')).toEqual(['DA1', 'EA1', 'DA2', 'FA2', 'GB1']);
    expect(played('|:D8|[1,3 E8:|[2 F8:|]')).toEqual(['DA1', 'EA1', 'DA2', 'FA2', 'DA3', 'EA3']);
  });

  test('a pickup before the first repeat sign is played once, one inside it each time', () => {
    expect(played('A2|:D8|E6:|')).toEqual(['AA1', 'DA1', 'EA1', 'DA2', 'EA2']);
    expect(played('|:A2|D8|E6:|')).toEqual(['AA1', 'DA1', 'EA1', 'AA2', 'DA2', 'EA2']);
  });

  test('P: gives the playing order, with counts and brackets', () => {
    const text = (order: string) => `${head(`P:${order}\nM:4/4\nL:1/8`)}K:D\nP:A\nD8|\nP:B\nE8|\n`;
    expect(read(text('A(AB)2')).form.join('')).toBe('AABAB');
    expect(read(text('A2B')).form.join('')).toBe('AAB');
    expect(read(text('ABA')).form.join('')).toBe('ABA');
  });
});

describe('bow', () => {
  test('slurs are bow slurs, nested ones one stroke, one pitch under a slur a hook', () => {
    expect(links(read(common('(DE)F(GAA)Bc')))).toEqual([
      'start',
      'slur',
      'change',
      'change',
      'slur',
      'hook',
      'change',
      'change',
    ]);
    expect(links(read(common('(D(EF)G) (A2 B2)')))).toEqual(['start', 'slur', 'slur', 'slur', 'change', 'slur']);
  });

  test('u and v are locks, digits are fingers, names in quotes are chords', () => {
    const notes = writtenNotes(read(common('"D"vD2 uE2 !4!A2 .F2')));
    expect(notes.map(({ lock, finger, chord, marks }) => [lock, finger, chord, marks?.[0]])).toEqual([
      ['down', undefined, 'D', undefined],
      ['up', undefined, undefined, undefined],
      [undefined, 4, undefined, undefined],
      [undefined, undefined, undefined, 'staccato'],
    ]);
  });

  test('a slur into a part holds on its first pass, and not where the repeat comes back', () => {
    const tune = read(common('(c2|:d8|e6:|'));
    expect(links(tune)).toEqual(['start', 'change', 'change']);
    const closed = read(common('(c2|:d8)|e6:|'));
    expect(writtenNotes(closed)[1]).toMatchObject({ link: 'slur', linkOnPass: { 2: 'change' } });
  });
});

describe('messages with line and column', () => {
  test.each([
    ['(AB cd ef ga|', '6:1 unclosed-slur'],
    ['AB) cd ef ga|', '6:3 unopened-slur'],
    ['!trillAB cdef ga|', '6:1 unclosed-mark'],
    ['d8|A2 B2 c2|d8|', '6:4 bar-sum'],
    ['(3AB|d8|', '6:1 unclosed-tuplet'],
    ['A8!D.C.!|', null],
    ['!D.C.!A8|', '6:1 not-followed'],
    ['!breath!A8|', '6:1 not-kept'],
  ])('%s', (music, expected) => {
    const found = codes(common(music, 'C'));
    if (expected) expect(found).toContain(expected);
  });

  test('an unclosed mark invents no notes', () => {
    expect(pitches(read(common('A2 !fermata c2 d4|', 'C')))).toEqual(['A4', 'C5', 'D5']);
  });

  test('an unclosed slur slurs nothing', () => {
    expect(links(read(common('AB (cd ef|ga b6|', 'C'))).includes('slur')).toBe(false);
  });

  test('columns count in the file, for the second tune too', () => {
    const text = `${common('A8|', 'C')}\n${common('A4 (B4|', 'C')}`;
    expect(codes(text)).toContain('13:4 unclosed-slur');
  });

  test('voices are told by their names, and another than the first can be asked for', () => {
    const text = 'X:1\nT:V\nM:4/4\nL:1/8\nV:1 name="Fiddle"\nV:2 name="Low"\nK:D\nV:1\nd4 e4|\nV:2\nD8|\n';
    const [first] = [...readAbcTunes(text)] as [ReturnType<typeof readAbc>['tunes'][number]];
    expect(first.voices).toEqual([
      { id: '1', name: 'Fiddle', notes: 2 },
      { id: '2', name: 'Low', notes: 1 },
    ]);
    const [low] = [...readAbcTunes(text, '2')] as [ReturnType<typeof readAbc>['tunes'][number]];
    expect(writtenNotes(low.tune).map(({ pitch }) => pitchName(pitch))).toEqual(['D4']);
    expect(low.messages[0]!.matter).toEqual({ what: 'voices', read: 'Low' });
    expect(readAbc('X:1\nK:D\nd8|\n').tunes[0]!.voices).toEqual([]);
  });

  test('further voices are left out, and that is said', () => {
    const text = `${head('M:4/4\nL:1/8')}K:C\nV:1\nA8|\nV:2\nD8|\n`;
    expect(pitches(read(text))).toEqual(['A4']);
    expect(codes(text).some((line) => line.endsWith('voice-left-out'))).toBe(true);
  });

  test.each([
    ['', 'no-notes'],
    ['no music at all', 'no-notes'],
    ['X:1\nT:Only a title\nK:D\n', 'no-notes'],
  ])('%j is told as holding no tune', (text, code) => {
    expect(codes(text).some((line) => line.endsWith(code))).toBe(true);
  });
});

test('Q: is turned into the beat of the dance', () => {
  const tempo = (q: string, type: string) => read(`${head(`R:${type}\nM:4/4\nL:1/8\nQ:${q}`)}K:D\nD8|\n`).tempoBpm;
  expect(tempo('1/4=200', 'reel')).toBe(100);
  expect(tempo('1/2=100', 'reel')).toBe(100);
  expect(tempo('112', 'reel')).toBe(112);
  expect(tempo('1/8=240', 'strathspey')).toBe(120);
});

/**
 * Tunes whose strokes were counted on paper: directions from beat 1 on, one letter a note, `d` and `u`;
 * entries of the passes; length in whole notes.
 */
const COUNTED: readonly {
  readonly name: string;
  readonly abc: string;
  readonly bow: string;
  readonly entries: string;
  readonly whole: string;
  readonly round: boolean;
}[] = [
  {
    name: 'a reel with slurred pairs: six strokes a bar',
    abc: common('|:(dA)FA (de)fd|(ec)Ac (ef)ge:|'),
    // Three strokes a half bar: dd u d | uu d u ; the second bar alike.
    bow: 'ddud uudu ddud uudu'.repeat(2),
    entries: 'dd',
    whole: '4',
    round: true,
  },
  {
    name: 'a jig with a pickup on each pass: twelve strokes',
    abc: `${head('R:jig\nM:6/8\nL:1/8')}K:G\n|:D|(GA)B (dB)G|A2B cBA|G3 G2:|\n`,
    // Pickup up; GA d, B u, dB d, G u; A d, B u, c d, B u, A d; G u, G d: 12 strokes with the pickup, even.
    bow: ('u' + 'ddu' + 'ddu' + 'dudud' + 'ud').repeat(2),
    entries: 'dd',
    whole: '9/2',
    round: true,
  },
  {
    name: 'a polka whose seven strokes flip the second pass',
    abc: `${head('R:polka\nM:2/4\nL:1/8')}K:D\n|:(fe) fa|d2 (de):|\n`,
    // fe d, f u, a d; d u, de d: five strokes, odd.
    bow: 'ddududd' + 'uududuu',
    entries: 'du',
    whole: '2',
    round: false,
  },
  {
    name: 'two endings of different count: the first even, the second odd',
    abc: common('|:d2 A2 F2 A2|1 d4 (AF)D2:|2 d8||'),
    // Body d u d u; first ending d, AF u, D d: seven strokes, so pass 2 is entered up; there u d u d and u.
    bow: 'dudu' + 'duud' + 'udud' + 'u',
    entries: 'du',
    whole: '4',
    round: false,
  },
  {
    name: 'triplets, a chord and grace notes: a stroke each note but the slurred triplet',
    abc: `${head('R:hornpipe\nM:4/4\nL:1/8')}K:D\n|:(3ABc d>f {g}e2 [DA]2|(3(dcB) A2 D4:|\n`,
    // Three of the triplet, two dotted, e, chord: seven; slurred triplet, A, D: three. Ten.
    bow: ('dududud' + 'uuu' + 'd' + 'u').repeat(2),
    entries: 'dd',
    whole: '4',
    round: true,
  },
  {
    name: 'mid-tune meter and key: a waltz bar in a reel, three parts played once',
    abc: common('d4 A4||[M:3/4][K:G]c2 B2 A2||[M:4/4][K:D](c2 d2) e4||'),
    bow: 'du' + 'dud' + 'uud',
    entries: 'ddu',
    whole: '11/4',
    // Seven strokes in all: each part once, but begun again it starts up-bow.
    round: false,
  },
  {
    name: 'a tie over the bar line and a rest change no direction',
    abc: common('|:d2 e2 f4-|f2 z2 (ag) f2:|'),
    // d, e, f(tied), ag, f: five strokes, odd.
    bow: 'dud' + 'uu' + 'd' + 'udu' + 'dd' + 'u',
    entries: 'du',
    whole: '4',
    round: false,
  },
];

test.each(COUNTED)('$name', ({ abc, bow, entries, whole, round }) => {
  const { figures, unrolled } = reportTune(read(abc));
  expect(figures.bowed.map((note) => note.bow[0]).join('')).toBe(bow.replace(/ /g, ''));
  expect(figures.ledger.passes.map(({ entry }) => entry![0]).join('')).toBe(entries);
  expect(formatFraction(unrolled.duration)).toBe(whole);
  expect(figures.ledger.comesRound).toBe(round);
});

test('several tunes in a file are read one by one, each with its own text', () => {
  const { tunes } = readAbc(
    `%%morrin-nothing x\n\nX:7\nT:One\nM:4/4\nL:1/8\nK:D\nD8|\n\nX:9\nT:Two\nM:4/4\nL:1/8\nK:G\nG8|\n`,
  );
  expect(tunes.map(({ reference, tune: { title } }) => [reference, title])).toEqual([
    ['7', 'One'],
    ['9', 'Two'],
  ]);
  expect(tunes[1]!.source.startsWith('X:9')).toBe(true);
});

describe('round trip', () => {
  const SOURCES = [
    ...COUNTED.map(({ abc }) => abc),
    common('A2|:"D"(uF^G) {/e}A>B (3ABc !3!d2|[DA]4 z2 (3(cde):|'),
    common('|:d4 !fermata!A4|[1 .B4 ~c4:|[2 B8||[M:6/8][K:Gdor] (de)f g3:|', 'Amix'),
    `${head('R:waltz\nM:3/4\nL:1/8')}%%morrin-tuning G3 D4 G4 D5\n%%morrin-start up\n%%morrin-links 3:retake 4@2:slur\n%%morrin-places 2:D\nK:G\n|:G2 B2 d2|g6:|\n`,
    `${head('P:ABA\nM:4/4\nL:1/8')}K:D\nP:A\nD8|\nP:B\nE4 (FG)A2|\n`,
    `${head('R:reel\nM:4/4\nL:1/8')}%%morrin-pulse 1 4\n%%morrin-bow 2:1.25 4:0.6\n%%morrin-drones 3:upper 4:lower\nK:D\n|:d2 f2 a2 A2|d8:|\n`,
    `${head('R:reel\nM:4/4\nL:1/8')}%%morrin-places 3:E 4:A\n%%morrin-positions 3:3 4:0.5\n%%morrin-marks 1:cut 1:flick 4:bowed-triplet 5:barre\nK:D\n|:d2 !slide!f2 !3!a2 ~B2|(d4 e4):|\n`,
    `${head('R:reel\nM:4/4\nL:1/8')}%%morrin-melody 2\nK:D\n|:[Fd]2 [EB]2 [DA]2 A2|d8:|\n`,
    common("_B=B^Bb' | (c2|:d8)|e6:|", 'Eb'),
  ];

  const shape = (tune: Tune) => {
    const { notes } = unroll(tune);
    return {
      form: tune.form,
      notes: notes.map(({ note, onset, duration, bar, pass }) => [
        pitchName(note.pitch),
        note.stops?.map(pitchName),
        note.graceNotes?.map(pitchName),
        formatFraction(onset),
        formatFraction(duration),
        bar,
        pass,
        note.link,
        note.linkOnPass,
        note.lock,
        note.place,
        note.finger,
        note.position,
        note.marks,
        note.drone,
        note.finger,
        note.place,
        note.chord,
        note.marks,
        note.bowLength,
        note.drone,
      ]),
      rest: { ...tune, parts: undefined, form: undefined, notes: undefined },
    };
  };

  test.each(SOURCES)('%j comes back as the same tune', (source) => {
    const tune = read(source);
    expect(shape(read(writeAbc(tune)))).toEqual(shape(tune));
  });

  test('reading back what was written has nothing to remark', () => {
    for (const source of SOURCES) {
      const { messages } = readAbc(writeAbc(read(source))).tunes[0]!;
      expect(messages.filter(({ code }) => code !== 'bar-sum')).toEqual([]);
    }
  });
});

test('a slur over one note, or over a note and its own grace notes, joins no other', () => {
  const links = (music: string) =>
    writtenNotes(read(`X:1\nT:S\nM:4/4\nL:1/8\nK:A\n${music}\n`))
      .map(({ link }) => link[0])
      .join('');
  expect(links("({ef}g)^gab c'bag|")).toBe('sccccccc');
  expect(links('(g)a(b)a (g(a)b)a|')).toBe('sccccssc');
  expect(links('(ab(c)de) fga|')).toBe('sssssccc');
});

test('bars that take up others come back so, as long as they have the same notes', () => {
  const tune = read('X:1\nT:Twice\nM:4/4\nL:1/8\nK:D\nP:A\nd2f2 a4|d8||\nP:B\nA8|\n');
  const reused = reuseBars(tune, [writtenBars(tune).get('A')![0]!.event.id], 'B', null)!;
  const text = writeAbc(reused);
  expect(text).toContain('%%morrin-reuse 4:1');
  const root = (of: Tune) => writtenBars(of).get('B')![1]!.event.reuses;
  expect(root(read(text))).toBe(writtenBars(read(text)).get('A')![0]!.event.id);
  expect(root(read(text.replace('reuse 4:1', 'reuse 4:2')))).toBeUndefined();
  expect(readAbc(text.replace('reuse 4:1', 'reuse four')).tunes[0]!.messages).toMatchObject([
    { code: 'bad-directive', matter: { what: 'bad-directive', name: 'reuse', value: 'four' } },
  ]);
});

test('pulses, stroke lengths and drones that cannot be are refused where they stand, the others kept', () => {
  const text = `X:1\nT:D\nM:4/4\nL:1/8\n%%morrin-pulse 1 x\n%%morrin-bow 1:9 2:1.5\n%%morrin-drones 1:beside 2:upper\nK:D\nd4 a4|\n`;
  const { tune, messages } = readAbc(text).tunes[0]!;
  expect(messages).toMatchObject([
    { line: 5, code: 'bad-directive', matter: { name: 'pulse', value: '1 x' } },
    { line: 6, matter: { name: 'bow', value: '1:9 2:1.5' } },
    { line: 7, matter: { name: 'drones', value: '1:beside 2:upper' } },
  ]);
  expect(writtenNotes(tune).map(({ marks, bowLength, drone }) => [marks, bowLength, drone])).toEqual([
    [['pulse'], undefined, undefined],
    [undefined, 1.5, 'upper'],
  ]);
});

test('positions and marks that cannot be are refused where they stand, the others kept once each', () => {
  const text = `X:1\nT:D\nM:4/4\nL:1/8\n%%morrin-positions 1:6 2:3\n%%morrin-marks 1:sneeze 2:cut 2:cut\nK:D\nd4 a4|\n`;
  const { tune, messages } = readAbc(text).tunes[0]!;
  expect(messages).toMatchObject([
    { line: 5, code: 'bad-directive', matter: { name: 'positions', value: '1:6 2:3' } },
    { line: 6, matter: { name: 'marks', value: '1:sneeze 2:cut 2:cut' } },
  ]);
  expect(writtenNotes(tune).map(({ marks, position }) => [marks, position])).toEqual([
    [undefined, undefined],
    [['cut'], 3],
  ]);
});

test('10,000 bars are read, and what lies beyond them is said at its place', () => {
  const bars = (count: number) => `X:1\nT:Long\nM:4/4\nL:1/8\nK:D\n${'d8|'.repeat(count)}\n`;
  expect(readAbc(bars(10_000)).tunes[0]!.messages).toEqual([]);
  expect(readAbc(bars(10_001)).tunes[0]!.messages).toMatchObject([{ code: 'too-long', line: 6, column: 30_001 }]);
});

test('a playing order that would fill hours is cut to each part once, and says so', () => {
  const { tunes } = readAbc(`X:1\nT:Hours\nM:4/4\nL:1/8\nP:A512\nK:D\nP:A\n${'dAFA defd|'.repeat(100)}\n`);
  expect(tunes[0]!.tune.form).toEqual(['A']);
  expect(tunes[0]!.messages).toMatchObject([{ code: 'too-long', severity: 'error' }]);
});

test('a length that no tune has is told where it stands with what was expected, and the rest of the file is read', () => {
  const tuneOf = (number: number, music: string) => `X:${number}\nT:T${number}\nM:4/4\nL:1/8\nK:D\n${music}\n\n`;
  const { tunes, messages } = readAbc(
    `${tuneOf(1, 'ABcd|e2 A99999999 B|')}${tuneOf(2, 'ABcd|')}${tuneOf(3, 'A z999|')}${tuneOf(4, 'A1/7 B1/11 c1/13 d1/17 e1/19 f1/23|')}`,
  );
  expect(tunes.map(({ tune }) => tune.title)).toEqual(['T2']);
  expect(messages).toMatchObject([
    { line: 6, column: 9, matter: { what: 'out-of-bounds', fault: { code: 'too-long', found: 12_500_000 - 1 / 8 } } },
    { line: 20, column: 3, matter: { fault: { code: 'too-long', found: 999 / 8 } } },
    { line: 27, matter: { fault: { code: 'too-fine' } } },
  ]);
});

test.each([
  ['of digits without end', '9'.repeat(400)],
  ['beyond counting', `1${'0'.repeat(30)}`],
])('a length %s is out of bounds at its place, and no fault of the reader', (_what, digits) => {
  const [first] = readAbc(`X:1\nT:Much\nM:4/4\nL:1/8\nK:D\nD2 d${digits}|\n`).messages;
  expect(first).toMatchObject({ line: 6, code: 'not-read', severity: 'error' });
  expect(first!.matter).toMatchObject({ what: 'out-of-bounds', fault: { code: 'too-long', found: Infinity } });
});
