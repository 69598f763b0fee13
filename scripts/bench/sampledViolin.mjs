// Takes on a violin from elsewhere: MIDI with known errors, played by Debian's fluidsynth with its sampled violin.
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { writeMidi } from 'midi-file';
import { normalOf, seeded } from '../../src/core/base/index.ts';
import { midiOf } from '../../src/core/pitch/index.ts';
import { reportTune } from '../../src/core/report/index.ts';
import { checkInBlocks, expectedOf } from '../../src/core/take/index.ts';
import { readWav } from '../../src/formats/wav/index.ts';
import { SAMPLED_SOUNDS } from '../lib/debian.mjs';
import { takeTunes } from './listening.mjs';

const VIOLIN = 40;
const TICKS_A_SECOND = 960;
const NOTES = 110;
/** An error every so many notes, the kinds by turns. */
const EVERY = 9;
const UNEVEN_SECONDS = 0.008;

/** What is played of a tune: notes with their errors, and the truth. */
function playing(report, seed) {
  const normal = normalOf(seeded(seed));
  const count = Math.min(report.unrolled.notes.length, NOTES);
  const errors = { wrong: new Set(), left: new Set(), added: new Set() };
  for (let i = 12; i < count - 6; i += EVERY) errors[['wrong', 'left', 'added'][Math.floor(i / EVERY) % 3]].add(i);
  const events = [];
  const truth = [];
  let shift = 0.5;
  for (let i = 0; i < count; i++) {
    const key = midiOf(report.unrolled.notes[i].note.pitch);
    const on = report.timing.onsets[i] + shift + UNEVEN_SECONDS * normal();
    const length = report.timing.durations[i];
    const off = report.timing.onsets[i] + shift + 0.97 * length;
    if (errors.left.has(i)) continue;
    events.push({ on, off, key: key + (errors.wrong.has(i) ? (i % 2 ? 2 : -2) : 0) });
    truth.push({ i, onset: on });
    if (!errors.added.has(i)) continue;
    const more = Math.max(0.1, Math.min(0.2, length));
    const beside = [i - 1, i + 1].map((k) => midiOf(report.unrolled.notes[k].note.pitch) - key);
    const step = [1, 3, -2, 4].find((one) => !beside.includes(one));
    events.push({ on: off + 0.005, off: off + more, key: key + step });
    shift += more + 0.01;
  }
  // A key is let go before it is struck again.
  const inOrder = events.map((event, k) => ({
    ...event,
    off: Math.min(event.off, (events[k + 1]?.on ?? Infinity) - 0.004),
  }));
  return { count, errors, events: inOrder, truth };
}

function midiFile(events) {
  const ticks = (seconds) => Math.round(seconds * TICKS_A_SECOND);
  const messages = events
    .flatMap(({ on, off, key }) => [
      { at: ticks(on), type: 'noteOn', noteNumber: key, velocity: 90 },
      { at: ticks(off), type: 'noteOff', noteNumber: key, velocity: 0 },
    ])
    .sort((a, b) => a.at - b.at || (a.type === 'noteOff' ? -1 : 1));
  let last = 0;
  const track = [
    { deltaTime: 0, meta: true, type: 'setTempo', microsecondsPerBeat: 500_000 },
    { deltaTime: 0, channel: 0, type: 'programChange', programNumber: VIOLIN },
  ];
  for (const { at, ...message } of messages) {
    track.push({ deltaTime: at - last, channel: 0, ...message });
    last = at;
  }
  track.push({ deltaTime: TICKS_A_SECOND, meta: true, type: 'endOfTrack' });
  return Buffer.from(writeMidi({ header: { format: 0, numTracks: 1, ticksPerBeat: 480 }, tracks: [track] }));
}

const quantile = (values, share) => values.toSorted((a, b) => a - b)[Math.floor(share * (values.length - 1))] ?? NaN;

/** A take of each tune on the sampled violin, with what was played and what was heard. */
export function* sampledTakes() {
  const folder = mkdtempSync(join(tmpdir(), 'morrin-'));
  try {
    for (const [k, tune] of takeTunes().entries()) {
      const report = reportTune(tune);
      const { count, errors, events, truth } = playing(report, 7 + k);
      const [midi, wav] = [join(folder, 'take.mid'), join(folder, 'take.wav')];
      writeFileSync(midi, midiFile(events));
      const options = ['-ni', '-R', '0', '-C', '0', '-g', '0.6', '-r', '44100', '-F', wav];
      execFileSync('fluidsynth', [...options, SAMPLED_SOUNDS, midi], { stdio: 'ignore' });
      const { samples, sampleRate } = readWav(readFileSync(wav));
      const steps = checkInBlocks(samples, expectedOf(report, { span: { from: 0, to: count } }), {
        sampleRate,
        bpm: report.settings.bpm,
      });
      let step = steps.next();
      while (!step.done) step = steps.next();
      yield { report, count, errors, truth, check: step.value };
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

const CODES = { wrong: 'wrong-note', left: 'left-out', added: 'added-note' };
/** How far from its place an error may be told, in notes. */
const NEAR = { wrong: 0, left: 0, added: 1 };
const ORDERS = ['wrong-note', 'left-out', 'added-note', 'started-again', 'wrong-pass'];

/** Which errors of each kind were not told, and which findings about the order are of none. */
export function judgedErrors({ errors, check: { findings } }) {
  const kinds = Object.keys(CODES);
  const isOf = (kind, i, { code, notes }) => code === CODES[kind] && Math.abs(notes[0] - i) <= NEAR[kind];
  const missed = Object.fromEntries(
    kinds.map((kind) => [kind, [...errors[kind]].filter((i) => !findings.some((one) => isOf(kind, i, one)))]),
  );
  const invented = findings.filter(
    (one) => ORDERS.includes(one.code) && !kinds.some((kind) => [...errors[kind]].some((i) => isOf(kind, i, one))),
  );
  return { missed, invented };
}

/** What came of all of them, as lines of Markdown. */
export function sampledTable() {
  const [onsets, cents] = [[], []];
  const made = { wrong: 0, left: 0, added: 0 };
  const found = { ...made };
  let [notes, falseAlarms] = [0, 0];
  for (const take of sampledTakes()) {
    const { heard } = take.check;
    const offs = take.truth.flatMap(({ i, onset }) =>
      heard.notes[i].heard ? [1000 * (heard.notes[i].onset - onset)] : [],
    );
    const delay = quantile(offs, 0.5);
    onsets.push(...offs.map((off) => Math.abs(off - delay)));
    const isPlain = (one) => one.heard && one.otherCents === null && !one.note.hasGesture;
    cents.push(...heard.notes.filter(isPlain).map((one) => Math.abs(one.cents)));
    const { missed, invented } = judgedErrors(take);
    for (const kind of Object.keys(made)) {
      made[kind] += take.errors[kind].size;
      found[kind] += take.errors[kind].size - missed[kind].length;
    }
    falseAlarms += invented.length;
    notes += take.count;
  }
  return [
    '| sampled violin | beginnings, median / 90 % | pitch, median / 90 % | wrong | left out | added | false in 100 notes |',
    '| --- | --- | --- | --- | --- | --- | --- |',
    `| ${notes} notes | ${quantile(onsets, 0.5).toFixed(1)} / ${quantile(onsets, 0.9).toFixed(1)} ms | ` +
      `${quantile(cents, 0.5).toFixed(1)} / ${quantile(cents, 0.9).toFixed(1)} cents | ` +
      `${found.wrong} of ${made.wrong} | ${found.left} of ${made.left} | ${found.added} of ${made.added} | ` +
      `${((100 * falseAlarms) / notes).toFixed(2)} |`,
  ];
}
