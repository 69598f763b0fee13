import type { Seconds } from '#core/base';
import { type ChordSpan, harmonyOf } from '#core/harmony';
import { hertzOf } from '#core/pitch';
import type { TuneReport } from '#core/report';
import type { Click, Pluck } from '#core/sound';
import { type Beat, offbeatOf } from './beats';

/** Bass below the tune, chord between. */
const BASS_OCTAVE = 36;
const CHORD_OCTAVE = 50;

/** The even notes between a beat and the next: one, or two in compound beats. */
function subdivisions({ at, length, isThree }: Beat): number[] {
  const parts = isThree ? 3 : 2;
  return Array.from({ length: parts - 1 }, (_, i) => at + ((i + 1) * length) / parts);
}

/** Clicks of a stretch of whole notes: bars, beats, and the even notes between them. */
export function clicksOf(beats: readonly Beat[], from: number, to: number, at: (place: number) => Seconds): Click[] {
  return beats
    .flatMap((beat): { place: number; kind: Click['kind'] }[] => [
      { place: beat.at, kind: beat.isFirst ? 'bar' : 'beat' },
      ...subdivisions(beat).map((place) => ({ place, kind: 'offbeat' as const })),
    ])
    .filter(({ place }) => place >= from - 1e-9 && place < to - 1e-9)
    .map(({ place, kind }) => ({ at: at(place), kind }));
}

/** Bass on the beat, by turns root and fifth; chord on the offbeat. In three-time the bass has the first beat, the chord the others. */
export function backing(
  { tune, unrolled, settings }: TuneReport,
  beats: readonly Beat[],
  from: number,
  to: number,
  at: (place: number) => Seconds,
): Pluck[] {
  const chords = harmonyOf(tune, unrolled, settings.beat);
  const chordAt = (place: number): ChordSpan | undefined => chords.findLast((span) => span.from <= place + 1e-9);
  return beats.flatMap((beat): Pluck[] => {
    const { meter } = beat.bar;
    const inThree = !beat.isThree && meter.num === 3 && beat.length <= 1 / meter.den + 1e-9;
    const bassAt = inThree && beat.index !== 0 ? null : beat.at;
    const chordPlace = inThree ? (beat.index === 0 ? null : beat.at) : offbeatOf(beat);
    const isIn = (place: number | null): place is number => place !== null && place >= from - 1e-9 && place < to - 1e-9;
    const under = chordAt(beat.at)?.chord;
    if (!under) return [];
    const bass = beat.index % 2 === 0 || inThree ? under.bass : under.fifth;
    return [
      ...(isIn(bassAt)
        ? [{ at: at(bassAt), hertz: hertzOf(BASS_OCTAVE + ((bass - BASS_OCTAVE + 120) % 12)), kind: 'bass' as const }]
        : []),
      ...(isIn(chordPlace)
        ? [under.root, under.third, under.fifth].map((pitch) => ({
            at: at(chordPlace),
            hertz: hertzOf(CHORD_OCTAVE + ((pitch - CHORD_OCTAVE + 120) % 12)),
            kind: 'chord' as const,
          }))
        : []),
    ];
  });
}
