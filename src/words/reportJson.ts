import type { Report } from '#contract/report';
import { formatFraction } from '#core/base';
import { againFrom } from '#core/bowing';
import { planeName } from '#core/crossing';
import { doubleStops, doublings } from '#core/drones';
import type { HandNote } from '#core/fingering';
import { ORNAMENTS } from '#core/ornaments';
import { intervalName, keyName, midiOf, type Pitch, pitchName } from '#core/pitch';
import { droneSceneOf, handOf, linkEditsOf, type TuneReport } from '#core/report';
import { type Candidate, COST_TERMS, MILLIONTHS } from '#core/search';
import { sharedTravel } from '#core/travel';
import { meterName, type NoteEvent, type Place, PLACES, type Tune } from '#core/tune';
import { playingShare, twinFigures } from '#core/twins';
import type { ImportMessage } from '#formats/text';
import { findingWords } from '#words/finding';
import { importWords } from './importMessage';
import { mendWords } from './mend';

const rounded = (digits: number) => (value: number) => Math.round(value * 10 ** digits) / 10 ** digits;
const seconds = rounded(6);
const fine = rounded(3);
const fineOrNull = (value: number | null) => (value === null ? null : fine(value));

/** Why a search finds nothing: no bowing brings every pass, and the tune begun again, back to one bow. */
export const NO_BOWING =
  'No bowing comes round: there are too few notes to turn on, or the pickup is led to in two ways by bars that do not add up.';

/** A report as the contract writes it. */
export function toReport(
  report: TuneReport,
  messages: readonly ImportMessage[] = [],
  candidates: readonly Candidate[] | null = null,
): Report {
  const { tune, unrolled, settings, figures, timing } = report;
  const again = againFrom(unrolled);
  const { ledger, check, arm } = figures;
  const refTo = (index: number) => {
    const { note, part, pass } = unrolled.notes[index]!;
    return { id: note.id, part, pass };
  };
  return {
    schemaVersion: 1,
    title: tune.title,
    danceType: tune.danceType,
    meter: meterName(tune.meter),
    key: keyName(tune.key),
    tuning: tune.tuning.map(pitchName),
    lilt: settings.lilt.name,
    tempo: { bpm: fine(settings.bpm), beat: formatFraction(settings.beat) },
    bars: report.bars,
    seconds: seconds(timing.total),
    square: report.square,
    start: figures.start,
    form: [...tune.form],
    passes: ledger.passes.map((pass) => ({ ...pass })),
    comesRound: ledger.comesRound,
    comesRoundAgain: ledger.comesRoundAgain,
    againFrom: again && { note: unrolled.notes[again.index]!.note.id },
    oneDirection: ledger.oneDirection,
    differs: ledger.differs.map(({ id, directions, planned }) => ({ id, directions: { ...directions }, planned })),
    notes: noteRows(report),
    crossings: {
      ...arm.sums,
      armDegrees: fine(arm.sums.armDegrees),
      armDegreesNaive: fine(arm.sums.armDegreesNaive),
    },
    ceiling: check.ceiling && {
      bpm: fine(check.ceiling.ceilingBpm),
      event: check.ceiling.kind,
      note: refTo(check.ceiling.index),
    },
    floor: check.floor && { bpm: fine(check.floor.bpm), event: 'hair', note: refTo(check.floor.index) },
    tightest: check.tightest.map(({ index, kind, availableMs, neededMs, ceilingBpm }) => ({
      note: refTo(index),
      kind,
      availableMs: fine(availableMs),
      neededMs: fine(neededMs),
      ceilingBpm: fine(ceilingBpm),
    })),
    limits: { ...settings.limits },
    instrument: { ...settings.instrument },
    findings: report.findings.map((finding) => {
      const { lead, body, figures: reason } = findingWords(finding, { tuning: tune.tuning });
      return {
        code: finding.code,
        severity: finding.severity,
        notes: [...finding.ids],
        message: `${lead} ${body} (${reason})`,
        mends: finding.mends.map((mend) => ({
          label: mendWords(mend, finding),
          ceilingBpm: fineOrNull(mend.ceilingBpm),
          comesRound: mend.comesRound,
          links: linkEditsOf(mend).map((edit) => ({ ...edit })),
        })),
      };
    }),
    messages: messages.map((message) => {
      const { line, column, severity, code } = message;
      return { line, column, severity, code, message: importWords(message) };
    }),
    twins: twinFigures(tune).map((figure) => ({
      length: figure.length,
      places: figure.spots.map((place) => place.map(({ id }) => id)),
      bowedAlike: figure.isBowedAlike,
      share: fine(playingShare(figure, unrolled)),
    })),
    doubleStops: doubleStopRows(report),
    doublings: doublings(tune, unrolled, report.fingers, timing.durations, settings.hand).map(
      ({ index, id, open, stop }) => ({
        index,
        id,
        open,
        finger: stop.finger,
        on: stop.place,
      }),
    ),
    candidates: (candidates ?? []).map(toCandidate),
    ...(candidates?.length === 0 ? { noCandidates: NO_BOWING } : {}),
  };
}

function toCandidate(candidate: Candidate): Report['candidates'][number] {
  const { start, links, cost, template, barTemplates, regret, gap, terms, figures } = candidate;
  const points = (millionths: number) => millionths / MILLIONTHS;
  return {
    start,
    links: [...links],
    cost: points(cost),
    idea: template,
    template: [...barTemplates].map(([bar, name]) => ({ bar, template: name })),
    regret: points(regret),
    gap: points(gap),
    terms: Object.fromEntries(COST_TERMS.map((term) => [term, points(terms[term])])) as Record<
      (typeof COST_TERMS)[number],
      number
    >,
    comesRound: figures.comesRound,
    ceilingBpm: fineOrNull(figures.ceilingBpm),
    likeness: fine(figures.likeness),
    strokesPerSecond: fine(figures.strokesPerSecond),
    slurCrossings: figures.slurCrossings,
    armDegreesPerBar: fine(figures.armDegreesPerBar),
    driftCm: fine(figures.driftCm),
    locksContradicted: figures.locksContradicted,
  };
}

function doubleStopRows(report: TuneReport): Report['doubleStops'] {
  const { unrolled, settings } = report;
  return doubleStops(droneSceneOf(report), settings.instrument.stringLengthMm).map((double) => {
    const { note } = unrolled.notes[double.index]!;
    const { beats, pureCents, pureMm } = double.intonation ?? { beats: null, pureCents: null, pureMm: null };
    return {
      index: double.index,
      id: note.id,
      place: double.place,
      pitch: pitchName(double.pitch),
      open: double.isOpen,
      interval: intervalName(double.pitch, note.pitch),
      class: double.class,
      roughness: fine(double.roughness),
      resolves: double.resolves,
      role: double.role,
      terms: { ...double.terms },
      rank: double.rank,
      beats: fineOrNull(beats),
      pureCents: fineOrNull(pureCents),
      pureMm: fineOrNull(pureMm),
    };
  });
}

function handRow({
  preparation,
  mayLieFrom,
  sets,
  staysThrough,
  dronesThrough,
  lean,
  hop,
  shift,
  isBarre,
  spanMm,
}: HandNote): Report['notes'][number]['hand'] {
  return {
    preparationSeconds: preparation === null ? null : seconds(preparation),
    mayLieFrom,
    sets: sets && [...sets],
    staysThrough,
    dronesThrough,
    lean,
    hop: hop && {
      finger: hop.finger,
      from: hop.from,
      to: hop.to,
      options: hop.options.map((option) => ({ ...option })),
    },
    shift: shift && {
      from: shift.from,
      to: shift.to,
      mm: fine(shift.mm),
      guide: shift.guide && pitchName(shift.guide),
      audible: shift.isAudible,
      wayBack: shift.wayBack,
    },
    barre: isBarre,
    spanMm: fineOrNull(spanMm),
  };
}

function noteRows(report: TuneReport): Report['notes'] {
  const {
    tune: { tuning },
    unrolled,
    figures,
    timing,
    fingers,
  } = report;
  const hand = handOf(report);
  const { bowed, travel, arm, check } = figures;
  const shared = sharedTravel(bowed, timing.durations, report.sharedStrokes(), figures.reach);
  const strokeNotes = new Map<number, number>();
  for (const { stroke } of bowed) strokeNotes.set(stroke, (strokeNotes.get(stroke) ?? 0) + 1);
  const names = (pitches: readonly Pitch[] | undefined) => pitches?.map(pitchName) ?? [];
  return unrolled.notes.map(({ index, note, part, pass, bar, beat, onset, duration }, i) => {
    const fingering = fingers.get(note.id)!;
    const { link, bow, stroke, inStroke } = bowed[i]!;
    const { bowStartCm, bowEndCm, speed } = travel[i]!;
    const own = shared[i]!;
    const sounding = timing.durations[i]!;
    const crossing = arm.crossings[i];
    const interval = arm.intervals[i];
    return {
      index,
      id: note.id,
      part,
      pass,
      bar,
      beat: seconds(beat),
      onset: formatFraction(onset),
      duration: formatFraction(duration),
      onsetSeconds: seconds(timing.onsets[i]!),
      durationSeconds: seconds(timing.durations[i]!),
      pitch: pitchName(note.pitch),
      midi: midiOf(note.pitch),
      place: fingering.place,
      finger: fingering.finger,
      position: fingering.position,
      reachable: fingering.reachable,
      stops: names(note.stops),
      stopFingers: fingering.stops.map((stop) => stop && { place: stop.place, finger: stop.finger }),
      graceNotes: names(note.graceNotes),
      drones: droneOf(note, fingering.place, tuning),
      ornaments: ORNAMENTS.filter((ornament) => note.marks?.includes(ornament)),
      hand: handRow(hand[i]!),
      link,
      bow,
      stroke,
      inStroke,
      strokeNotes: strokeNotes.get(stroke)!,
      locked: note.lock ?? null,
      bowStartCm: fine(bowStartCm),
      bowEndCm: fine(bowEndCm),
      speedCmPerSecond: fine(speed),
      sharedStartCm: fine(own.bowStartCm),
      sharedEndCm: fine(own.bowEndCm),
      sharedSpeedCmPerSecond: fine(sounding > 0 ? Math.abs(own.bowEndCm - own.bowStartCm) / sounding : 0),
      crossing: crossing
        ? {
            from: planeName(crossing.from),
            to: planeName(crossing.to),
            skips: crossing.skips,
            inSlur: crossing.inSlur,
            degrees: fine(crossing.degrees),
            turnDegrees: fine(crossing.turnDegrees),
            oval: crossing.oval,
          }
        : null,
      arm: interval ? { low: fine(interval.low), high: fine(interval.high), angle: fine(arm.angles[i]!) } : null,
      events: check.events[i]!.map(({ kind, availableMs, neededMs }) => ({
        kind,
        availableMs: fine(availableMs),
        neededMs: fine(neededMs),
      })),
      headroom: fineOrNull(check.headroom[i]!),
    };
  });
}

/** The open neighbour string that sounds along. */
function droneOf({ drone }: NoteEvent, place: Place, tuning: Tune['tuning']): string[] {
  const neighbour = drone && tuning[PLACES.indexOf(place) + (drone === 'upper' ? 1 : -1)];
  return neighbour ? [pitchName(neighbour)] : [];
}
