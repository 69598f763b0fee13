import { Play, Square } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { beginLadder, climb, type Drill, drillCeiling, drillTune, measuredLimit, slowestBow } from '#core/drills';
import { type PlayerSettings, reportTune } from '#core/report';
import type { LimitKey } from '#core/tempo';
import { DRILL_WORDS } from '#words/drill';
import { LIMIT_WORDS } from '#words/settings';
import { type ListenSettings, readListenSettings } from '../player/listenSettings';
import { usePlayer } from '../player/usePlayer';
import { Button } from '../ui/Button';
import { Sheet } from '../ui/Sheet';

interface MeasureSheetProps {
  readonly limit: LimitKey;
  /** null: one slow bow over the whole hair. */
  readonly drill: Drill | null;
  readonly player: PlayerSettings;
  readonly onMeasured: (value: number) => void;
  readonly onClose: () => void;
}

/** A limit measured by playing: a drill that climbs, or one long bow. */
export function MeasureSheet(props: MeasureSheetProps) {
  const { limit, drill, player, onClose } = props;
  const hurts = player.hand.bans.some(({ reason }) => reason === 'pain');
  const { name } = LIMIT_WORDS[limit];
  return (
    <Sheet
      open
      onOpenChange={onClose}
      title={`Measure: ${name.toLowerCase()}`}
      description={
        drill
          ? 'Play it with the click, once round or more. Be honest about what was clean. Two misses at one tempo end it.'
          : 'One down-bow over the whole hair, as slowly as the string still speaks.'
      }
    >
      {hurts ? (
        <p>
          Measuring waits while something hurts. When you let the finger back in under “Left out”, you can measure
          again.
        </p>
      ) : drill ? (
        <DrillLadder {...props} drill={drill} />
      ) : (
        <SlowBow {...props} />
      )}
    </Sheet>
  );
}

/** A drill goes round and round with its click. */
function drillListening(): ListenSettings {
  return {
    ...readListenSettings(),
    layers: ['melody', 'drones', 'bowing', 'colour', 'click'],
    loop: true,
    answer: false,
    climb: 0,
    compare: null,
  };
}

const COUNTED_MISSES = ['', 'once more: a second miss ends it'];

function DrillLadder({ limit, drill, player, onMeasured, onClose }: MeasureSheetProps & { readonly drill: Drill }) {
  const [ladder, setLadder] = useState(() => beginLadder(drillCeiling(drill, player)));
  const tune = useMemo(() => drillTune(drill), [drill]);
  const report = useMemo(() => reportTune(tune, { ...player, bpm: ladder.bpm }), [tune, player, ladder.bpm]);
  const [listened] = useState(drillListening);
  const listening = usePlayer(report, { fixed: listened });
  const isOn = listening.state.status !== 'idle';
  const answer = (clean: boolean) => {
    const next = climb(ladder, clean);
    setLadder(next);
    if (next.isDone) listening.player.stop();
  };
  const value = ladder.cleanAt === null ? null : measuredLimit(drill, ladder.cleanAt, player);
  const { unit } = LIMIT_WORDS[limit];
  return (
    <div className="flex flex-col gap-3">
      <p>{DRILL_WORDS[limit as keyof typeof DRILL_WORDS]}</p>
      <Calls report={report} />
      <p className="flex flex-wrap items-center gap-3">
        <span>
          <b className="font-serif text-room" data-bpm>
            {Math.round(ladder.bpm)}
          </b>{' '}
          <span className="text-muted">quarters a minute</span>
        </span>
        <Button data-autofocus onClick={() => listening.toggle(null)} disabled={ladder.isDone}>
          {isOn ? (
            <>
              <Square size={14} className="mr-1.5 inline align-[-1px]" aria-hidden fill="currentColor" />
              Stop
            </>
          ) : (
            <>
              <Play size={15} className="mr-1.5 inline align-[-2px]" aria-hidden fill="currentColor" />
              Hear it with a click
            </>
          )}
        </Button>
        {listening.state.isSilent && <span className="text-small text-muted">no sound device here</span>}
      </p>
      <div className="flex flex-wrap items-center gap-2">
        <Button look="main" disabled={ladder.isDone} onClick={() => answer(true)}>
          Clean
        </Button>
        <Button disabled={ladder.isDone} onClick={() => answer(false)}>
          Missed
        </Button>
        <span className="text-muted" role="status">
          {ladder.isDone
            ? value === null
              ? 'It was never clean: nothing is measured.'
              : `Clean up to ${Math.round(ladder.cleanAt!)}.`
            : COUNTED_MISSES[ladder.misses]}
        </span>
      </div>
      {ladder.tries.length > 0 && (
        <p className="text-small text-muted">
          {ladder.tries.map(({ bpm, clean }) => `${Math.round(bpm)} ${clean ? 'clean' : 'missed'}`).join(', ')}
        </p>
      )}
      {value !== null && (
        <p className="flex flex-wrap items-center gap-3 border-t border-line pt-3">
          <Button
            look={ladder.isDone ? 'main' : 'plain'}
            onClick={() => {
              onMeasured(value);
              onClose();
            }}
          >
            Use {value} {unit}
          </Button>
          <span className="text-muted">instead of {player.limits[limit].value}, as measured today</span>
        </p>
      )}
    </div>
  );
}

/** The drill's notes as they are called out, with the bow's turns. */
function Calls({ report }: { readonly report: ReturnType<typeof reportTune> }) {
  const { unrolled, fingers, figures } = report;
  const first = unrolled.notes.filter(({ pass }) => pass === 1);
  const words = first.map(({ note, index }) => {
    const { place, finger, position } = fingers.get(note.id)!;
    const { inStroke, bow } = figures.bowed[index]!;
    const sign = inStroke > 1 ? '‿' : bow === 'down' ? '⊓ ' : 'V ';
    const high = position !== 1 && position !== null ? ` (${position}.)` : '';
    const mark = note.marks?.[0] ? ` ${note.marks[0].replace('-', ' ')}` : '';
    return `${sign}${place}:${finger}${high}${mark}`;
  });
  return <p className="rounded-md bg-band px-3 py-2 text-small leading-relaxed">{words.join('  ')}</p>;
}

const MIN_SECONDS = 1;

function SlowBow({ limit, player, onMeasured, onClose }: MeasureSheetProps) {
  const began = useRef<number | null>(null);
  const [state, setState] = useState<'ready' | 'drawing' | 'done'>('ready');
  const [seconds, setSeconds] = useState(0);
  useEffect(() => {
    if (state !== 'drawing') return;
    const timer = setInterval(() => setSeconds((performance.now() - began.current!) / 1000), 100);
    return () => clearInterval(timer);
  }, [state]);
  const { hairCm } = player.instrument;
  const value = slowestBow(hairCm, Math.max(MIN_SECONDS, seconds));
  return (
    <div className="flex flex-col gap-3">
      <p>Press as the bow starts at the frog, and again as it reaches the tip. Your bow has {hairCm} cm of hair.</p>
      <p className="flex items-center gap-3">
        <Button
          look="main"
          data-autofocus
          onClick={() => {
            if (state === 'drawing') {
              setSeconds((performance.now() - began.current!) / 1000);
              setState('done');
            } else {
              began.current = performance.now();
              setSeconds(0);
              setState('drawing');
            }
          }}
        >
          {state === 'drawing' ? 'At the tip' : state === 'done' ? 'Once more' : 'The bow starts'}
        </Button>
        <span className="tabular-nums" role="status">
          {state === 'ready' ? '' : `${seconds.toFixed(1)} s`}
        </span>
      </p>
      {state === 'done' &&
        (seconds < MIN_SECONDS ? (
          <p className="text-madder">That was too quick: expected a second or more.</p>
        ) : (
          <p className="flex flex-wrap items-center gap-3 border-t border-line pt-3">
            <Button
              look="main"
              onClick={() => {
                onMeasured(value);
                onClose();
              }}
            >
              Use {value} {LIMIT_WORDS[limit].unit}
            </Button>
            <span className="text-muted">instead of {player.limits[limit].value}, as measured today</span>
          </p>
        ))}
    </div>
  );
}
