import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { strToU8, zipSync } from 'fflate';
import type { Report } from '#contract/report';
import { reportSchema } from '#contract/report';
import { retuneSchema } from '#contract/retune';
import { setLinks } from '#core/bowing';
import { reportTune } from '#core/report';
import { readAbc } from '#formats/abc';
import { readMorrinJson } from '#formats/json';
import { some } from '../core/testing/share';
import { run } from './run';

const dir = mkdtempSync(path.join(tmpdir(), 'morrin-cli-'));
function file(name: string, content: string | Uint8Array): string {
  const full = path.join(dir, name);
  writeFileSync(full, content);
  return full;
}
const reel = file('reel.abc', 'X:3\nT:Reel\nR:reel\nM:4/4\nL:1/8\nK:D\n|:dAFA defd|ecAc efge:|\n');
const json = (...args: string[]) => {
  const { exitCode, stdout, stderr } = run([...args, '--json']);
  if (exitCode !== 0) throw new Error(stderr);
  return JSON.parse(stdout) as never;
};
const report = (...args: string[]) => reportSchema.parse(json('report', ...args));

test('every demo tune gives a report as the schema says', () => {
  for (const name of readdirSync('demo')) expect(report(`demo/${name}`).notes.length).toBeGreaterThan(50);
});

test('the demo reel has an odd count in its B part and a slur over a skipped string', () => {
  const heron = report('demo/heron.abc');
  expect(heron.passes.map(({ part, strokes }) => [part, strokes % 2])).toEqual([
    ['A', 0],
    ['A', 0],
    ['B', 1],
    ['B', 1],
  ]);
  expect(heron.findings.map(({ code }) => code)).toEqual([
    'part-flips',
    'slur-skips-string',
    'bowed-unlike',
    'one-plane',
  ]);
  expect(heron.comesRound).toBe(false);
});

test('--optimise proposes bowings whose links give the figures they promise', () => {
  const { candidates } = report('demo/heron.abc', '--optimise', '3');
  expect(candidates).toHaveLength(3);
  for (const { cost, terms, comesRound } of candidates) {
    expect(comesRound).toBe(true);
    expect(Object.values(terms).reduce((sum, points) => sum + points, 0)).toBeCloseTo(cost, 6);
  }
  const [best] = candidates;
  const { tune } = readAbc(readFileSync('demo/heron.abc', 'utf8')).tunes[0]!;
  const after = reportTune({ ...setLinks(tune, new Map(best!.links)), start: best!.start });
  expect(after.figures.ledger.comesRound).toBe(true);
  expect(after.figures.check.ceiling!.ceilingBpm).toBeCloseTo(best!.ceilingBpm!, 3);
  expect(run(['report', 'demo/heron.abc', '--optimise', '2']).stdout).toContain('bowing 2: ');
});

test('without --optimise nothing is sought, and a count that is no whole number is refused', () => {
  expect(report('demo/heron.abc').candidates).toEqual([]);
  expect(run(['report', reel, '--optimise', '2.5'])).toMatchObject({ exitCode: 2 });
  expect(run(['report', reel, '--optimise', '0'])).toMatchObject({ exitCode: 2 });
});

test('a start that is asked for holds for the bowings proposed', () => {
  const starts = (start: string) =>
    report('demo/lanterns.abc', '--start', start, '--optimise', '3').candidates.map((found) => found.start);
  expect(new Set(starts('up'))).toEqual(new Set(['up']));
  expect(new Set(starts('down'))).toEqual(new Set(['down']));
});

test('figures that come again are told with their places and share', () => {
  const { twins, notes } = report('demo/heron.abc');
  expect(twins.length).toBeGreaterThan(2);
  for (const { length, places, share } of twins) {
    expect(places.length).toBeGreaterThan(1);
    expect(places.every((place) => place.length === length)).toBe(true);
    expect(share).toBeLessThanOrEqual(1);
    const pitches = places.map((place) => place.map((id) => notes.find((note) => note.id === id)!.pitch).join(' '));
    expect(new Set(pitches).size).toBe(1);
  }
});

test('a pattern is laid on before the report', () => {
  expect(report(reel, '--pattern', 'pair-first-shuffle').passes[0]!.strokes).toBe(12);
  expect(report(reel, '--pattern', 'offbeat-pairs').comesRound).toBe(true);
});

test('tempo, start, tuning and fingers are followed', () => {
  const base = report(reel);
  const quick = report(reel, '--tempo', '218');
  expect(quick.seconds).toBeCloseTo(base.seconds / 2, 5);
  expect(quick.ceiling!.bpm).toBeCloseTo(base.ceiling!.bpm, 2);
  expect(report(reel, '--start', 'up').passes[0]!.entry).toBe('up');
  expect(report(reel, '--start', 'up').start.because).toBe('given');
  expect(report(reel, '--tuning', 'A3 E4 A4 E5').notes.find(({ pitch }) => pitch === 'F#4')).toMatchObject({
    place: 'D',
    finger: 1,
  });
  expect(report(reel, '--fingers', 'fourth').notes.find(({ pitch }) => pitch === 'A4')).toMatchObject({
    place: 'D',
    finger: 4,
  });
});

test('limits and instrument are read from files, and say where they come from', () => {
  const limits = file(
    'limits.json',
    '{"strokeMs": 200, "crossingMs": {"value": 50, "source": "measured", "date": "2026-11-01"}}',
  );
  const slow = report(reel, '--limits', limits);
  expect(slow.ceiling).toMatchObject({ event: 'stroke' });
  expect(slow.limits.crossingMs).toEqual({ value: 50, source: 'measured', date: '2026-11-01' });
  expect(slow.limits.crossingMsPerDegree).toEqual({ value: 1.5, source: 'guess' });
  const flat = file('flat.json', '{"bridgeRadiusMm": 60, "hairCm": 60}');
  const instrument = report(reel, '--instrument', flat).instrument;
  expect(instrument).toMatchObject({ bridgeRadiusMm: 60, sweetSpotCm: 0.42 * 60 });
});

test('several tunes are an array, --tune takes one by its number', () => {
  const two = file('two.abc', 'X:1\nT:A\nM:4/4\nL:1/8\nK:D\nD8|\n\nX:5\nT:B\nM:4/4\nL:1/8\nK:G\nG8|\n');
  expect((json('report', two) as { title: string }[]).map(({ title }) => title)).toEqual(['A', 'B']);
  expect(report(two, '--tune', '5').title).toBe('B');
  expect(run(['report', two, '--tune', '9'])).toMatchObject({
    exitCode: 1,
    stderr: expect.stringContaining('X:1, 5') as never,
  });
});

test.each([
  [['report', 'no-such.abc'], 1, /^no-such\.abc:1:1: cannot be read/],
  [['report', file('empty.abc', '')], 1, /empty\.abc:1:1: The file is empty/],
  [['report', file('binary.abc', new Uint8Array([0, 1, 2, 255]))], 1, /no file of tunes: expected ABC, MusicXML, MIDI/],
  [['report', file('prose.abc', 'X:1\nT:x\n')], 1, /prose\.abc:1:1: No K: line/],
  [
    ['report', file('x.musicxml', '<score/>')],
    1,
    /x\.musicxml:1:1: Expected score-partwise or score-timewise, found score/,
  ],
  [['report', reel, '--limits', file('bad.json', '{"strokeMss": 3}')], 1, /strokeMss/],
  [['report', reel, '--limits', file('worse.json', '{')], 1, /not JSON/],
  [['report', reel, '--tempo', 'quick'], 2, /--tempo: expected a number from 1 to 1000, got quick/],
  [['report', reel, '--pattern', 'wiggle'], 2, /pair-first-shuffle/],
  [['report', reel, '--lilt', 'lumpy'], 2, /straight/],
  [['report', reel, '--tuning', 'G D A E'], 2, /with octaves/],
  [['report', reel, '--nonsense'], 2, /nonsense/],
  [['report'], 2, /expected a file/],
  [['dance'], 2, /expected report, convert/],
  [['convert', reel, '--to', 'waltz'], 2, /abc, musicxml, midi or json/],
  [[], 2, /report FILE/],
])('%p ends with %i', (args, exitCode, stderr) => {
  const outcome = run(args as string[]);
  expect(outcome.exitCode).toBe(exitCode);
  expect(outcome.stderr).toMatch(stderr as RegExp);
  expect(outcome.stdout).toBe('');
});

test('a tune goes to a Morrin plan and back to the same report', () => {
  for (const name of some(readdirSync('demo'))) {
    const plan = run(['convert', `demo/${name}`, '--to', 'json']);
    expect(readMorrinJson(plan.stdout).ok).toBe(true);
    const saved = file(`${name}.morrin.json`, plan.stdout);
    const { messages: _m, ...again } = report(saved);
    const { messages: _n, ...first } = report(`demo/${name}`);
    expect(again).toEqual(first);
    const abc = file(`again-${name}`, run(['convert', saved, '--to', 'abc']).stdout);
    const { messages: _o, ...third } = report(abc);
    expect(third).toEqual(first);
  }
});

test('every demo tune gives the same report from MusicXML, plain and packed, as from ABC', () => {
  for (const name of some(readdirSync('demo'), 5)) {
    const xml = run(['convert', `demo/${name}`, '--to', 'musicxml']).stdout;
    const container = '<container><rootfiles><rootfile full-path="score.xml"/></rootfiles></container>';
    const packed = zipSync({ 'META-INF/container.xml': strToU8(container), 'score.xml': strToU8(xml) });
    const { messages: _said, ...fromAbc } = report(`demo/${name}`);
    for (const [to, content] of [
      [`${name}.musicxml`, xml],
      [`${name}.mxl`, packed],
    ] as const) {
      const { messages: _own, ...fromXml } = report(file(to, content));
      expect(fromXml).toEqual(fromAbc);
    }
  }
});

test('a MIDI file is read with its melody, and a book of plans holds several tunes', () => {
  const midi = file('heron.mid', run(['convert', 'demo/heron.abc', '--to', 'midi', '--out', 'x.mid']).bytes!);
  const [heard, written] = [report(midi), report('demo/heron.abc')];
  expect(heard.notes.map(({ pitch }) => pitch)).toEqual(written.notes.map(({ pitch }) => pitch));
  expect(heard.form).toEqual(written.form);
  const two = file('two.abc', 'X:1\nT:One\nK:D\nd8|\n\nX:2\nT:Two\nK:G\ng8|\n');
  const book = file('two.json', run(['convert', two, '--to', 'json']).stdout);
  const titles = (json('report', book) as { title: string }[]).map(({ title }) => title);
  expect(titles).toEqual(['One', 'Two']);
  expect(report(book, '--tune', '2').title).toBe('Two');
});

test('a plan that is not one is told field by field', () => {
  const plan = JSON.parse(run(['convert', reel, '--to', 'json']).stdout) as {
    parts: { events: { duration?: unknown }[] }[];
  };
  plan.parts[0]!.events[1]!.duration = { n: 0, d: 1 };
  const { exitCode, stderr } = run(['report', file('bad.morrin.json', JSON.stringify(plan))]);
  expect(exitCode).toBe(1);
  expect(stderr).toContain('parts.0.events.1.duration: a note lasts longer than 0');
});

test('tables and the schema are JSON', () => {
  const patterns = json('patterns') as { name: string; slots: number[]; driftUnits: number }[];
  expect(patterns.find(({ name }) => name === 'pair-first-shuffle')).toMatchObject({
    slots: [2, 1, 1],
    unit: '1/8',
    strokesPerCycle: 3,
    parityPerCycle: 'odd',
    parityPerBar: 'even',
    driftUnits: 0,
  });
  const tunings = json('tunings') as {
    strings: string[];
    semitones: number[];
    tensionRatio: number[];
    totalTensionRatio: number;
  }[];
  expect(tunings).toHaveLength(8);
  const crossed = tunings.find(({ strings }) => strings.join(' ') === 'A3 E4 A4 E5')!;
  expect(crossed.semitones).toEqual([2, 2, 0, 0]);
  expect(crossed.tensionRatio[0]).toBeCloseTo(1.26, 2);
  expect(crossed.totalTensionRatio).toBeCloseTo(1.105, 2);
  const schema = JSON.parse(run(['schema', 'report']).stdout) as { properties: object };
  expect(Object.keys(schema.properties)).toEqual(expect.arrayContaining(['passes', 'notes', 'ceiling', 'candidates']));
});

test('without --json the report is a short summary', () => {
  const { stdout } = run(['report', 'demo/heron.abc']);
  expect(stdout.split('\n').length).toBeLessThan(30);
  expect(stdout).toContain('does not come round');
  expect(readFileSync('demo/heron.abc', 'utf8')).toContain('The Heron');
});

test('retune tells each string, the way and what is always said', () => {
  const plan = retuneSchema.parse(json('retune', '--from', 'G3 D4 A4 E5', '--to', 'A3 E4 A4 E5'));
  expect(plan.strings[0]).toMatchObject({
    place: 'G',
    from: 'G3',
    to: 'A3',
    semitones: 2,
    tensionRatio: 1.2599,
    warnings: [],
  });
  expect(plan.totalTensionRatio).toBeCloseTo((44.5 * 1.26 + 44 * 1.26 + 55 + 75) / 218.5, 3);
  expect(plan.steps[0]).toMatchObject({ round: 1, place: 'G', turn: 'up', reference: { place: 'A' } });
  expect(plan.safety.length).toBeGreaterThan(2);
  expect(run(['retune', '--to', 'A3 E4 A4 E5']).stdout).toContain('round 2: G check');
});

test('a tuning read the wrong way round is refused with the reason', () => {
  const refused = run(['retune', '--to', 'E5 A4 E4 A3']);
  expect(refused.exitCode).toBe(1);
  expect(refused.stderr).toContain('G: E5 is 21 semitones above its usual pitch, expected at most 4');
  expect(run(['retune'])).toMatchObject({ exitCode: 2 });
  expect(run(['retune', '--to', 'A E A E'])).toMatchObject({ exitCode: 2 });
});

test('what no fiddle is, is refused at every door with the figure, what was expected and why', () => {
  const reversed = 'E5 A4 D4 G3';
  expect(run(['report', reel, '--tuning', reversed])).toMatchObject({ exitCode: 1, stdout: '' });
  expect(run(['retune', '--from', reversed, '--to', 'A3 E4 A4 E5']).exitCode).toBe(1);
  const said = report(
    file('reversed.abc', `X:1\nT:Reversed\nM:4/4\nL:1/8\n%%morrin-tuning ${reversed}\nK:D\nd4 e4|\n`),
  );
  expect(said.tuning).toEqual(['G3', 'D4', 'A4', 'E5']);
  expect(said.messages).toMatchObject([
    { line: 5, code: 'bad-directive', message: expect.stringMatching(/low to high/) },
  ]);
  const plan = JSON.parse(run(['convert', reel, '--to', 'json']).stdout) as { tuning: object[] };
  plan.tuning.reverse();
  expect(run(['report', file('reversed.morrin.json', JSON.stringify(plan))])).toMatchObject({
    exitCode: 1,
    stderr: expect.stringMatching(/tuning: G: E5 is 21 semitones above/),
  });
  const refusal = (kind: 'instrument' | 'limits', value: object) =>
    run(['report', reel, `--${kind}`, file('odd.json', JSON.stringify(value))]);
  for (const [kind, value, words] of [
    ['instrument', { hairCm: 0.1 }, 'hairCm: expected 20 to 80, got 0.1'],
    ['instrument', { sweetSpotCm: 64 }, 'sweetSpotCm: expected a place on the 63 cm of hair, got 64'],
    [
      'instrument',
      { bridgeRadiusMm: 80, stringSpacingMm: 6, marginDegrees: 3 },
      'marginDegrees: expected less than 2.1',
    ],
    ['limits', { strokeMs: 'fast' }, 'strokeMs: expected a number above 0'],
    [
      'limits',
      { strokeMs: { value: 80, date: 'yesterday' } },
      'strokeMs.date: expected a day such as 2026-03-02, got "yesterday"',
    ],
  ] as const) {
    const { exitCode, stderr } = refusal(kind, value);
    expect([exitCode, stderr]).toEqual([1, expect.stringContaining(words)]);
  }
});

test('the report tells the hand, what sounds together and ornaments, in its summary and in JSON', () => {
  const both = file(
    'both-hands.abc',
    'X:1\nT:Both\nR:reel\nM:4/4\nL:1/8\n%%morrin-drones 1:lower 2:upper\n%%morrin-marks 3:flick 4:roll\n%%morrin-positions 6:3\nK:D\n|:A2F2 A2B2|f2 a2 [df]2 C2:|\n',
  );
  const { stdout } = run(['report', both]);
  expect(stdout).toContain('hand: 4 shifts');
  expect(stdout).toContain('2 notes outside first position, 0 out of reach');
  expect(stdout).toContain('double stops: 6, of them 0 sharp');
  expect(stdout).toContain('ornaments as played: 2 flick, 2 roll');
  const checked = report(both);
  const [first, second, third, , fifth, sixth, chord] = checked.notes;
  expect([first!.drones, second!.drones]).toEqual([['D4'], ['A4']]);
  expect(third!.ornaments).toEqual(['flick']);
  expect(fifth!.position).toBe(1);
  expect(sixth).toMatchObject({ position: 3, hand: { shift: { from: 1, to: 3, audible: false } } });
  expect(sixth!.events.map(({ kind }) => kind)).toContain('shift');
  expect(checked.doubleStops[0]).toMatchObject({
    id: first!.id,
    pitch: 'D4',
    interval: 'perfect fifth up',
    class: 'perfect',
    open: true,
    role: 'root',
  });
  expect(checked.doubleStops.find(({ id }) => id === chord!.id)).toMatchObject({ open: false, beats: null });
});

test('the arm goes as the player was taught, and what a crossing needs with it', () => {
  const schooled = (arm: string) => report(reel, '--schools', file(`${arm}.json`, JSON.stringify({ arm })));
  const crossing = ({ notes }: Report) => notes.find((note) => note.crossing && note.crossing.skips === 0)!;
  const [early, middle] = [crossing(schooled('early')), crossing(schooled('middle'))];
  expect(crossing(report(reel)).crossing).toEqual(early.crossing);
  expect(early.crossing!.turnDegrees).toBeCloseTo(2, 3);
  expect(middle.crossing!.turnDegrees).toBeCloseTo(15.738, 3);
  expect(middle.crossing!.degrees).toBe(early.crossing!.degrees);
  expect(middle.arm!.angle).toBeCloseTo((middle.arm!.low + middle.arm!.high) / 2, 2);
  const refused = run(['report', reel, '--schools', file('odd.json', '{"arm": "elbow"}')]);
  expect(refused).toMatchObject({
    exitCode: 1,
    stderr: expect.stringMatching(/arm: expected early or late or middle/),
  });
});

test('a pair of strings held throughout stops nothing, leaves no note alone, and crosses less', () => {
  interface Line {
    wish: string;
    notes: { partner: { finger: number } | null; pair: string | null; inChord: boolean | null }[];
    crossings: { before: number; after: number };
    armDegrees: { before: number; after: number };
  }
  const line = (wish: string) => JSON.parse(run(['drones', 'demo/heron.abc', '--wish', wish, '--json']).stdout) as Line;
  const pair = line('pair');
  expect(pair.notes).toHaveLength(232);
  for (const { partner, pair: plane } of pair.notes) {
    expect(partner!.finger).toBe(0);
    expect(plane).toMatch(/^[GDA]-[DAE]$/);
  }
  expect(pair.crossings.after).toBeLessThan(0.6 * pair.crossings.before);
  expect(pair.armDegrees.after).toBeLessThan(pair.armDegrees.before);
  const [stressed, ends] = [line('stressed'), line('phrase-ends')].map(({ notes }) => notes.filter((n) => n.partner));
  expect(ends!.length).toBeGreaterThan(0);
  expect(stressed!.length).toBeGreaterThan(ends!.length);
  expect(run(['drones', 'demo/heron.abc', '--wish', 'always'])).toMatchObject({ exitCode: 2 });
});

test('a fingering tells what each note is charged, and the charges sum to its cost', () => {
  const { notes, cost, shifts } = JSON.parse(run(['fingering', 'demo/pewter-sky.abc', '--json']).stdout) as {
    notes: { id: string; cost: number; terms: { stop: number; move: number }; position: number }[];
    cost: number;
    shifts: object[];
  };
  const each = new Map(notes.map((note) => [note.id, note]));
  expect([...each.values()].reduce((sum, note) => sum + note.cost, 0)).toBeCloseTo(cost, 1);
  for (const note of notes) expect(note.terms.stop + note.terms.move).toBeCloseTo(note.cost, 2);
  expect(shifts.length > 0).toBe(new Set(notes.map(({ position }) => position)).size > 1);
});

test('a tune that cannot be read is told beside those that can, and they are given all the same', () => {
  const two = file('two.abc', 'X:1\nT:L\nM:4/4\nL:1/8\nK:D\nA99999999 B|\n\nX:2\nT:Ok\nM:4/4\nL:1/8\nK:D\nABcd|\n');
  for (const args of [
    ['report', two],
    ['convert', two, '--to', 'abc'],
    ['drones', two],
    ['fingering', two],
  ]) {
    const { exitCode, stdout, stderr } = run(args);
    expect([args[0], exitCode, stdout.includes('Ok')]).toEqual([args[0], 0, true]);
    expect(stderr).toMatch(/two\.abc:6:1: .*12,500,000 whole notes: expected at most 64/);
  }
});
