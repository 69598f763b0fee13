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
  return { count, errors, events, truth };
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

/** A take of each tune on the sampled violin, as lines of Markdown. */
export function sampledTable() {
  const folder = mkdtempSync(join(tmpdir(), 'morrin-'));
  const [onsets, cents] = [[], []];
  const made = { wrong: 0, left: 0, added: 0 };
  const found = { wrong: 0, left: 0, added: 0 };
  let [notes, falseAlarms] = [0, 0];
  const CODES = { wrong: 'wrong-note', left: 'left-out', added: 'added-note' };
  try {
    for (const [k, tune] of takeTunes().entries()) {
      const report = reportTune(tune);
      const { count, errors, events, truth } = playing(report, 7 + k);
      const [midi, wav] = [join(folder, 'take.mid'), join(folder, 'take.wav')];
      writeFileSync(midi, midiFile(events));
      execFileSync(
        'fluidsynth',
        ['-ni', '-R', '0', '-C', '0', '-g', '0.6', '-r', '44100', '-F', wav, SAMPLED_SOUNDS, midi],
        {
          stdio: 'ignore',
        },
      );
      const { samples, sampleRate } = readWav(readFileSync(wav));
      const steps = checkInBlocks(samples, expectedOf(report, { span: { from: 0, to: count } }), {
        sampleRate,
        bpm: report.settings.bpm,
      });
      let step = steps.next();
      while (!step.done) step = steps.next();
      const { heard, findings } = step.value;
      const offs = truth.flatMap(({ i, onset }) =>
        heard.notes[i].heard ? [1000 * (heard.notes[i].onset - onset)] : [],
      );
      const delay = quantile(offs, 0.5);
      onsets.push(...offs.map((off) => Math.abs(off - delay)));
      cents.push(
        ...heard.notes.flatMap((one) =>
          one.heard && one.otherCents === null && !one.note.hasGesture ? [Math.abs(one.cents)] : [],
        ),
      );
      const near = { wrong: 0, left: 0, added: 1 };
      const isOf = (kind, finding) =>
        finding.code === CODES[kind] && [...errors[kind]].some((i) => Math.abs(finding.notes[0] - i) <= near[kind]);
      for (const kind of Object.keys(made)) {
        made[kind] += errors[kind].size;
        for (const i of errors[kind])
          if (findings.some((one) => one.code === CODES[kind] && Math.abs(one.notes[0] - i) <= near[kind]))
            found[kind] += 1;
      }
      const orders = ['wrong-note', 'left-out', 'added-note', 'started-again', 'wrong-pass'];
      falseAlarms += findings.filter(
        (one) => orders.includes(one.code) && !Object.keys(made).some((kind) => isOf(kind, one)),
      ).length;
      notes += count;
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
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
