import { type TakeJson, takeSchema } from '#contract/take';
import type { TuneReport } from '#core/report';
import { checkInBlocks, expectedOf, MAX_TAKE_SECONDS, type TakeCheck } from '#core/take';
import { PLACES } from '#core/tune';
import { readWav, WavFault, type WavSound } from '#formats/wav';
import { counted } from '#words/plural';
import { mistakeWords, wavFaultWords } from '#words/take';
import { readBytes } from './readInput';
import { type StretchFlags, stretchOf } from './stretch';
import { InputError, UsageError } from './usage';

export interface TakeFlags extends StretchFlags {
  readonly recording?: string;
  readonly json?: boolean;
}

/** `take FILE --recording take.wav`: what was heard of a plan, and what went wrong. */
export function take(file: string, flags: TakeFlags, leftOut: string[]): string {
  if (flags.recording === undefined) throw new UsageError('--recording: expected a WAV file to listen to');
  const { report, span, loops, a4 } = stretchOf(file, flags, leftOut);
  const sound = readRecording(flags.recording);
  const { sampleRate, samples } = sound;
  const steps = checkInBlocks(samples, expectedOf(report, { span, loops, a4 }), {
    sampleRate,
    bpm: report.settings.bpm,
  });
  let step = steps.next();
  while (!step.done) step = steps.next();
  const json = takeJson(report, step.value, sound);
  return flags.json ? `${JSON.stringify(json)}\n` : summary(json);
}

function readRecording(path: string): WavSound {
  try {
    return readWav(readBytes(path), MAX_TAKE_SECONDS);
  } catch (error) {
    if (error instanceof WavFault) throw new InputError(`${path}:1:1: ${wavFaultWords(error.code, error.got)}`);
    throw error;
  }
}

const rounded = (value: number, step: number) => (Number.isFinite(value) ? Math.round(value / step) * step : null);
const exact = (value: number | null, digits: number) => (value === null ? null : Number(value.toFixed(digits)));

function takeJson(report: TuneReport, { heard, figures, findings, clean }: TakeCheck, sound: WavSound): TakeJson {
  const { notes } = report.unrolled;
  return takeSchema.parse({
    notes: heard.notes.map((one) => ({
      index: one.note.index,
      id: notes[one.note.index]!.note.id,
      loop: one.note.loop + 1,
      heard: one.heard,
      onset: one.heard ? exact(rounded(one.onset, 1e-4), 4) : null,
      onsetUncertaintyMs: one.heard ? exact(rounded(one.onsetUncertaintyMs, 0.1), 1) : null,
      offMs: one.heard ? exact(rounded(one.offMs, 0.1), 1) : null,
      cents: one.heard ? exact(rounded(one.cents, 0.1), 1) : null,
      centsUncertainty: one.heard ? exact(rounded(one.centsUncertainty, 0.1), 1) : null,
      level: one.heard ? exact(rounded(one.level, 0.1), 1) : null,
      confidence: Number(one.confidence.toFixed(3)),
    })),
    tempo: {
      bpm: exact(figures.tempo.bpm, 2),
      driftPercentPerMinute: exact(figures.tempo.driftPercentPerMinute, 2),
      driftUncertainty: exact(figures.tempo.driftUncertainty, 2),
      steadinessMs: exact(figures.tempo.steadinessMs, 1),
    },
    lilt: figures.lilt,
    offbeatDecibels: exact(figures.offbeatDecibels, 1),
    holdFactor: exact(figures.holdFactor, 3),
    silenceFactor: exact(figures.silenceFactor, 3),
    fingers: figures.fingers.map(({ place, ...rest }) => ({ place: PLACES[place]!, ...rest })),
    heardNotes: figures.heardNotes,
    clean,
    recording: {
      seconds: sound.samples.length / sound.sampleRate,
      sampleRate: sound.sampleRate,
      clipped: sound.clipped,
      promisedSeconds: sound.promisedSeconds,
    },
    findings: findings.map((finding) => ({ ...finding, loop: finding.loop + 1, message: mistakeWords(finding) })),
  });
}

function summary({ notes, heardNotes, tempo, findings, clean, recording }: TakeJson): string {
  const lines = [
    `${heardNotes} of ${counted(notes.length, 'note')} heard in ${recording.seconds.toFixed(1)} s`,
    ...(heardNotes === 0 ? ['nothing of the tune was heard: is it the right recording, and loud enough?'] : []),
    ...(tempo.bpm === null ? [] : [`tempo ${tempo.bpm}, steady within ${tempo.steadinessMs ?? '?'} ms`]),
    ...(recording.clipped > 0.001
      ? [`${(100 * recording.clipped).toFixed(1)} % is cut off at full scale: record more softly`]
      : []),
    ...(recording.promisedSeconds === null
      ? []
      : [`the file ends early: it promised ${recording.promisedSeconds.toFixed(1)} s`]),
    ...findings.map(({ seconds, message, notes: [index] }) => `${seconds.toFixed(2)} s, note ${index}: ${message}`),
    clean
      ? 'clean'
      : findings.length === 0
        ? 'not clean: too little of it was heard'
        : `${counted(findings.length, 'thing')} to mend`,
  ];
  return `${lines.join('\n')}\n`;
}
