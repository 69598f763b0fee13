import { formatFraction } from '#core/base';
import { keyName, pitchName } from '#core/pitch';
import { type Tune, writtenNotes } from '#core/tune';
import { tuningName } from '#core/tuning';
import { part as partOf, tune as tuneOf } from '../../core/testing/tunes';
import { readMusicXml } from './readMusicXml';
import { writeMusicXml } from './writeMusicXml';

const note = (step: string, octave: number, duration: number, more = '', notations = '', type = '') =>
  `<note>${more.includes('<grace') || more.includes('<chord') ? more : ''}<pitch><step>${step}</step><octave>${octave}</octave></pitch>${duration > 0 ? `<duration>${duration}</duration>` : ''}${more.includes('<grace') || more.includes('<chord') ? '' : more}${type ? `<type>${type}</type>` : ''}${notations ? `<notations>${notations}</notations>` : ''}</note>`;
const score = (
  measures: string,
  attributes = '<divisions>2</divisions><key><fifths>2</fifths></key><time><beats>4</beats><beat-type>4</beat-type></time>',
  more = '',
) =>
  `<score-partwise version="4.0"><work><work-title>A Test</work-title></work>${more}<part-list><score-part id="P1"><part-name>Fiddle</part-name></score-part></part-list><part id="P1">${measures.replace('<measure number="1">', `<measure number="1"><attributes>${attributes}</attributes>`)}</part></score-partwise>`;
const measure = (number: number, inner: string) => `<measure number="${number}">${inner}</measure>`;
const four = (step: string, octave = 5) => note(step, octave, 8);

function read(xml: string, voice?: string): Tune {
  const { tunes, messages } = readMusicXml(xml, voice);
  expect(messages).toEqual([]);
  return tunes[0]!.tune;
}
const told = (xml: string) => {
  const { tunes, messages } = readMusicXml(xml);
  return [...messages, ...tunes.flatMap((own) => own.messages)].map(({ matter }) => matter);
};

describe('what is read', () => {
  test('pitches, lengths, meter and key', () => {
    const value = read(
      score(
        measure(
          1,
          note('D', 5, 4) +
            note('F', 5, 2, '<alter/>')
              .replace('<step>F</step>', '<step>F</step><alter>1</alter>')
              .replace('<alter/>', '') +
            note('A', 4, 2),
        ),
      ),
    );
    expect(writtenNotes(value).map(({ pitch, duration }) => `${pitchName(pitch)} ${formatFraction(duration)}`)).toEqual(
      ['D5 1/2', 'F#5 1/4', 'A4 1/4'],
    );
    expect([keyName(value.key), value.meter, value.title]).toEqual(['D major', { num: 4, den: 4 }, 'A Test']);
  });

  test('a mode gives the tonic of its signature', () => {
    for (const [mode, name] of [
      ['dorian', 'E dorian'],
      ['mixolydian', 'A mixolydian'],
      ['minor', 'B minor'],
      ['aeolian', 'B minor'],
    ])
      expect(
        keyName(
          read(
            score(measure(1, four('D')), `<divisions>2</divisions><key><fifths>2</fifths><mode>${mode}</mode></key>`),
          ).key,
        ),
      ).toBe(name);
  });

  test('slurs are strokes, bow marks are locks, strings and fingers are pinned', () => {
    const value = read(
      score(
        measure(
          1,
          note(
            'D',
            5,
            2,
            '',
            '<slur type="start" number="1"/><technical><down-bow/><string>2</string><fingering>3</fingering></technical>',
          ) +
            note('E', 5, 2, '', '<slur type="stop" number="1"/>') +
            note('E', 5, 2, '', '<technical><open-string/></technical>') +
            note('A', 4, 2, '', '<technical><up-bow/></technical><articulations><staccato/></articulations><fermata/>'),
        ),
      ),
    );
    const [d, e, open, a] = writtenNotes(value);
    expect([d!.lock, d!.place, d!.finger]).toEqual(['down', 'A', 3]);
    expect([d!.link, e!.link, open!.link]).toEqual(['start', 'slur', 'change']);
    expect(open!.finger).toBe(0);
    expect([a!.lock, a!.marks]).toEqual(['up', ['staccato', 'fermata']]);
  });

  test('a slur from a grace note to its main note joins no strokes', () => {
    const value = read(
      score(
        measure(
          1,
          note('E', 5, 0, '<grace/>', '<slur type="start" number="1"/>') +
            note('D', 5, 4, '', '<slur type="stop" number="1"/>') +
            note('A', 4, 4),
        ),
      ),
    );
    const [d, a] = writtenNotes(value);
    expect(d!.graceNotes!.map(pitchName)).toEqual(['E5']);
    expect(a!.link).toBe('change');
  });

  test('of a chord the highest is the melody, wherever it stands', () => {
    const value = read(score(measure(1, note('D', 4, 8) + note('A', 4, 8, '<chord/>') + note('F', 4, 8, '<chord/>'))));
    const [chord] = writtenNotes(value);
    expect([chord!.pitch, ...chord!.stops!].map(pitchName)).toEqual(['A4', 'F4', 'D4']);
  });

  test('rounded durations of tuplets are put right by their type', () => {
    const third = (first: string) =>
      note('D', 5, 3, '', first, 'eighth')
        .replace(
          '<type>',
          '<time-modification><actual-notes>3</actual-notes><normal-notes>2</normal-notes></time-modification><type>',
        )
        .replace(/(<time-modification>.*<\/time-modification>)(<type>eighth<\/type>)/, '$2$1');
    const value = read(
      score(
        measure(1, third('<tuplet type="start"/>') + third('') + third('<tuplet type="stop"/>')),
        '<divisions>10</divisions>',
      ),
    );
    expect(writtenNotes(value).map(({ duration }) => formatFraction(duration))).toEqual(['1/12', '1/12', '1/12']);
    expect(writtenNotes(value)[0]!.tuplet).toEqual({ notes: 3, inTimeOf: 2, first: true });
  });

  test('repeats, endings and double bars make parts and their plays', () => {
    const bars =
      measure(1, `<barline location="left"><repeat direction="forward"/></barline>${four('D')}`) +
      measure(
        2,
        `<barline location="left"><ending number="1" type="start"/></barline>${four('E')}<barline location="right"><ending number="1" type="stop"/><repeat direction="backward"/></barline>`,
      ) +
      measure(
        3,
        `<barline location="left"><ending number="2" type="start"/></barline>${four('F')}<barline location="right"><bar-style>light-light</bar-style><ending number="2" type="discontinue"/></barline>`,
      ) +
      measure(
        4,
        `<barline location="left"><repeat direction="forward"/></barline>${four('G')}<barline location="right"><repeat direction="backward" times="3"/></barline>`,
      );
    const value = read(score(bars.replace('<measure number="1">', '<measure number="1">')));
    expect(value.form).toEqual(['A', 'A', 'B', 'B', 'B']);
    const bar = value.parts[0]!.events.filter((event) => event.kind === 'bar');
    expect(bar.map(({ onPlays, ending }) => [onPlays, ending])).toEqual([
      [undefined, undefined],
      [[1], true],
      [[2], true],
    ]);
  });

  test('a tuning of its own, from its scordatura', () => {
    const accord = (string: number, step: string, octave: number) =>
      `<accord string="${string}"><tuning-step>${step}</tuning-step><tuning-octave>${octave}</tuning-octave></accord>`;
    const direction = `<direction><direction-type><scordatura>${accord(4, 'A', 3)}${accord(3, 'E', 4)}${accord(2, 'A', 4)}${accord(1, 'E', 5)}</scordatura></direction-type></direction>`;
    expect(tuningName(read(score(measure(1, direction + four('D')))).tuning)).toBe('A3 E4 A4 E5');
  });

  test('chord symbols over notes and rests', () => {
    const harmony = (step: string, kind: string, more = '') =>
      `<harmony><root><root-step>${step}</root-step></root><kind>${kind}</kind>${more}</harmony>`;
    const value = read(
      score(
        measure(
          1,
          `${harmony('D', 'major')}${note('D', 5, 4)}${harmony('A', 'dominant', '<bass><bass-step>C</bass-step><bass-alter>1</bass-alter></bass>')}<note><rest/><duration>4</duration></note>`,
        ),
      ),
    );
    expect(value.parts[0]!.events.flatMap((event) => (event.kind === 'bar' ? [] : [event.chord]))).toEqual([
      'D',
      'A7/C#',
    ]);
  });

  test('the tempo, in the beat of the dance', () => {
    const metronome =
      '<direction><direction-type><metronome><beat-unit>half</beat-unit><per-minute>104.5</per-minute></metronome></direction-type></direction>';
    expect(read(score(measure(1, metronome + four('D')))).tempoBpm).toBe(209);
    const sound = '<sound tempo="96"/>';
    expect(read(score(measure(1, sound + four('D')))).tempoBpm).toBe(96);
  });

  test('as it sounds, where it is written for a transposing instrument', () => {
    const xml = score(
      measure(1, four('E')),
      '<divisions>2</divisions><transpose><diatonic>-1</diatonic><chromatic>-2</chromatic></transpose>',
    );
    expect(pitchName(writtenNotes(read(xml))[0]!.pitch)).toBe('D5');
    expect(told(xml)[0]).toEqual({ what: 'transposing' });
  });
});

describe('voices', () => {
  const two = score(
    measure(
      1,
      `${note('D', 5, 4)}${note('E', 5, 4)}<backup><duration>8</duration></backup>${note('D', 4, 2).replace('</note>', '<voice>2</voice></note>')}<forward><duration>2</duration></forward>${note('A', 3, 4).replace('</note>', '<voice>2</voice></note>')}`,
    ),
  );

  test('the one with the most notes is the melody, and the file tells all of them', () => {
    const { tunes } = readMusicXml(two);
    expect(tunes[0]!.voices).toEqual([
      { id: 'P1/1', name: 'Fiddle, voice 1', notes: 2 },
      { id: 'P1/2', name: 'Fiddle, voice 2', notes: 2 },
    ]);
    expect(writtenNotes(tunes[0]!.tune).map(({ pitch }) => pitchName(pitch))).toEqual(['D5', 'E5']);
    expect(tunes[0]!.messages[0]!.matter).toEqual({ what: 'voices', read: 'Fiddle, voice 1' });
  });

  test('another can be asked for, with rests where it is silent', () => {
    const value = read(two, 'P1/2');
    expect(
      value.parts[0]!.events.map((event) =>
        event.kind === 'bar' ? '|' : `${event.kind} ${formatFraction(event.duration)}`,
      ),
    ).toEqual(['|', 'note 1/4', 'rest 1/4', 'note 1/2']);
  });
});

describe('what is said about a file', () => {
  test.each([
    ['a broken one', '<score-partwise><part></score-partwise>', { what: 'not-xml' }],
    ['another kind of XML', '<html><body/></html>', { what: 'no-score', found: 'html' }],
    ['one without notes', score(measure(1, '<note><rest/><duration>8</duration></note>')), { what: 'no-part-notes' }],
    [
      'a jump',
      score(
        measure(1, `<direction><direction-type><words>D.C. al Fine</words></direction-type></direction>${four('D')}`),
      ),
      { what: 'jump', name: 'D.C. al Fine' },
    ],
    [
      'an ending without a number',
      score(measure(1, `<barline location="left"><ending number="last" type="start"/></barline>${four('D')}`)),
      { what: 'ending-not-number', text: 'last' },
    ],
    [
      'a bar that does not add up',
      score(measure(1, four('D')) + measure(2, note('E', 5, 2)) + measure(3, four('D'))),
      { what: 'bar-short' },
    ],
    [
      'notes without a pitch',
      score(measure(1, `${note('D', 5, 4)}<note><unpitched/><duration>4</duration></note>`)),
      { what: 'unpitched' },
    ],
  ])('%s', (_what, xml, matter) => {
    expect(told(xml)).toContainEqual(expect.objectContaining(matter));
  });

  test('has the place of its measure', () => {
    const xml = score(`\n${measure(1, four('D'))}\n${measure(2, note('E', 5, 2))}\n${measure(3, four('D'))}\n`);
    const message = readMusicXml(xml).tunes[0]!.messages.find(({ code }) => code === 'bar-sum')!;
    expect([message.line, message.column]).toEqual([3, 1]);
  });
});

test('a score written measure by measure is read part by part', () => {
  const partwise = score(measure(1, four('D')) + measure(2, four('E')));
  const timewise = partwise
    .replace(/score-partwise/g, 'score-timewise')
    .replace('<part id="P1">', '')
    .replace('</part></score-timewise>', '</score-timewise>')
    .replace(/<measure number="(\d)">/g, '<measure number="$1"><part id="P1">')
    .replace(/<\/measure>/g, '</part></measure>');
  expect(read(timewise).parts).toEqual(read(partwise).parts);
});

describe('what is written', () => {
  test('beams join notes within a beat, and a lone sixteenth has a hook', () => {
    const xml = writeMusicXml(tuneOf([partOf('A', 'D4:1.5 E4:0.5 F#4 G4 A4:2 B4:0.5 C#5:1.5')]));
    const beams = [...xml.matchAll(/<note>[\s\S]*?<\/note>/g)].map(([own]) =>
      [...own.matchAll(/<beam number="(\d)">([a-z ]+)</g)].map(([, number, kind]) => `${number} ${kind}`).join(', '),
    );
    expect(beams).toEqual([
      '1 begin',
      '1 continue, 2 backward hook',
      '1 continue',
      '1 end',
      '',
      '1 begin, 2 forward hook',
      '1 end',
    ]);
  });

  test('a length that no note has is two notes tied, and one again when it is read', () => {
    const value = tuneOf([partOf('A', 'D4:5 E4:3')]);
    const xml = writeMusicXml(value);
    expect([...xml.matchAll(/<type>(\w+)<\/type>/g)].map(([, type]) => type)).toEqual(['half', 'eighth', 'quarter']);
    expect(xml.match(/<tie type="start"\/>/g)).toHaveLength(1);
    expect(writtenNotes(readMusicXml(xml).tunes[0]!.tune).map(({ duration }) => formatFraction(duration))).toEqual([
      '5/8',
      '3/8',
    ]);
  });

  test('bow marks, strings, fingers and the tuning have their own elements', () => {
    const plain = tuneOf([partOf('A', 'D4:4 E4:4')], {
      tuning: readMusicXml(score(measure(1, four('D')))).tunes[0]!.tune.tuning,
    });
    const marked = {
      ...plain,
      parts: [
        {
          ...plain.parts[0]!,
          events: plain.parts[0]!.events.map((event) =>
            event.kind === 'note' ? { ...event, lock: 'up' as const, place: 'G' as const, finger: 4 } : event,
          ),
        },
      ],
    };
    const xml = writeMusicXml(marked);
    for (const element of ['<up-bow/>', '<string>4</string>', '<fingering>4</fingering>'])
      expect(xml).toContain(element);
    expect(xml).not.toContain('scordatura');
  });
});
