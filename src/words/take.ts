import { type DrillRow, type FigureUnit, MAX_TAKE_SECONDS, MISTAKE_KINDS, type MistakeKind } from '#core/take';
import { WAV_RATES, type WavFaultCode } from '#formats/wav';
import { counted } from './plural';

/** What each mistake is called, and what is said of it with its figure. */
const MISTAKES: Readonly<Record<MistakeKind, { readonly name: string; readonly says: (figure: string) => string }>> = {
  sharp: { name: 'sharp', says: (figure) => `sharp by ${figure}` },
  flat: { name: 'flat', says: (figure) => `flat by ${figure}` },
  'wrong-note': { name: 'wrong note', says: (figure) => `another note, ${figure} away` },
  'left-out': { name: 'left out', says: () => 'left out' },
  'added-note': { name: 'added note', says: (figure) => `a note that is not in the plan, for ${figure}` },
  'started-again': { name: 'started again', says: (figure) => `started again, ${figure} played once more` },
  'wrong-pass': {
    name: 'another pass',
    says: (figure) => `went on elsewhere: ${figure} passed over or played once more`,
  },
  'late-finger': { name: 'late finger', says: (figure) => `the finger came ${figure} after the bow` },
  'bumped-drone': { name: 'bumped drone', says: (figure) => `the open string was bumped: it dips by ${figure}` },
  'dropped-second': {
    name: 'second string dropped',
    says: (figure) => `the second string is missing for ${figure} of the time`,
  },
  'skipped-string-sounds': {
    name: 'skipped string sounds',
    says: (figure) => `the string in between sounds for ${figure}`,
  },
  'rushed-turn': { name: 'rushed turn', says: (figure) => `the gap for the turn is ${figure} too short` },
  scratch: { name: 'scratch', says: (figure) => `noise for ${figure} longer than usual before the pitch stands` },
  'flick-became-note': {
    name: 'flick became a note',
    says: (figure) => `the flick is a note of its own for ${figure}`,
  },
  'uneven-triplet': { name: 'uneven triplet', says: (figure) => `the strokes of the triplet differ by ${figure}` },
  'pulse-stayed': {
    name: 'pulse that stayed',
    says: (figure) => `the pulse never came back: ${figure} louder at its end`,
  },
  rushing: { name: 'rushing', says: (figure) => `${figure} quicker than the rest` },
  dragging: { name: 'dragging', says: (figure) => `${figure} slower than the rest` },
  'late-entry': { name: 'late entry', says: (figure) => `${figure} late after the rest` },
  'hold-cut-short': { name: 'hold cut short', says: (figure) => `the long note is ${figure} too short` },
  'silence-cut-short': { name: 'silence cut short', says: (figure) => `the rest is ${figure} too short` },
  'staccato-runs-together': {
    name: 'staccato runs together',
    says: (figure) => `the gap after it is ${figure} too short`,
  },
  'narrow-vibrato': { name: 'vibrato too narrow', says: (figure) => `the vibrato moves by only ${figure}` },
  'cloudy-low-string': {
    name: 'cloudy low string',
    says: (figure) => `the low partials are ${figure} weaker than usual`,
  },
};

/** What stands behind a figure. */
export const UNIT_WORDS: Readonly<Record<FigureUnit, string>> = {
  ms: 'ms',
  cents: 'cents',
  dB: 'dB',
  percent: '%',
  notes: 'notes',
};

export const mistakeName = (kind: MistakeKind): string => MISTAKES[kind].name;

/** A figure with its unit, as a player reads it. */
export function figureWords(figure: number, unit: FigureUnit): string {
  const value = unit === 'dB' ? figure.toFixed(1) : String(Math.round(figure));
  if (unit === 'notes') return counted(Math.round(figure), 'note');
  if (unit === 'cents') return figure < 2 ? `${figure.toFixed(1)} cents` : counted(Math.round(figure), 'cent');
  return unit === 'percent' ? `${value} %` : `${value} ${unit}`;
}

/** A finding in one line: what, how much, and from where on it is told. */
export function mistakeWords({
  code,
  figure,
  unit,
}: {
  readonly code: MistakeKind;
  readonly figure: number;
  readonly unit: FigureUnit;
}): string {
  return MISTAKES[code].says(figureWords(figure, unit));
}

/** The figure’s uncertainty and its threshold, for those who want to know. */
export function marginWords({
  unit,
  uncertainty,
  threshold,
}: {
  readonly unit: FigureUnit;
  readonly uncertainty: number;
  readonly threshold: number;
}): string {
  if (unit === 'notes') return 'told whenever it happens';
  return `± ${figureWords(uncertainty, unit)}, told from ${figureWords(threshold, unit)} on`;
}

const minutes = Math.round(MAX_TAKE_SECONDS / 60);

/** Why a file cannot be listened to. */
const WAV_FAULTS: Readonly<Record<WavFaultCode, (got: number | string) => string>> = {
  empty: () => 'expected a sound file, got an empty one',
  'not-wav': () => 'expected a WAV file, got something else',
  'no-format': () => 'expected a WAV file that says its rate and depth, got one that breaks off before',
  compressed: (got) => `expected plain samples, got a WAV file compressed in way ${got}`,
  depth: (got) => `expected 8, 16, 24 or 32 bits a sample, got ${got}`,
  channels: (got) => `expected 1 to 32 channels, got ${got}`,
  rate: (got) => `expected ${WAV_RATES.min} to ${WAV_RATES.max} samples a second, got ${got}`,
  'no-sound': () => 'expected some sound, got a file without any',
  'too-large': (got) => `expected at most 256 MB, got ${Math.round(Number(got) / 1024 / 1024)} MB`,
  'too-long': (got) => `expected at most ${minutes} minutes, got ${Math.round(Number(got) / 60)}`,
};

export const wavFaultWords = (code: WavFaultCode, got: number | string): string => WAV_FAULTS[code](got);

export const isMistakeKind = (text: string): text is MistakeKind => (MISTAKE_KINDS as readonly string[]).includes(text);

/** How a take went, in a few words. */
export function takeVerdict(clean: boolean, findings: number, heardNotes: number, notes: number): string {
  if (clean) return 'Clean.';
  if (heardNotes === 0) return 'Nothing of the tune was heard.';
  if (findings === 0) return `Only ${heardNotes} of ${counted(notes, 'note')} heard.`;
  return `${counted(findings, 'thing')} to mend.`;
}

const ROW_NAMES: Readonly<Record<Exclude<DrillRow['name'], MistakeKind>, string>> = {
  'unbroken-pair': 'longest on both strings',
  'unison-beats': 'beats of the unison',
  'fifth-apart': 'the two pitches apart',
  'fade-slope': 'the fade goes',
  'vibrato-rate': 'the vibrato’s rate',
  'pulse-rise': 'the pulse rises by',
};
const ROW_UNITS: Readonly<Record<Exclude<DrillRow['unit'], FigureUnit>, string>> = {
  s: 's',
  perSecond: 'a second',
  dBPerSecond: 'dB a second',
  hertz: 'a second',
};

/** A drill's own figure in a few words. */
export function rowWords({ name, value, unit }: DrillRow): string {
  const figure =
    unit === 's' || unit === 'perSecond' || unit === 'dBPerSecond' || unit === 'hertz'
      ? `${value.toFixed(1)} ${ROW_UNITS[unit]}`
      : figureWords(value, unit);
  return isMistakeKind(name) ? `${MISTAKES[name].name}: ${figure} at worst` : `${ROW_NAMES[name]} ${figure}`;
}
