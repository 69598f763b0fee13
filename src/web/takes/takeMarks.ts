import type { TuneReport } from '#core/report';
import type { TakeMark } from '../score/TakeTracks';
import type { KeptTake } from './keptTakes';

/** Levels within so many dB of the loudest are drawn. */
const RANGE = 30;

/** A take by the written notes of the passes in view: of several times round the last. */
export function takeMarks(
  { unrolled }: TuneReport,
  { result }: Pick<KeptTake, 'result'>,
  passInView: Readonly<Record<string, number>>,
): Map<string, TakeMark> {
  const told = new Set(result.findings.flatMap(({ notes, loop }) => notes.map((index) => `${loop} ${index}`)));
  const loudest = result.notes.reduce((most, { level }) => (level > most ? level : most), -Infinity);
  const marks = new Map<string, TakeMark>();
  for (const note of result.notes) {
    const played = unrolled.notes[note.index];
    // The plan has changed since: what is no longer there has no place.
    if (!played || played.pass !== (passInView[played.part] ?? 1)) continue;
    const seconds = note.end - note.onset;
    marks.set(played.note.id, {
      heard: note.heard,
      off: Number.isFinite(note.offMs) && seconds > 0 ? note.offMs / 1000 / seconds : null,
      curve: note.curve,
      level: Math.max(0, Math.min(1, 1 + (note.level - loudest) / RANGE)) || 0,
      isTold: told.has(`${note.loop} ${note.index}`),
    });
  }
  return marks;
}

/** Which note sounds at a time of a take, and how much of it has gone. */
export function noteAt({ result }: KeptTake, time: number): { readonly index: number; readonly share: number } | null {
  const now = result.notes.findLast(({ heard, onset }) => heard && onset <= time);
  if (!now) return null;
  return {
    index: now.index,
    share: Math.max(0, Math.min(1, (time - now.onset) / Math.max(0.01, now.end - now.onset))),
  };
}
