import type { TuneReport } from '#core/report';
import { ordinal } from './ordinal';
import { listed } from './plural';
import { holdsWords } from './tempo';

/** Whether a plan works: does it come round, and does it hold at the tempo wanted. */
export interface Verdict {
  /** `empty`: there is nothing to judge. */
  readonly kind: 'good' | 'bad' | 'empty';
  readonly words: string;
}

/** What a verdict is made of, from a report or from the book's list. */
export interface VerdictFacts {
  readonly comesRound: boolean;
  /** Parts that flip, each with the time through on which it does, where that is known. */
  readonly flips: readonly { readonly part: string; readonly pass: number | null }[];
  /** A flip is no fault: passages are learned in both directions, or the tune is an air. */
  readonly mayFlip: boolean;
  /** Dance beats a minute; null: it holds at any tempo. */
  readonly ceilingBpm: number | null;
  /** Below this a stroke runs out of bow; null: never. */
  readonly floorBpm: number | null;
  readonly goalBpm: number;
}

/**
 * Both questions in one sentence: `It comes round, and holds up to 118.` `B flips the 2nd time, and the tune breaks above 96.`
 * Tempos are cut down to whole beats, so that what is promised holds.
 */
export function verdictOf(facts: VerdictFacts): Verdict {
  const { comesRound, mayFlip, ceilingBpm, floorBpm, goalBpm } = facts;
  const breaks = ceilingBpm !== null && ceilingBpm < goalBpm;
  const isSlow = floorBpm !== null && floorBpm > goalBpm;
  const tempo = breaks
    ? `breaks above ${Math.floor(ceilingBpm)}`
    : isSlow
      ? `runs out of bow below ${Math.ceil(floorBpm)}`
      : holdsWords(ceilingBpm);
  const isTempoGood = !breaks && !isSlow;
  const isRoundGood = comesRound || mayFlip;
  const join = isRoundGood === isTempoGood ? ', and' : ', but';
  const subject = comesRound || facts.flips.length === 0 ? '' : ' the tune';
  return {
    kind: isRoundGood && isTempoGood ? 'good' : 'bad',
    words: `${roundClause(facts)}${join}${subject} ${tempo}.`,
  };
}

/** The same in few words, for a list: `comes round, holds`; `B flips, breaks above 96`. */
export function shortVerdictOf(facts: VerdictFacts): Verdict {
  const { comesRound, flips, ceilingBpm, goalBpm } = facts;
  const parts = listed(flips.map(({ part }) => part));
  const round = comesRound ? 'comes round' : `${parts || 'the tune'} ${flips.length > 1 ? 'flip' : 'flips'}`;
  const breaks = ceilingBpm !== null && ceilingBpm < goalBpm;
  return {
    kind: verdictOf(facts).kind,
    words: `${round}, ${breaks ? `breaks above ${Math.floor(ceilingBpm)}` : 'holds'}`,
  };
}

function roundClause({ comesRound, flips }: VerdictFacts): string {
  if (comesRound) return 'It comes round';
  if (flips.length === 0) return 'The whole tune flips when it begins again';
  const parts = listed(flips.map(({ part }) => part));
  const passes = new Set(flips.map(({ pass }) => pass));
  const [pass] = passes;
  const when = passes.size === 1 && pass != null ? ` the ${ordinal(pass)} time` : '';
  return `${parts} ${flips.length === 1 ? 'flips' : 'flip'}${when}`;
}

/** The verdict on a checked tune. */
export function reportVerdict({ figures, settings, tune }: TuneReport): Verdict {
  const { ledger, check } = figures;
  if (ledger.passes.every(({ entry }) => entry === null)) return { kind: 'empty', words: 'There are no notes yet.' };
  return verdictOf({
    comesRound: ledger.comesRound,
    flips: ledger.flippedParts.map((part) => {
      const passes = ledger.passes.filter((pass) => pass.part === part);
      return { part, pass: passes.find(({ entry }) => entry !== passes[0]!.entry)?.pass ?? null };
    }),
    mayFlip: settings.schools.learning === 'both-directions' || tune.danceType === 'air',
    ceilingBpm: check.ceiling?.ceilingBpm ?? null,
    floorBpm: check.floor?.bpm ?? null,
    goalBpm: settings.bpm,
  });
}
