import { useMemo } from 'react';
import {
  applyDrones,
  doublings,
  type DroneChoice,
  intonationAgainst,
  openDrones,
  openStringCents,
  type RankedDrone,
  stoppedDoubles,
  threeStrings,
  unisonBeats,
} from '#core/drones';
import { mapChosen } from '#core/editing';
import { centsToMm, stopsOf } from '#core/fingering';
import { hertzOf } from '#core/pitch';
import { intervalName, midiOf } from '#core/pitch';
import { droneSceneOf } from '#core/report';
import { PLACES, type Tune } from '#core/tune';
import { writtenPitch } from '#words/pitch';
import { stringName } from '#words/strings';
import { Adopt } from '../openTune/Adopt';
import type { SheetProps } from '../openTune/sheetProps';
import { Button } from '../ui/Button';
import { Why } from '../ui/Why';

const ROLES: Readonly<Record<RankedDrone['role'], string>> = {
  root: 'root of the chord',
  fifth: 'fifth of the chord',
  third: 'third of the chord',
  other: 'outside the chord',
};
const RISKS: Readonly<Record<RankedDrone['reachRisk'], string>> = {
  none: 'no finger near it',
  some: 'a finger is near the lower string',
  high: 'fingers bump the higher string more easily',
};
const STOPPED_TOLD = 3;

interface Row {
  readonly key: string;
  readonly choice: DroneChoice;
  readonly name: string;
  readonly interval: string;
  readonly why: string;
  readonly rank: number;
  readonly terms: RankedDrone['terms'];
  readonly midi: number;
  readonly intonation: string;
  readonly isNow: boolean;
}

/** Open neighbours and stopped seconds of the chosen note, the best first, with every term of their rank. */
export function BesideNote({
  report,
  ids,
  where,
  settings: { ear },
  onApply,
  onPreview,
  onHear,
}: Pick<SheetProps, 'report' | 'ids' | 'where' | 'settings' | 'onApply' | 'onPreview' | 'onHear'>) {
  const { tune, unrolled, fingers, settings, timing } = report;
  const id = ids[0];
  const played = unrolled.notes.find((candidate) => id !== undefined && candidate.ids.includes(id));
  const scene = droneSceneOf(report);
  const rows = useMemo((): Row[] => {
    if (!played) return [];
    const { note, index } = played;
    const fingering = fingers.get(note.id)!;
    const cents = openStringCents(tune.tuning);
    const melody = midiOf(note.pitch);
    const open = openDrones(scene, index, ear).map((drone): Row => {
      const against = intonationAgainst(
        { midi: melody, semitones: fingering.semitones },
        { midi: midiOf(drone.pitch), cents: cents[PLACES.indexOf(drone.place)]! },
        settings.instrument.stringLengthMm,
      );
      return {
        key: drone.kind,
        choice: { kind: drone.kind, drone },
        name: `open ${stringName(drone.place, tune.tuning)}, ${drone.kind === 'lower' ? 'below' : 'above'}`,
        interval: intervalWords(intervalName(drone.pitch, note.pitch)),
        why: [
          ROLES[drone.role],
          ...(drone.resolves ? ['resolves on the next strong note'] : []),
          RISKS[drone.reachRisk],
        ].join(' · '),
        rank: drone.rank,
        terms: drone.terms,
        midi: midiOf(drone.pitch),
        intonation:
          fingering.finger === 0
            ? 'both open'
            : `pure ${signed(against.pureCents, 1)} ¢, ${signed(against.pureMm, 1)} mm; ${against.beats.toFixed(1)} beats/s tempered`,
        isNow: note.drone === drone.kind,
      };
    });
    const stopped = stoppedDoubles(scene, index, ear)
      .slice(0, STOPPED_TOLD)
      .map((double): Row => ({
        key: `${double.stop.place}${double.stop.finger}`,
        choice: { kind: 'stopped', double },
        name: `${double.stop.place}:${double.stop.finger}, ${writtenPitch(double.pitch)}, ${midiOf(double.pitch) < melody ? 'below' : 'above'}`,
        interval: intervalWords(intervalName(double.pitch, note.pitch)),
        why: `${ROLES[double.role]} · ${double.isBarre ? 'one finger across both strings' : 'a second finger'}`,
        rank: double.rank,
        terms: double.terms,
        midi: midiOf(double.pitch),
        intonation: 'by ear: both are stopped',
        isNow: false,
      }));
    return [...open, ...stopped].sort((a, b) => a.rank - b.rank);
  }, [played, scene, ear, fingers, tune, settings]);

  if (!played) return <p className="text-muted">Select a note in the score first.</p>;
  const { note } = played;
  const melody = midiOf(note.pitch);
  const set = (choice: DroneChoice, label: string) => onApply(applyDrones(tune, new Map([[note.id, choice]])), label);
  const doubling = doublings(tune, unrolled, fingers, timing.durations, settings.hand).find(
    ({ id: found }) => found === note.id,
  );
  const strings = stopsOf(fingers.get(note.id)!).length;
  const { rollDegrees, pressMm } = threeStrings(settings.instrument);
  return (
    <section aria-label={`Beside ${writtenPitch(note.pitch)}`}>
      <p className="mb-2">
        Beside <b>{writtenPitch(note.pitch)}</b>, the sweetest first:
      </p>
      {rows.length === 0 ? (
        <p className="text-muted">
          {strings > 1
            ? 'This is already a chord: its strings are described below.'
            : 'No other string can sound with this note.'}
        </p>
      ) : (
        <ul aria-label="What can sound with it">
          {rows.map((row, at) => (
            <li key={row.key} className="border-t border-line py-1.5" data-drone-row={row.key}>
              <div className="flex items-start gap-2">
                <p className="min-w-0 flex-1 leading-snug">
                  <b>{row.name}</b>: {row.interval}, {ringWords(row, at)}
                  <span className="block text-hint text-muted">
                    {row.why}
                    {row.intonation !== '' && ` · ${row.intonation}`}
                  </span>
                </p>
                <Adopt
                  {...{ onApply, onPreview, onHear }}
                  next={applyDrones(tune, new Map([[note.id, row.choice]]))}
                  label={`${row.name} in ${where}`}
                  name={row.name}
                  isNow={row.isNow}
                />
              </div>
              <Why>
                Harshness {row.rank.toFixed(2)}, of it {row.terms.roughness.toFixed(2)} how rough the two sound,{' '}
                {row.terms.class.toFixed(2)} for the interval and {row.terms.role.toFixed(2)} for what it is to the
                chord. Less is better; none is forbidden.
              </Why>
            </li>
          ))}
        </ul>
      )}
      <div className="mt-3 flex flex-wrap items-center gap-2">
        <Button disabled={!note.drone} onClick={() => set({ kind: 'none' }, `no drone in ${where}`)}>
          Remove the drone
        </Button>
        {doubling && !note.stops && (
          <Button
            onClick={() => onApply(applyDouble(report.tune, note.id), `double the open ${doubling.open} in ${where}`)}
          >
            Double it in unison: {doubling.stop.place}:{doubling.stop.finger}
          </Button>
        )}
      </div>
      {doubling && (
        <p className="mt-2 text-small text-muted">
          The open {doubling.open} string sounds long enough to be doubled. Drill the way to {doubling.stop.place}:
          {doubling.stop.finger} from{' '}
          {doubling.approaches.map((finger) => `${doubling.stop.place}:${finger}`).join(', ')}. Off it beats, and how
          much is yours to choose: {beatWords(melody, doubling.stop.semitones, settings.instrument.stringLengthMm)}.
        </p>
      )}
      {strings > 2 && (
        <p className="mt-2 text-small text-muted">
          Three strings: rolled, the bow turns {rollDegrees.toFixed(0)}° from the lower pair to the upper; pressed
          together, the middle string must give {pressMm.toFixed(1)} mm at the bridge.
        </p>
      )}
    </section>
  );
}

/** How it sounds, in a word: by its harshness, and the best of them said to be so. */
function ringWords({ rank }: Row, at: number): string {
  const sound = rank < RINGS ? 'rings' : rank < GRATES ? 'mild' : 'grates';
  return at === 0 ? `${sound}, the sweetest here` : sound;
}

/** Harshness below which a pair is heard to ring, and from which it grates. Guesses. */
const RINGS = 0.6;
const GRATES = 1.2;

/** Cents off a unison that are told: pure, lively, sour to most ears. */
const OFF_UNISON = [2, 5, 8];

/** `2 cents (0.3 mm) 0.5 beats a second, …`. */
function beatWords(midi: number, semitones: number, stringLengthMm: number): string {
  const told = OFF_UNISON.map((cents) => {
    const mm = centsToMm(cents, semitones, stringLengthMm);
    return `${cents} cents (${mm.toFixed(1)} mm) ${unisonBeats(hertzOf(midi), cents).toFixed(1)}`;
  });
  return `${told.join(', ')} beats a second`;
}

/** The melody doubled on the string beside it. */
function applyDouble(tune: Tune, id: string): Tune {
  return mapChosen(tune, new Set([id]), ({ drone: _drone, ...bare }) => ({ ...bare, stops: [bare.pitch] }));
}

/** Without its way: which of the two is higher is told beside it. */
function intervalWords(name: string): string {
  return name.replace(/ (up|down)$/, '');
}

function signed(value: number, digits: number): string {
  const text = Math.abs(value).toFixed(digits);
  return Number(text) === 0 ? text : `${value > 0 ? '+' : '−'}${text}`;
}
