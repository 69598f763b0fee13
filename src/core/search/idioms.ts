import { gridUnit, joiningLink, type Pattern, patternLinks, staysInStroke } from '#core/bowing';
import { type DanceType, isCompound, type Link, type Meter, PHRASE_BARS, type Tune, writtenBars } from '#core/tune';

/** A way of bowing a bar that players of a dance know by name. */
export interface Template {
  /** A pattern of the library, or a way of its own. */
  readonly name: string;
  /** How far from home it is in the dance, in points a bar: 0 is what most play. */
  readonly points: number;
  readonly links: (tune: Tune) => ReadonlyMap<string, Link>;
}

/** Where in the bar an up-bow is out of place, in points, by the beat as it is counted in the meter's own unit. */
export type UpBowWeights = Readonly<Record<number, number>>;

/** What a dance is bowed like. */
export interface Idiom {
  readonly templates: readonly Template[];
  readonly upBow: UpBowWeights;
}

const template = (
  name: string,
  points: number,
  slots: readonly number[] | null,
  more: Partial<Pattern> = {},
): Template => ({
  name,
  points,
  links: (tune) =>
    withWholeTuplets(tune, patternLinks(tune, { name, slots, meter: tune.meter, runsOn: false, lead: 0, ...more })),
});

/** A tuplet is one stroke in every way of bowing, its notes slurred, or hooked where one pitch comes twice. */
function withWholeTuplets(tune: Tune, links: ReadonlyMap<string, Link>): Map<string, Link> {
  const whole = new Map(links);
  for (const bars of writtenBars(tune).values())
    for (const { events } of bars)
      for (const [i, event] of events.entries()) {
        const before = events[i - 1];
        if (event.kind === 'note' && event.tuplet && !event.tuplet.first && before?.kind === 'note')
          whole.set(event.id, joiningLink(before, event, false));
      }
  return whole;
}

/** One template on the first bar of each phrase of four, another on the rest. */
const opened = (name: string, points: number, first: Template, rest: Template): Template => ({
  name,
  points,
  links: (tune) => {
    const links = new Map(rest.links(tune));
    const opening = first.links(tune);
    for (const bars of writtenBars(tune).values()) {
      // A pickup comes before the first bar.
      const from =
        bars.length > 1 && bars[0]!.duration.n * bars[1]!.duration.d < bars[1]!.duration.n * bars[0]!.duration.d
          ? 1
          : 0;
      for (let b = from; b < bars.length; b += PHRASE_BARS)
        for (const { id } of bars[b]!.events) if (opening.has(id)) links.set(id, opening.get(id)!);
    }
    return links;
  },
});

/** Long and short of a dotted pair in one stroke with a stop between; snaps and all else single. */
const HOOKED_PAIRS: Template = {
  name: 'hooked-pairs',
  points: 0,
  links: (tune) => {
    const links = new Map(SAW.links(tune));
    for (const bars of writtenBars(tune).values())
      for (const { events } of bars)
        for (const [i, event] of events.entries()) {
          const before = events[i - 1];
          if (event.kind !== 'note' || before?.kind !== 'note' || event.tuplet) continue;
          const ratio = (before.duration.n * event.duration.d) / (before.duration.d * event.duration.n);
          if (ratio === 3) links.set(event.id, 'hook');
        }
    return links;
  },
};

const SAW = template('saw', 0, null);
const at = (template: Template, points: number): Template => ({ ...template, points });

const PAIR_FIRST = template('pair-first-shuffle', 0, [2, 1, 1]);
const SINGLES_FIRST = template('singles-first-shuffle', 0.1, [1, 1, 2]);
const OFFBEAT_PAIRS = template('offbeat-pairs', 0.15, [1, 2, 2, 2, 1]);
const OPENED_OFFBEAT = opened('offbeat-pairs-after-a-single-bar', 0.2, SAW, OFFBEAT_PAIRS);
const ONE_AND_THREE = template('one-and-three', 0.25, [1, 3]);
const THREE_THREE_TWO = template('three-three-two', 0.3, [3, 3, 2]);
const PAIRS = template('pairs', 0.3, [2]);
const TWO_AND_ONE = template('two-and-one', 0.15, [2, 1]);
const ONE_AND_TWO = template('one-and-two', 0.35, [1, 2]);
const INTO_THE_GROUP = template('into-the-group', 0.1, [1, 1, 2, 1, 1]);
const INTO_EACH_GROUP = template('into-the-group', 0.1, [1, 1, 2, 1, 2, 1, 1]);
const THREE_AND_SINGLES = template('three-and-three-singles', 0.25, [3, 1, 1, 1]);
const THREES = template('threes', 0.35, [3]);
const WALTZ_BEATS = template('waltz-beats', 0, [2, 2, 2]);
const LONG_SHORT = template('waltz-long-short', 0.1, [4, 2]);

/**
 * What players of each dance bow, the most at home first, and where in the bar the down-bow belongs: habits of players as
 * teachers describe them, in points that are guesses. Reels shuffle and slur into the beat; jigs are sawed, slurred into the
 * group or two and one; hornpipes go by singles, or slur the short note over the beat into the long; strathspeys hook long and
 * short; waltzes keep the pairs of a beat; airs draw long strokes.
 */
const IDIOMS: Readonly<Record<Exclude<DanceType, 'air'>, Idiom>> = {
  reel: {
    templates: [PAIR_FIRST, OFFBEAT_PAIRS, OPENED_OFFBEAT, ONE_AND_THREE, THREE_THREE_TWO, at(SAW, 0.3)],
    upBow: { 1: 1, 3: 0.3 },
  },
  hoedown: {
    templates: [PAIR_FIRST, SINGLES_FIRST, at(OFFBEAT_PAIRS, 0.1), at(SAW, 0.25), THREE_THREE_TWO],
    upBow: { 1: 1, 3: 0.2 },
  },
  breakdown: {
    templates: [PAIR_FIRST, SINGLES_FIRST, at(OFFBEAT_PAIRS, 0.1), at(SAW, 0.25), THREE_THREE_TWO],
    upBow: { 1: 1, 3: 0.2 },
  },
  hornpipe: {
    templates: [SAW, at(OFFBEAT_PAIRS, 0.1), at(PAIR_FIRST, 0.2), PAIRS],
    upBow: { 1: 1, 3: 0.4 },
  },
  schottische: { templates: [SAW, at(OFFBEAT_PAIRS, 0.1), at(PAIR_FIRST, 0.2), PAIRS], upBow: { 1: 1, 3: 0.4 } },
  jig: {
    templates: [SAW, INTO_THE_GROUP, TWO_AND_ONE, THREE_AND_SINGLES, ONE_AND_TWO],
    upBow: { 1: 0.8, 4: 0.15 },
  },
  'slip jig': {
    templates: [
      SAW,
      INTO_EACH_GROUP,
      TWO_AND_ONE,
      template('three-and-singles', 0.25, [3, 1, 1, 1, 1, 1, 1]),
      ONE_AND_TWO,
    ],
    upBow: { 1: 0.8, 4: 0.1, 7: 0.1 },
  },
  slide: {
    templates: [at(TWO_AND_ONE, 0), at(SAW, 0.1), template('into-the-group', 0.2, [1, 1, 2, 1, 2, 1, 2, 1, 1]), THREES],
    upBow: { 1: 0.8, 7: 0.2 },
  },
  polka: {
    templates: [SAW, at(PAIR_FIRST, 0.1), at(PAIRS, 0.2), template('middle-pair', 0.25, [1, 2, 1])],
    upBow: { 1: 1 },
  },
  march: { templates: [SAW, at(PAIRS, 0.15), at(TWO_AND_ONE, 0.2), at(PAIR_FIRST, 0.25)], upBow: { 1: 1 } },
  waltz: {
    templates: [WALTZ_BEATS, LONG_SHORT, template('one-bow-a-bar', 0.2, [6]), at(SAW, 0.25)],
    upBow: { 1: 0.3 },
  },
  mazurka: {
    templates: [WALTZ_BEATS, at(SAW, 0.1), at(LONG_SHORT, 0.15)],
    upBow: { 1: 0.4 },
  },
  strathspey: {
    templates: [HOOKED_PAIRS, at(SAW, 0.1), at(ONE_AND_THREE, 0.3)],
    upBow: { 1: 0.8, 3: 0.3 },
  },
};

/** For a tune whose dance is not told: by its meter. */
function likelyDance({ num, den }: Meter): Exclude<DanceType, 'air'> {
  if (isCompound({ num, den })) return num === 9 ? 'slip jig' : num === 12 ? 'slide' : num === 3 ? 'waltz' : 'jig';
  if (num % 3 === 0) return 'waltz';
  return num === 2 && den === 4 ? 'polka' : 'reel';
}

/** Strokes of an air are told by its bar: half of it and all of it. */
function airIdiom(tune: Tune): Idiom {
  const { num, den } = tune.meter;
  const unit = gridUnit(tune);
  const bar = Math.max(2, Math.round((num * unit.d) / (den * unit.n)));
  const half = isCompound(tune.meter) ? 3 : Math.max(2, Math.round(bar / 2));
  const templates = [
    template('half-bar-bows', 0, [half]),
    template('one-bow-a-bar', 0.1, [bar]),
    at(PAIRS, 0.2),
    at(SAW, 0.4),
  ];
  return { templates, upBow: { 1: 0.1 } };
}

/** What a tune's dance is bowed like; where the dance is not told, the likely one of its meter. */
export function idiomOf(tune: Tune): Idiom {
  if (tune.danceType === 'air') return airIdiom(tune);
  const idiom = IDIOMS[tune.danceType ?? likelyDance(tune.meter)];
  // Marches in six-eight are bowed like jigs, those in two-four not.
  if (tune.danceType === 'march' && isCompound(tune.meter))
    return { ...idiom, templates: [SAW, TWO_AND_ONE, INTO_THE_GROUP] };
  return idiom;
}

/** How unlike its template a link is: 1 where one begins a stroke and the other does not, half where slur and hook differ. */
export function unlike(link: Link, wanted: Link): number {
  if (staysInStroke(link) !== staysInStroke(wanted)) return 1;
  return staysInStroke(link) && (link === 'hook') !== (wanted === 'hook') ? 0.5 : 0;
}

/** Beats of a bar at which an up-bow is out of place; none for other beats. */
export const upBowPoints = ({ upBow }: Idiom, beat: number): number => upBow[Math.round(beat * 1000) / 1000] ?? 0;
