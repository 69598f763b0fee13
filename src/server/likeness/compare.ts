import type { LikeTune, PartLikenesses } from '#contract/imports';
import { ALIKE, melodyLikeness, type MelodyLine, melodyLines, wholeLine } from '#core/likeness';
import type { Tune } from '#core/tune';

/** A tune of the book that shares enough of a print to be compared note by note, as the text that is kept. */
export interface StoredMelody {
  readonly id: string;
  readonly title: string;
  readonly document: string;
}

/** What of the book shares enough of a print. */
export interface Candidate {
  /** Number of the print that was asked about, from 1. */
  readonly asked: number;
  readonly id: string;
  readonly part: string;
}

const linesOf = (document: string): MelodyLine[] => melodyLines(JSON.parse(document) as Tune);
const linesById = (tunes: readonly StoredMelody[]) =>
  new Map(tunes.map(({ id, title, document }) => [id, { title, lines: linesOf(document) }]));

/** For each melody the tunes like it, the likest first. */
export function findLikeTunes(
  melodies: readonly (readonly number[])[],
  candidates: readonly Candidate[],
  tunes: readonly StoredMelody[],
): LikeTune[][] {
  const lines = linesById(tunes);
  return melodies.map((pitches, i) =>
    candidates
      .filter(({ asked }) => asked === i + 1)
      .flatMap(({ id }): LikeTune[] => {
        const found = lines.get(id);
        if (!found) return [];
        const { share, semitones } = melodyLikeness(pitches, wholeLine(found.lines));
        return share >= ALIKE ? [{ id, title: found.title, share, semitones }] : [];
      })
      .sort((a, b) => b.share - a.share),
  );
}

/** Tunes like one of the book, and parts of others that are like parts of it. */
export function findLikeParts(
  own: StoredMelody,
  whole: readonly Candidate[],
  asked: readonly string[],
  parts: readonly Candidate[],
  tunes: readonly StoredMelody[],
): PartLikenesses {
  const ownLines = linesOf(own.document);
  const like = findLikeTunes([wholeLine(ownLines)], whole, tunes)[0]!;
  const same = new Set(like.map(({ id }) => id));
  const lines = linesById(tunes);
  const likeParts = parts.flatMap((candidate) => {
    const part = asked[candidate.asked - 1]!;
    const other = lines.get(candidate.id);
    if (!other) return [];
    const pitches = ownLines.find((line) => line.part === part)?.pitches ?? [];
    const theirs = other.lines.find((line) => line.part === candidate.part)?.pitches ?? [];
    const { share, semitones } = melodyLikeness(pitches, theirs);
    // What is said of the whole tune is not said of each part again.
    if (share < ALIKE || same.has(candidate.id)) return [];
    return [{ id: candidate.id, title: other.title, share, semitones, part, ofPart: candidate.part }];
  });
  return { tunes: like, parts: likeParts.sort((a, b) => b.share - a.share) };
}
