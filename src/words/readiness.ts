import type { Words } from '#contract/settings';
import { parseFraction } from '#core/base';
import { type Ornament, ORNAMENTS } from '#core/ornaments';
import { type Skill, skillOf } from '#core/readiness';
import { ornamentName } from './ornament';
import { beatWords } from './tempo';

/** Skills besides ornaments, as a teacher names them. */
const NAMES: Readonly<Record<Exclude<Skill, Ornament>, string>> = {
  tempo: 'tempo',
  strokes: 'quick strokes',
  crossings: 'quick crossings',
  angle: 'wide crossings',
  'two-strings': 'two strings at once',
  shift: 'shifts',
  barre: 'one finger across',
  doubling: 'unison doublings',
  span: 'a wide hand',
  turn: 'turns',
  mordent: 'mordents',
  trill: 'trills',
  grace: 'grace notes',
};

const isOrnament = (skill: Skill): skill is Ornament & Skill => (ORNAMENTS as readonly string[]).includes(skill);

/** A skill by name: `quick crossings`, `cut`. */
export function skillWords(name: string, words: Pick<Words, 'cut' | 'flick'>): string {
  const skill = skillOf(name);
  return isOrnament(skill) ? ornamentName(skill, words) : NAMES[skill as Exclude<Skill, Ornament>];
}

/** A skill's figure with its unit: `7.3 a second`, `4 each time through`, `none`. */
export function skillFigureWords(name: string, figure: number): string {
  if (figure === 0) return 'none';
  switch (skillOf(name)) {
    case 'tempo': {
      const beat = parseFraction(name.split(' ')[1] ?? '');
      return `${Math.round(figure)} ${beat ? beatWords(beat) : 'beats'} a minute`;
    }
    case 'strokes':
    case 'crossings':
      return `${figure.toFixed(1)} a second`;
    case 'angle':
      return `${figure.toFixed(0)}°`;
    case 'two-strings':
      return `${Math.round(100 * figure)} % of the time`;
    case 'span':
      return `${figure.toFixed(0)} mm`;
    default:
      return `${figure} each time through`;
  }
}
