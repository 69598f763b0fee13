import { barFindings } from './barFindings';
import { bowingFindings } from './bowingFindings';
import { colourFindings } from './colourFindings';
import type { Finding } from './finding';
import type { FindingInput } from './findingInput';
import { handFindings, inferredStrings } from './handFindings';
import { lockFindings } from './lockFindings';
import type { Mend } from './mend';
import { ovalFindings } from './ovalFindings';
import { planeFindings } from './planeFindings';
import { roundFindings } from './roundFindings';
import { tempoFindings } from './tempoFindings';
import { travelFindings } from './travelFindings';

/** Notes of the lowest kind beyond these are not told: what is graver comes first. */
const NOTES_TOLD = 3;

/** Looks for findings of some kinds. */
interface Finder {
  readonly codes: readonly Finding['code'][];
  readonly find: (input: FindingInput) => Finding[];
}

/** Everything that is looked for, in the order in which it is told: another kind is one line, and its words in `words`. */
export const FINDERS = [
  { codes: ['part-flips', 'tune-flips-again'], find: roundFindings },
  { codes: ['lock-contradicted'], find: lockFindings },
  {
    codes: [
      'slur-skips-string',
      'crossing-too-fast',
      'stroke-too-fast',
      'hop-too-fast',
      'shift-too-fast',
      'retake-too-fast',
      'ornament-too-fast',
    ],
    find: tempoFindings,
  },
  { codes: ['runs-out-of-hair', 'window-left', 'jerk'], find: travelFindings },
  { codes: ['bar-short', 'bar-long', 'join-does-not-add-up'], find: barFindings },
  { codes: ['reverse-crossings'], find: ovalFindings },
  { codes: ['bars-begin-up', 'bowed-unlike'], find: bowingFindings },
  { codes: ['one-plane', 'skip-may-sound'], find: planeFindings },
  {
    codes: ['out-of-reach', 'stops-out-of-reach', 'finger-misfits', 'hand-forbids', 'extended-fourth'],
    find: handFindings,
  },
  { codes: ['string-inferred'], find: inferredStrings },
  { codes: ['ornament-misfits', 'drone-grates'], find: colourFindings },
] as const satisfies readonly Finder[];

/** Kinds of findings for which nobody looks: none. */
type Unsought = Exclude<Finding['code'], (typeof FINDERS)[number]['codes'][number]>;
true satisfies [Unsought] extends [never] ? true : never;

/** All findings of a plan, the gravest first within the order: round, locks, tempo, hair, bars, crossings, bowing, hand, colour. */
export function findFindings(input: FindingInput): Finding[] {
  let notes = 0;
  return FINDERS.flatMap(({ find }) => find(input))
    .filter(({ severity }) => severity !== 'note' || ++notes <= NOTES_TOLD)
    .map((finding) => ({ ...finding, mends: worthwhile(input, finding.mends) }));
}

/** Mends that do not make the tune worse: all of them only where there is nothing better. */
function worthwhile({ figures, settings }: FindingInput, mends: readonly Mend[]): readonly Mend[] {
  const { ledger, check } = figures;
  const now = Math.min(settings.bpm, check.ceiling?.ceilingBpm ?? Infinity);
  const isGood = ({ comesRound, ceilingBpm }: Mend) =>
    (comesRound || !ledger.comesRound) && (ceilingBpm ?? Infinity) >= now - 1e-6;
  const better = mends.filter(isGood);
  // To go slower, or to give up what was wished, mends nothing.
  return better.some(({ deed }) => deed !== 'slower' && deed !== 'unlock') ? better : mends;
}
