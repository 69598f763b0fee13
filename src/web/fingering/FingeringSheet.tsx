import { useCallback, useMemo } from 'react';
import { holdFinger } from '#core/drones';
import {
  type Alternative,
  type Fingering,
  type FingeringResult,
  foldIntoFirstPosition,
  type HandNote,
  heldChords,
  type Pin,
  pinFingering,
  pinsFor,
  releaseFingering,
  searchFingering,
} from '#core/fingering';
import { handOf, reportTune, type TuneReport } from '#core/report';
import { type Tune, writtenNotes } from '#core/tune';
import { callWords, fingerList, hopWords, leanWords } from '#words/hand';
import { writtenPitch } from '#words/pitch';
import { positionWords } from '#words/position';
import { barWords, countWords } from '#words/spot';
import { holdsWords } from '#words/tempo';
import { Adopt } from '../openTune/Adopt';
import type { SheetProps } from '../openTune/sheetProps';
import { usePreviews } from '../threads/usePreviews';
import { Button } from '../ui/Button';
import { Sheet } from '../ui/Sheet';
import { SmallTable } from '../ui/SmallTable';

/** The fingering hand: the tune as a whole, and what else could be done at the note chosen. */
export function FingeringSheet({
  report,
  ids,
  where,
  settings: { leftHanded },
  onClose,
  ...taking
}: Pick<SheetProps, 'report' | 'ids' | 'where' | 'settings' | 'onClose'> & Taking) {
  const { tune, unrolled, settings, fingers } = report;
  const found = useMemo(
    () => searchFingering(tune, unrolled, settings.hand, settings.instrument),
    [tune, unrolled, settings],
  );
  const now = useMemo(() => {
    const held = heldChords(tune, fingers);
    return searchFingering(tune, unrolled, settings.hand, settings.instrument, held).cost;
  }, [tune, unrolled, settings, fingers]);
  return (
    <Sheet
      open
      onOpenChange={onClose}
      wide
      title={`The fingering hand${leftHanded ? ' (the right one)' : ''}`}
      description="What the hand pays is counted in millimetres of movement, or what is worth as much. The weights are guesses."
    >
      <div className="grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-5 @3xl:grid-cols-[minmax(0,1fr)_minmax(0,1.15fr)]">
        {ids.length > 0 ? (
          <OneNote report={report} found={found} id={ids[0]!} where={where} taking={taking} />
        ) : (
          <p className="text-muted">Select a note in the score to see what else the hand could do there.</p>
        )}
        <WholeTune report={report} found={found} costNow={now} taking={taking} />
      </div>
    </Sheet>
  );
}

/** Millimetres that are worth fingering anew for. */
const MIN_GAIN = 0.5;

type Taking = Pick<SheetProps, 'onApply' | 'onPreview' | 'onHear'>;

interface WholeProps {
  readonly report: TuneReport;
  readonly found: FingeringResult;
  readonly costNow: number;
  readonly taking: Taking;
}

function WholeTune({ report, found, costNow, taking }: WholeProps) {
  const { onApply, onPreview, onHear } = taking;
  const { tune, fingers } = report;
  const facts = useMemo(() => handFacts(report), [report]);
  const isCheaper = found.cost < costNow - MIN_GAIN;
  const pins = useMemo(
    () => (isCheaper ? pinsFor(found, fingers) : new Map<string, Pin>()),
    [isCheaper, found, fingers],
  );
  const anew = useMemo(() => pinFingering(tune, pins), [tune, pins]);
  const folded = useMemo(() => foldIntoFirstPosition(releaseFingering(tune, null)), [tune]);
  const pinned = writtenNotes(tune).filter((note) => (note.place ?? note.finger ?? note.position) !== undefined).length;
  const after = useMemo(() => (pins.size > 0 ? reportTune(anew, report.settings) : report), [anew, pins, report]);
  return (
    <section aria-labelledby="whole-hand">
      <h3 id="whole-hand" className="mb-1 text-section">
        The tune as a whole
      </h3>
      <p className="mb-2" data-hand-facts>
        {facts}
      </p>
      <p className="text-small text-muted">
        {pins.size === 0
          ? `No fingering costs the hand less than this: ${costNow.toFixed(0)} mm.`
          : `A fresh fingering: ${found.cost.toFixed(0)} mm instead of ${costNow.toFixed(0)}, ${count(pins.size, 'note')} changed; ${difference(report, after)}.`}
      </p>
      {found.unfingered.length > 0 && (
        <p className="mt-1 text-small text-madder">
          {count(found.unfingered.length, 'note')} cannot be fingered: no position up to the fifth has{' '}
          {found.unfingered.length === 1 ? 'it' : 'them'}, or your hand settings rule it out.
        </p>
      )}
      <div className="mt-3 flex flex-wrap gap-2">
        <Adopt
          {...{ onApply, onPreview, onHear }}
          look="main"
          next={anew}
          label={`fresh fingering, ${count(pins.size, 'note')} changed`}
          name="the fresh fingering"
          isNow={pins.size === 0}
        >
          take the fresh fingering
        </Adopt>
        <Button
          disabled={folded.moved.length === 0}
          title={folded.moved.length === 0 ? 'It all lies in first position' : undefined}
          onClick={() => onApply(folded.tune, `fold ${count(folded.moved.length, 'note')} into first position`)}
        >
          Fold into first position{folded.moved.length > 0 ? `: ${count(folded.moved.length, 'note')}` : ''}
        </Button>
        <Button
          disabled={pinned === 0}
          onClick={() => onApply(releaseFingering(tune, null), `unpin ${count(pinned, 'note')}`)}
        >
          Unpin {count(pinned, 'note')}
        </Button>
      </div>
      <p className="mt-2 text-small text-muted">
        Pinned notes stay where they are. Spans, fingers to spare and vibrato are in the settings.
      </p>
    </section>
  );
}

/** `2 shifts, 8 hops, no barre; widest span 73 mm`. */
function handFacts(report: TuneReport): string {
  const hand = handOf(report);
  const { fingers, unrolled } = report;
  const shifts = hand.filter(({ shift }) => shift).length;
  const hops = hand.filter(({ hop }) => hop).length;
  const barres = hand.filter(({ isBarre }) => isBarre).length;
  const beyond = new Set(
    unrolled.notes.flatMap(({ note }) => {
      const { reachable, position } = fingers.get(note.id)!;
      return reachable && position === 1 ? [] : [note.id];
    }),
  ).size;
  let widest = 0;
  for (const { spanMm } of hand) widest = Math.max(widest, spanMm ?? 0);
  return [
    `${count(shifts, 'shift')}, ${count(hops, 'hop')} of one finger to another string, ${count(barres, 'barre')} as played`,
    widest > 0 ? `widest span ${widest.toFixed(0)} mm` : 'no span',
    beyond === 0 ? 'all in first position' : `${count(beyond, 'note')} outside first position`,
  ].join('; ');
}

interface OneProps {
  readonly report: TuneReport;
  readonly found: FingeringResult;
  readonly id: string;
  readonly where: string;
  readonly taking: Taking;
}

/** Alternatives told for a note. */
const TOLD = 7;

function OneNote({ report, found, id, where, taking }: OneProps) {
  const { onApply, onPreview, onHear } = taking;
  const { tune, fingers, unrolled } = report;
  const played = unrolled.notes.find((candidate) => candidate.ids.includes(id));
  const note = writtenNotes(tune).find((candidate) => candidate.id === id);
  const now = fingers.get(id);
  const alternatives = useMemo(() => {
    const all = distinct(found.notes.get(id)?.alternatives ?? []);
    // What it is now is always among them.
    return all.filter(({ chord }, i) => i < TOLD || (now !== undefined && isAsNow(chord[0]!, now)));
  }, [found, id, now]);
  const rows = useMemo(
    () =>
      alternatives.map((alternative) => {
        return { alternative, next: pinFingering(tune, new Map([[id, alternative.chord[0]!]])) };
      }),
    [alternatives, tune, id],
  );
  const effectOf = useCallback(
    ({ next }: { readonly next: Tune }) => difference(report, reportTune(next, report.settings)),
    [report],
  );
  const effects = usePreviews(rows, effectOf);
  const through = played ? handOf(report)[played.index]!.dronesThrough : null;
  if (!note || !now) return null;
  return (
    <section aria-labelledby="one-hand">
      <h3 id="one-hand" className="mb-1 text-section">
        {writtenPitch(note.pitch)} in {where}
      </h3>
      {played && <NoteFacts hand={handOf(report)[played.index]!} index={played.index} report={report} />}
      {played && through !== null && (
        <p className="mb-2">
          <Button
            look="small"
            onClick={() =>
              onApply(
                holdFinger(report, played.index, through),
                `${writtenPitch(note.pitch)} held beside the next notes, ${where}`,
              )
            }
          >
            Hold it as a drone
          </Button>
        </p>
      )}
      {rows.length === 0 ? (
        <p className="text-madder">
          No position up to the fifth has this note in this tuning, or your hand settings rule it out.
        </p>
      ) : (
        <SmallTable
          label="Other ways to play it"
          heads={['as', { figures: 'costs the hand' }, 'and then', { hidden: 'take' }]}
        >
          {rows.map(({ alternative: { chord, costsMore }, next }, i) => {
            const [top] = chord;
            const isNow = isAsNow(top!, now);
            return (
              <tr key={callWords(chord)} className="border-t border-line">
                <th scope="row" className="py-1.5 pr-3 font-bold whitespace-nowrap">
                  {callWords(chord)}
                </th>
                <td className="py-1.5 pr-3 text-right whitespace-nowrap tabular-nums">
                  {costsMore < 0.05 ? 'least' : `+${costsMore.toFixed(0)} mm`}
                </td>
                <td className="py-1.5 pr-3 text-small">{isNow ? 'as it is now' : (effects[i] ?? '…')}</td>
                <td className="py-1.5 text-right">
                  <Adopt
                    {...{ onApply, onPreview, onHear }}
                    next={next}
                    label={`${callWords(chord)} in ${where}`}
                    name={callWords(chord)}
                    isNow={isNow}
                    isSilent
                  />
                </td>
              </tr>
            );
          })}
        </SmallTable>
      )}
    </section>
  );
}

/** Since when the finger is free, how long it may stay, where it may lean, and how the hand comes here. */
function NoteFacts({
  hand,
  index,
  report,
}: {
  readonly hand: HandNote;
  readonly index: number;
  readonly report: TuneReport;
}) {
  const { unrolled } = report;
  const place = (index: number) => {
    const { part, pass, ...at } = unrolled.notes[index]!;
    return `${part}${pass}, ${barWords(at)}, ${countWords(at)}`;
  };
  const lines = [
    hand.preparation === null
      ? 'Open: no finger is needed.'
      : `The finger may lie ${hand.mayLieFrom === null || hand.mayLieFrom === index ? 'only from the note itself' : `from ${place(hand.mayLieFrom)} on`}; it is free ${hand.preparation < 0.01 ? 'only at the note itself' : `${(1000 * hand.preparation).toFixed(0)} ms before it must be down`}.`,
    ...(hand.sets
      ? [`A run falls from here: fingers ${fingerList(hand.sets)} are set together, then lifted one by one.`]
      : []),
    ...(hand.staysThrough !== null ? [`It may stay down through ${place(hand.staysThrough)}.`] : []),
    ...(hand.dronesThrough !== null ? [`Held, it can sound on as a drone through ${place(hand.dronesThrough)}.`] : []),
    ...(hand.lean !== null ? [leanWords(hand.lean)] : []),
    ...(hand.hop
      ? [`One finger hops from ${hand.hop.from} to ${hand.hop.to}: ${hand.hop.options.map(hopWords).join(', ')}.`]
      : []),
    ...(hand.shift
      ? [
          `Shift of ${hand.shift.mm.toFixed(0)} mm from ${positionWords(hand.shift.from)} to ${positionWords(hand.shift.to)} position, ${hand.shift.isAudible ? 'heard, since it lies in a slur' : 'clean, at the turn'}; ${hand.shift.guide ? `the guide note is ${writtenPitch(hand.shift.guide)}` : 'the finger goes to the note itself'}; ${hand.shift.wayBack === null ? 'the hand stays there' : `back again at ${place(hand.shift.wayBack)}`}.`,
        ]
      : []),
    ...(hand.isBarre ? ['One finger lies across two strings.'] : []),
    ...(hand.spanMm !== null && hand.spanMm > 0 ? [`Span ${hand.spanMm.toFixed(0)} mm.`] : []),
  ];
  return (
    <ul className="mb-2 text-small text-muted">
      {lines.map((line) => (
        <li key={line}>{line}</li>
      ))}
    </ul>
  );
}

function isAsNow({ place, finger, position }: Pin, now: Fingering): boolean {
  return now.reachable && now.place === place && now.finger === finger && (finger === 0 || now.position === position);
}

/** One row for each way to play the note; an open string is one way wherever the hand is. */
function distinct(alternatives: readonly Alternative[]): Alternative[] {
  const seen = new Set<string>();
  return alternatives.filter(({ chord, costsMore }) => {
    const words = callWords(chord);
    return costsMore < 50_000 && !seen.has(words) && seen.add(words);
  });
}

/** `2 crossings fewer, holds up to 118`. */
function difference(before: TuneReport, after: TuneReport): string {
  const crossings = ({ figures: { arm } }: TuneReport) => arm.sums.adjacent + arm.sums.skip;
  const ceiling = ({ figures: { check } }: TuneReport) => check.ceiling?.ceilingBpm ?? null;
  const turned = crossings(after) - crossings(before);
  const [was, is] = [ceiling(before), ceiling(after)];
  return [
    turned === 0 ? 'as many crossings' : `${count(Math.abs(turned), 'crossing')} ${turned < 0 ? 'fewer' : 'more'}`,
    was === is ? 'holds as before' : holdsWords(is),
  ].join(', ');
}

function count(number: number, what: string): string {
  return `${number === 0 ? 'no' : number} ${what}${number === 1 ? '' : 's'}`;
}
