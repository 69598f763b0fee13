import { Volume2 } from 'lucide-react';
import { useMemo, useState } from 'react';
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
import { playTones } from '../audio/tones';
import type { SheetProps } from '../openTune/sheetProps';
import { Button, SignButton } from '../ui/Button';
import { SmallTable } from '../ui/SmallTable';

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
}: Pick<SheetProps, 'report' | 'ids' | 'where' | 'settings' | 'onApply'>) {
  const { tune, unrolled, fingers, settings, timing } = report;
  const [isSilent, setSilent] = useState(false);
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
        name: `open ${drone.place}, ${writtenPitch(drone.pitch)}, ${drone.kind === 'lower' ? 'below' : 'above'}`,
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
        <b>{writtenPitch(note.pitch)}</b> in {where}. Less is better: roughness, a charge for the class of the interval,
        and one by what the drone is to the chord of the moment. None is forbidden.
      </p>
      {rows.length === 0 ? (
        <p className="text-muted">
          {strings > 1
            ? 'This is already a chord: its strings are described below.'
            : 'No other string can sound with this note.'}
        </p>
      ) : (
        <SmallTable
          label="What can sound with it"
          heads={[
            'beside it',
            { figures: 'rank' },
            'of it rough, class, role',
            'the finger’s place',
            { hidden: 'choose' },
          ]}
          minWidth="40rem"
        >
          {rows.map((row) => (
            <tr key={row.key} className="border-t border-line align-top">
              <th scope="row" className="py-1.5 pr-3 font-normal">
                <b>{row.name}</b>: {row.interval}
                <span className="block text-hint text-muted">{row.why}</span>
              </th>
              <td className="py-1.5 pr-3 text-right font-bold tabular-nums">{row.rank.toFixed(2)}</td>
              <td className="py-1.5 pr-3 text-small whitespace-nowrap tabular-nums">
                {row.terms.roughness.toFixed(2)} + {row.terms.class.toFixed(2)} + {row.terms.role.toFixed(2)}
              </td>
              <td className="py-1.5 pr-3 text-small">{row.intonation}</td>
              <td className="py-1.5 text-right whitespace-nowrap">
                <SignButton
                  label={`Hear it with ${row.name}`}
                  className="mr-1 inline-grid"
                  onClick={() => setSilent(!playTones([melody, row.midi]))}
                >
                  <Volume2 size={17} aria-hidden />
                </SignButton>
                <Button look="small" disabled={row.isNow} onClick={() => set(row.choice, `${row.name} in ${where}`)}>
                  {row.isNow ? 'sounding now' : 'take it'}
                </Button>
              </td>
            </tr>
          ))}
        </SmallTable>
      )}
      {isSilent && <p role="alert">No sound device was found; the figures hold without it.</p>}
      <div className="mt-3 flex flex-wrap items-center gap-2">
        <Button disabled={!note.drone} onClick={() => set({ kind: 'none' }, `on one string in ${where}`)}>
          On one string
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
