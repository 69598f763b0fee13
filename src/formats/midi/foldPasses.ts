import { compare, fraction } from '#core/base';
import { midiOf } from '#core/pitch';
import type { BarEvent, Meter, Part, Tune, TuneEvent } from '#core/tune';
import type { MelodyBar } from './melodyBars';

/** Full bars of a part. */
const PART_BARS = 8;

/**
 * Bars as parts: a stretch of eight bars that comes again straight away is one part played twice. Where no stretch does,
 * all is one part. A pickup belongs to the stretch it leads into, wherever short bars stand.
 */
export function foldPasses(bars: readonly MelodyBar[], meter: Meter): Pick<Tune, 'parts' | 'form'> {
  const stretches = cutStretches(bars, meter);
  const words = stretches.map(wordsOf);
  const isFolded = words.some((word, i) => word === words[i + 1]);
  if (!isFolded || stretches.some((stretch) => fullBars(stretch, meter) !== PART_BARS))
    return { parts: [partOf('A', bars, meter)], form: ['A'] };
  const names = new Map<string, string>();
  const parts: Part[] = [];
  const form = words.map((word, i) => {
    const known = names.get(word);
    if (known !== undefined) return known;
    const name = names.size < 26 ? String.fromCharCode(65 + names.size) : `Z${names.size}`;
    names.set(word, name);
    parts.push(partOf(name, stretches[i]!, meter));
    return name;
  });
  return { parts: parts.map((part, i) => (i === 0 ? part : unstarted(part))), form };
}

const isFull = ({ length }: MelodyBar, meter: Meter) => compare(length, fraction(meter.num, meter.den)) === 0;
const fullBars = (bars: readonly MelodyBar[], meter: Meter) => {
  const full = bars.filter((bar) => isFull(bar, meter)).length;
  // A short last bar makes a whole one with the pickup.
  return bars.length - full >= 2 && !isFull(bars[bars.length - 1]!, meter) ? full + 1 : full;
};

/** Stretches of eight bars, each with the pickup before it. */
function cutStretches(bars: readonly MelodyBar[], meter: Meter): MelodyBar[][] {
  const stretches: MelodyBar[][] = [];
  let open: MelodyBar[] = [];
  for (const bar of bars) {
    const counted = fullBars(open, meter);
    const hasPickup = open.length > 0 && !isFull(open[0]!, meter);
    const isDone = counted >= PART_BARS && (!hasPickup || open.length > PART_BARS);
    if (isDone) {
      stretches.push(open);
      open = [];
    }
    open.push(bar);
  }
  if (open.length > 0) stretches.push(open);
  return stretches;
}

function wordsOf(bars: readonly MelodyBar[]): string {
  return bars
    .map(({ events }) =>
      events
        .map((event) => `${event.kind === 'note' ? midiOf(event.pitch) : 'r'}:${event.duration.n}/${event.duration.d}`)
        .join(' '),
    )
    .join('|');
}

function partOf(name: string, bars: readonly MelodyBar[], meter: Meter): Part {
  let inForce = `${meter.num}/${meter.den}`;
  const events = bars.flatMap((bar, i): TuneEvent[] => {
    const own = `${bar.num}/${bar.den}`;
    const isShortEdge = (i === 0 || i === bars.length - 1) && compare(bar.length, fraction(meter.num, meter.den)) < 0;
    const den = ([1, 2, 4, 8, 16, 32] as const).find((value) => value === bar.den);
    const changes = own !== inForce && !isShortEdge && den !== undefined;
    if (changes) inForce = own;
    const event: BarEvent = {
      kind: 'bar',
      id: `${name}b${i + 1}`,
      ...(changes ? { meter: { num: bar.num, den: den! } } : {}),
    };
    return [event, ...bar.events];
  });
  return { name, events };
}

/** A later part begins with a turn of the bow like any note. */
function unstarted(part: Part): Part {
  return {
    ...part,
    events: part.events.map((event) =>
      event.kind === 'note' && event.link === 'start' ? { ...event, link: 'change' as const } : event,
    ),
  };
}
