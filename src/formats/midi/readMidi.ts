import { type MidiData, type MidiEvent, parseMidi } from 'midi-file';
import { toNumber } from '#core/base';
import { type Key, keyFifths, LETTERS, MODES } from '#core/pitch';
import { beatUnit } from '#core/tempo';
import { type Meter, MUSIC_BOUNDS, type Tune, writtenNotes } from '#core/tune';
import { STANDARD_TUNING } from '#core/tuning';
import type { ReadTune, Voice } from '../score';
import { FILE_START, type ImportMatter, type ImportMessage, importMessage, stopMessage } from '../text';
import { foldPasses } from './foldPasses';
import { barsOfMelody, type MidiMeter } from './melodyBars';
import { defaultGrid, type Grid, type MidiNote, quantise, QUARTER } from './quantise';

/** How a MIDI file is to be read. */
export interface MidiChoice {
  /** Id of the voice that is the melody. */
  readonly voice?: string;
  readonly grid?: Grid;
}

/** A MIDI file as read, and what the quantising did to it. */
export interface ReadMidi {
  readonly tune: ReadTune | null;
  readonly voices: readonly Voice[];
  readonly messages: readonly ImportMessage[];
  readonly quantised: {
    readonly grid: Grid;
    readonly meanMs: number;
    readonly worstMs: number;
    readonly moved: number;
  } | null;
}

/** Notes beyond this are not read. */
const MAX_NOTES = 20_000;
/** Four bytes of seven bits; what goes on longer comes out of the parser as anything, also as less than nothing. */
const MAX_DELTA = 0x0fffffff;
/** Percussion by custom: its numbers are no pitches. */
const PERCUSSION = 9;
/** Quarters a minute where a file does not say. */
const DEFAULT_TEMPO = 120;
/** An onset moved by more than this share of a quarter is counted. */
const MOVED = 0.05;

/**
 * Reads the melody of a standard MIDI file: one track and channel, the highest of notes that begin together, quantised,
 * cut into bars by its time signatures, spelled in its key. Equal stretches of eight bars are taken for passes of a part.
 */
export function readMidi(bytes: Uint8Array, choice: MidiChoice = {}): ReadMidi {
  try {
    return readNotes(bytes, choice);
  } catch (error) {
    const message = stopMessage(error, 'file', FILE_START);
    return { tune: null, voices: [], messages: [message], quantised: null };
  }
}

function readNotes(bytes: Uint8Array, choice: MidiChoice): ReadMidi {
  const failed = (matter: ImportMatter, voices: readonly Voice[] = []): ReadMidi => ({
    tune: null,
    voices,
    messages: [importMessage(FILE_START, matter)],
    quantised: null,
  });
  let midi: MidiData;
  try {
    midi = parseMidi(bytes);
  } catch {
    return failed({ what: 'not-midi' });
  }
  const ticks = midi.header.ticksPerBeat;
  if (!ticks || ticks < 1) return failed({ what: 'midi-frames' });
  if (midi.tracks.some((events) => events.some(({ deltaTime }) => !(deltaTime >= 0 && deltaTime <= MAX_DELTA))))
    return failed({ what: 'midi-damaged' });
  const sources = notesByVoice(midi, ticks);
  const voices = sources.map(({ id, name, notes }) => ({ id, name, notes: notes.length }));
  const source = sources.find(({ id }) => id === choice.voice) ?? mainVoice(sources);
  if (!source) return failed({ what: 'no-midi-notes' });
  const head = readHead(midi, ticks);
  const grid = choice.grid ?? defaultGrid(source.notes);
  // An odd byte in a time of the file may be a gap of years, which would be filled with rests.
  const wholes = source.notes.reduce((last, { end }) => Math.max(last, end), 0) / 4;
  if (!(wholes <= MUSIC_BOUNDS.playedWholes)) return failed({ what: 'midi-too-much', found: wholes }, voices);
  const quantised = quantise(source.notes, grid);
  const messages: ImportMessage[] = [];
  const say = (matter: ImportMatter) => messages.push(importMessage(FILE_START, matter));
  if (sources.length > 1) say({ what: 'midi-voices', read: source.name, others: sources.length - 1 });
  if (source.isCut) say({ what: 'too-many-notes', max: MAX_NOTES });
  const key = head.key ?? guessedKey(source.notes);
  if (!head.key) say({ what: 'midi-key-guessed' });
  const bars = barsOfMelody(quantised.notes, head.meters, key);
  const meter = mainMeter(head.meters, Math.max(...source.notes.map(({ end }) => end)));
  const { parts, form } = foldPasses(bars, meter);
  const bpm = head.quarterTempo / (4 * toNumber(beatUnit(null, meter)));
  const tune: Tune = {
    schemaVersion: 1,
    title: head.title || 'Untitled',
    danceType: null,
    meter,
    key,
    tuning: STANDARD_TUNING,
    tempoBpm: bpm >= 10 && bpm <= 400 ? Math.round(bpm * 10) / 10 : null,
    start: null,
    parts,
    form,
  };
  if (writtenNotes(tune).length === 0) return failed({ what: 'no-midi-voice-notes' }, voices);
  const msPerQuarter = 60_000 / head.quarterTempo;
  const offsets = quantised.offsets.map((offset) => Math.abs(offset));
  return {
    tune: {
      reference: '',
      tune,
      messages,
      source: null,
      barPositions: new Map(),
      voices: voices.length > 1 ? voices : [],
    },
    voices,
    messages: [],
    quantised: {
      grid,
      meanMs: (offsets.reduce((sum, offset) => sum + offset, 0) / Math.max(1, offsets.length)) * msPerQuarter,
      worstMs: Math.max(0, ...offsets) * msPerQuarter,
      moved: offsets.filter((offset) => offset > MOVED * QUARTER).length,
    },
  };
}

interface VoiceNotes {
  readonly id: string;
  readonly name: string;
  readonly notes: MidiNote[];
  isCut: boolean;
}

/** The notes of each track and channel, in quarters from the start. */
function notesByVoice({ tracks }: MidiData, ticks: number): VoiceNotes[] {
  return tracks.flatMap((track, index) => {
    const name = trackName(track) || `track ${index + 1}`;
    const byChannel = new Map<number, VoiceNotes>();
    const open = new Map<string, number>();
    let tick = 0;
    for (const event of track) {
      tick += event.deltaTime;
      if (event.type !== 'noteOn' && event.type !== 'noteOff') continue;
      const { channel, noteNumber } = event;
      if (channel === PERCUSSION || !(noteNumber >= 0 && noteNumber <= 127)) continue;
      const isOn = event.type === 'noteOn' && event.velocity > 0;
      const key = `${channel}/${noteNumber}`;
      const begun = open.get(key);
      if (begun !== undefined) {
        const voice = byChannel.get(channel) ?? { id: `${index}/${channel}`, name, notes: [], isCut: false };
        byChannel.set(channel, voice);
        if (voice.notes.length >= MAX_NOTES) voice.isCut = true;
        else if (tick > begun) voice.notes.push({ onset: begun / ticks, end: tick / ticks, midi: noteNumber });
        open.delete(key);
      }
      if (isOn) open.set(key, tick);
    }
    return [...byChannel.values()]
      .filter(({ notes }) => notes.length > 0)
      .map((voice) => ({
        ...voice,
        name: byChannel.size > 1 ? `${name}, channel ${Number(voice.id.split('/')[1]) + 1}` : name,
      }));
  });
}

function trackName(track: readonly MidiEvent[]): string {
  const event = track.find((own) => own.type === 'trackName');
  return event && 'text' in event ? cleanName(event.text) : '';
}

/** Names are bytes of no stated encoding: UTF-8 where they are, control characters left out. */
function cleanName(text: string): string {
  const bytes = Uint8Array.from(text, (char) => char.charCodeAt(0) & 0xff);
  const utf8 = decodeUtf8Name(bytes) ?? text;
  return utf8
    .replace(/[\p{Cc}\p{Cs}]+/gu, ' ')
    .replace(/\s+/g, ' ')
    .trim()
    .slice(0, 300);
}

function decodeUtf8Name(bytes: Uint8Array): string | null {
  try {
    return decodeURIComponent(Array.from(bytes, (byte) => `%${byte.toString(16).padStart(2, '0')}`).join(''));
  } catch {
    return null;
  }
}

/** A track called melody, else the highest in the mean: the tune lies on top. */
function mainVoice(voices: readonly VoiceNotes[]): VoiceNotes | undefined {
  const named = voices.find(({ name }) => /melod|tune|lead|fiddle|violin/i.test(name));
  const mean = ({ notes }: VoiceNotes) => notes.reduce((sum, { midi }) => sum + midi, 0) / notes.length;
  return (
    named ??
    voices.reduce<VoiceNotes | undefined>((best, own) => (best && mean(best) >= mean(own) ? best : own), undefined)
  );
}

interface Head {
  readonly title: string;
  readonly quarterTempo: number;
  readonly meters: readonly MidiMeter[];
  readonly key: Key | null;
}

function readHead({ tracks }: MidiData, ticks: number): Head {
  let title = '';
  let quarterTempo: number | null = null;
  let key: Key | null = null;
  const meters: MidiMeter[] = [];
  for (const track of tracks) {
    let tick = 0;
    for (const event of track) {
      tick += event.deltaTime;
      if (event.type === 'trackName' && title === '') title = cleanName(event.text);
      if (event.type === 'setTempo' && quarterTempo === null && event.microsecondsPerBeat > 0)
        quarterTempo = 60e6 / event.microsecondsPerBeat;
      if (event.type === 'timeSignature') {
        const { numerator: num, denominator: den } = event;
        if (num >= 1 && num <= 64 && [1, 2, 4, 8, 16, 32, 64].includes(den))
          meters.push({ at: tick / ticks, num, den });
      }
      if (event.type === 'keySignature' && key === null) key = keyOfSignature(event.key, event.scale);
    }
  }
  meters.sort((a, b) => a.at - b.at);
  if (meters.length === 0 || meters[0]!.at > 0) meters.unshift({ at: 0, num: 4, den: 4 });
  return { title, quarterTempo: quarterTempo ?? DEFAULT_TEMPO, meters, key };
}

/** The meter that holds the longest up to the last note; bars of other lengths keep theirs. */
function mainMeter(meters: readonly MidiMeter[], end: number): Meter {
  const held = new Map<string, { meter: Meter; quarters: number }>();
  for (const [i, { at, num, den }] of meters.entries()) {
    const known = ([1, 2, 4, 8, 16, 32] as const).find((value) => value === den);
    if (known === undefined) continue;
    const until = Math.min(end, meters[i + 1]?.at ?? end);
    const quarters = Math.max(0, until - at) + (held.get(`${num}/${den}`)?.quarters ?? 0);
    held.set(`${num}/${den}`, { meter: { num, den: known }, quarters });
  }
  const longest = [...held.values()].sort((a, b) => b.quarters - a.quarters)[0];
  return longest?.meter ?? { num: 4, den: 4 };
}

function keyOfSignature(fifths: number, scale: number): Key | null {
  if (!Number.isInteger(fifths) || Math.abs(fifths) > 7) return null;
  return keyWith(fifths, scale === 1 ? 'minor' : 'major');
}

function keyWith(fifths: number, mode: Key['mode']): Key | null {
  for (const alter of [0, 1, -1])
    for (const letter of LETTERS) if (keyFifths({ letter, alter, mode }) === fifths) return { letter, alter, mode };
  return null;
}

/** The signature that holds the most of the playing time, near none on a tie, and of its modes the one that ends on its tonic. */
function guessedKey(notes: readonly MidiNote[]): Key {
  const time = Array<number>(12).fill(0);
  for (const { midi, onset, end } of notes) time[midi % 12]! += end - onset;
  const inScale = (fifths: number) =>
    [0, 2, 4, 5, 7, 9, 11].reduce((sum, step) => sum + time[(((step + 7 * fifths) % 12) + 12) % 12]!, 0);
  const order = [0, 1, 2, -1, 3, -2, 4, -3, 5, -4];
  const fifths = order.reduce((best, own) => (inScale(own) > inScale(best) + 1e-9 ? own : best));
  const last = notes.reduce((latest, note) => (note.onset >= latest.onset ? note : latest)).midi % 12;
  for (const mode of ['major', 'minor', 'dorian', 'mixolydian', ...MODES] as const) {
    const key = keyWith(fifths, mode);
    const tonic = key && { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 }[key.letter] + key.alter;
    if (key && tonic !== null && (((tonic - last) % 12) + 12) % 12 === 0) return key;
  }
  return keyWith(fifths, 'major')!;
}
