import { midiOf, type Pitch } from '#core/pitch';
import { type Place, PLACES } from '#core/tune';
import type { DroneScene } from './candidates';
import { resolvesAt } from './candidates';
import { type IntervalClass, intervalClass } from './intervals';
import { type Intonation, intonationAgainst, openStringCents } from './intonation';
import { DEFAULT_EAR, type EarWeights, type RankedDrone, rankOf, rankTerms, roleOf, type TonalRole } from './rank';
import { pitchRoughness } from './roughness';

/** Two strings that sound together at a played note. */
export interface DoubleStop {
  readonly index: number;
  readonly place: Place;
  readonly pitch: Pitch;
  /** The other string is open: a drone, or an open string of a chord. */
  readonly isOpen: boolean;
  readonly class: IntervalClass;
  readonly semitones: number;
  readonly roughness: number;
  readonly resolves: boolean;
  readonly role: TonalRole;
  readonly terms: RankedDrone['terms'];
  readonly rank: number;
  /** Of the melody finger against an open string; null where both are open or both stopped. */
  readonly intonation: Intonation | null;
}

/** Every double stop of a tune as it is played: drones and the first other note of each chord. Time O(n). */
export function doubleStops(scene: DroneScene, stringLengthMm: number, ear: EarWeights = DEFAULT_EAR): DoubleStop[] {
  const { tune, unrolled, fingers } = scene;
  const cents = openStringCents(tune.tuning);
  return unrolled.notes.flatMap(({ index, note }): DoubleStop[] => {
    const fingering = fingers.get(note.id)!;
    if (!fingering.reachable) return [];
    const [stop] = fingering.stops;
    const at = PLACES.indexOf(fingering.place);
    const side = stop ? PLACES.indexOf(stop.place) : note.drone ? at + (note.drone === 'upper' ? 1 : -1) : -1;
    const place = PLACES[side];
    if (!place) return [];
    const open = tune.tuning[side]!;
    const pitch = stop ? note.stops![0]! : open;
    const isOpen = !stop || stop.finger === 0;
    const [melody, midi] = [midiOf(note.pitch), midiOf(pitch)];
    const own = intervalClass(melody - midi);
    const resolves = own === 'sharp' && resolvesAt(scene, index, midi);
    const role = roleOf(midi, scene.chords[index]!);
    const terms = rankTerms(melody, midi, role, resolves, ear);
    return [
      {
        index,
        place,
        pitch,
        isOpen,
        class: own,
        semitones: Math.abs(melody - midi),
        roughness: pitchRoughness(melody, midi),
        resolves,
        role,
        terms,
        rank: rankOf(terms),
        intonation:
          isOpen && fingering.finger !== 0
            ? intonationAgainst(
                { midi: melody, semitones: fingering.semitones },
                { midi, cents: cents[side]! },
                stringLengthMm,
              )
            : null,
      },
    ];
  });
}
