import type { PlayerAbility } from '#contract/ability';
import type { KindAbility } from '#core/ability';
import { EVENT_KINDS, type EventKind } from '#core/tempo';
import { dayWords } from './days';
import { kindWords } from './eventKind';
import { counted } from './plural';

/** Less than this, in per cent, is nothing to speak of. */
const ALIKE = 2;

/** `12 % quicker than the limit`, `as quick as the limit`. */
export function betterWords(better: number): string {
  const percent = Math.round(100 * Math.abs(Math.exp(-better) - 1));
  if (percent < ALIKE) return 'as quick as the limit';
  return `${percent} % ${better > 0 ? 'quicker' : 'slower'} than the limit`;
}

/** From this many attempts on a kind is spoken of; with fewer it is not known yet. */
const TOLD_FROM = 5;
/** An interval as wide as this, in natural logarithms, says little: what was thought before is about so wide. */
const SAYS_LITTLE = 0.6;

/** Whether enough is known of a kind to speak of it. */
export const isTold = ({ attempts, low, high }: KindAbility): boolean =>
  attempts >= TOLD_FROM && high - low < SAYS_LITTLE;

/**
 * What an own ceiling rests on: `From 64 attempts since 3 May 2026: your crossings are 12 % quicker than the limit. Your hops
 * are not known yet.`
 */
export function restsOnWords(
  { attempts, since, kinds }: Pick<PlayerAbility, 'attempts' | 'since' | 'kinds'>,
  asked: readonly EventKind[] = EVENT_KINDS,
): string {
  if (attempts === 0) return 'Nothing is logged yet that says how quick your hands are.';
  const known = asked.filter((kind) => kinds[kind] && isTold(kinds[kind]));
  const unknown = asked.filter((kind) => !known.includes(kind));
  const told = known.map((kind) => `your ${kindWords(kind)} are ${betterWords(kinds[kind]!.mean)}`);
  const from = `From ${counted(attempts, 'attempt')}${since === null ? '' : ` since ${dayWords(since)}`}`;
  // Of all kinds there are, those that never came up are not listed.
  const notYet =
    asked !== EVENT_KINDS && unknown.length > 0
      ? ` Your ${joined(unknown.map((kind) => kindWords(kind)))} are not known yet.`
      : '';
  return `${from}: ${told.length > 0 ? `${joined(told)}.` : 'too few to say how quick your hands are.'}${notYet}`;
}

function joined(words: readonly string[]): string {
  return words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words[words.length - 1]}`;
}
