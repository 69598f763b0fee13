import { type MidiData, type MidiEvent, writeMidi } from 'midi-file';

/** Events that are written at once: the package copies all that it has for each of them. */
const PIECE = 200;
const FILE_HEAD_BYTES = 14;
const CHUNK_HEAD_BYTES = 8;

/** A standard MIDI file (SMF 1.0): its head, and each track as a chunk. O(n) by writing tracks in pieces. */
export function midiBytes({ header, tracks }: MidiData): Uint8Array<ArrayBuffer> {
  const head = writeMidi({ header, tracks: [] });
  // Tracks are counted by the package, which is given none here.
  head.splice(10, 2, tracks.length >> 8, tracks.length & 0xff);
  return Uint8Array.from([head, ...tracks.map(trackChunk)].flatMap((bytes) => bytes));
}

function trackChunk(events: readonly MidiEvent[]): number[] {
  const pieces: number[][] = [];
  for (let at = 0; at < events.length; at += PIECE) {
    const file = writeMidi(
      { header: { format: 0, numTracks: 1 }, tracks: [events.slice(at, at + PIECE)] },
      { running: false },
    );
    pieces.push(file.slice(FILE_HEAD_BYTES + CHUNK_HEAD_BYTES));
  }
  const body = pieces.flat();
  const length = [24, 16, 8, 0].map((shift) => (body.length >> shift) & 0xff);
  return ['M', 'T', 'r', 'k'].map((letter) => letter.charCodeAt(0)).concat(length, body);
}
