import { DEMANDED_ORNAMENTS, type DemandedOrnament, type Demands } from './demands';

/** Skills besides ornaments: what a tune can ask for, one figure each. */
export const PLAIN_SKILLS = [
  'tempo',
  'strokes',
  'crossings',
  'angle',
  'two-strings',
  'shift',
  'barre',
  'doubling',
  'span',
] as const;
export type Skill = (typeof PLAIN_SKILLS)[number] | DemandedOrnament;

export const SKILLS: readonly Skill[] = [...PLAIN_SKILLS, ...DEMANDED_ORNAMENTS, 'grace'];

/**
 * Figures by skill; what is left out is none. A tempo belongs to its beat: `tempo 1/4`. What a tune needs, and what was shown,
 * have the same form.
 */
export type SkillFigures = Readonly<Record<string, number>>;

const TEMPO = 'tempo ';

/** The skill that a figure belongs to. */
export const skillOf = (name: string): Skill => (name.startsWith(TEMPO) ? 'tempo' : (name as Skill));

/** Demands as figures by skill. */
export function skillFigures(demands: Demands): SkillFigures {
  const { tempo, beat, strokesPerSecond, crossingsPerSecond, widestAngle, twoStringShare } = demands;
  const { shifts, barres, doublings, widestSpanMm, ornaments } = demands;
  const figures: Record<string, number> = {
    [`${TEMPO}${beat}`]: tempo,
    strokes: strokesPerSecond,
    crossings: crossingsPerSecond,
    angle: widestAngle,
    'two-strings': twoStringShare,
    shift: shifts,
    barre: barres,
    doubling: doublings,
    span: widestSpanMm,
    ...ornaments,
  };
  return Object.fromEntries(Object.entries(figures).filter(([, figure]) => figure > 0));
}

/** Figures by skill as demands again, the tempo that of a beat. */
export function asDemands(figures: SkillFigures, beat: string): Demands {
  const of = (name: string) => figures[name] ?? 0;
  return {
    tempo: of(`${TEMPO}${beat}`),
    beat,
    strokesPerSecond: of('strokes'),
    crossingsPerSecond: of('crossings'),
    widestAngle: of('angle'),
    twoStringShare: of('two-strings'),
    shifts: of('shift'),
    barres: of('barre'),
    doublings: of('doubling'),
    ornaments: Object.fromEntries(Object.entries(figures).filter(([name]) => ORNAMENT_NAMES.has(name))),
    widestSpanMm: of('span'),
  };
}

const ORNAMENT_NAMES: ReadonlySet<string> = new Set([...DEMANDED_ORNAMENTS, 'grace']);

/** Figures of the same stretch so many times as fast: the tempo and what comes a second go with it. */
export function figuresAt(figures: SkillFigures, times: number): SkillFigures {
  const grows = (name: string) => ['tempo', 'strokes', 'crossings'].includes(skillOf(name));
  return Object.fromEntries(
    Object.entries(figures).map(([name, figure]) => [name, grows(name) ? figure * times : figure]),
  );
}

/** The best of several, skill by skill. */
export function bestFigures(all: Iterable<SkillFigures>): SkillFigures {
  const best: Record<string, number> = {};
  for (const figures of all)
    for (const [name, figure] of Object.entries(figures)) best[name] = Math.max(best[name] ?? 0, figure);
  return best;
}

/** So near to what is needed counts as shown. Guesses. */
const NEAR = {
  /** Shares of a tempo, of strokes and crossings a second, and of the time with two strings. */
  tempo: 0.95,
  rate: 0.9,
  /** Degrees of the arm, millimetres of the hand. */
  degrees: 3,
  millimetres: 4,
} as const;
/** Two strings in passing are no skill of their own: below this share of the time. A guess. */
const PASSING = 0.02;

/** Whether a figure that is needed was not shown. What is counted once through a tune is shown once it came out clean at all. */
export function isMissing(name: string, needs: number, shown: number): boolean {
  switch (skillOf(name)) {
    case 'tempo':
      return shown < NEAR.tempo * needs;
    case 'strokes':
    case 'crossings':
      return shown < NEAR.rate * needs;
    case 'two-strings':
      return needs > PASSING && shown < NEAR.rate * needs;
    case 'angle':
      return shown < needs - NEAR.degrees;
    case 'span':
      return shown < needs - NEAR.millimetres;
    default:
      return shown === 0 && needs > 0;
  }
}

/** A skill that a tune needs and that was not shown, with both figures. */
export interface MissingSkill {
  readonly name: string;
  readonly needs: number;
  readonly shown: number;
}

/** What is missing for a tune, in the order of `SKILLS`. Time O(k). */
export function missingSkills(needs: SkillFigures, shown: SkillFigures): MissingSkill[] {
  return Object.entries(needs)
    .filter(([name, figure]) => isMissing(name, figure, shown[name] ?? 0))
    .map(([name, figure]) => ({ name, needs: figure, shown: shown[name] ?? 0 }))
    .sort((a, b) => SKILLS.indexOf(skillOf(a.name)) - SKILLS.indexOf(skillOf(b.name)));
}
