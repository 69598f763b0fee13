import { EVENT_KINDS } from '#core/tempo';
import { restsOnWords } from '#words/ability';
import { bindsWords } from '#words/eventKind';
import { rangeWords } from '#words/tempo';
import { Why } from '../ui/Why';
import type { OwnTempo } from './useOwnCeiling';

/** Up to which tempo the plan holds for this player, beside what it holds by the limits; why, when asked. */
export function OwnCeilingLine({
  own,
  ability,
  isLearning,
  className = '',
}: OwnTempo & { readonly className?: string }) {
  if (!own) return null;
  const asked = EVENT_KINDS.filter((kind) => (own.binds[kind] ?? 0) > 0);
  return (
    <div
      className={`flex flex-wrap items-baseline gap-x-2 text-muted transition-opacity ${isLearning ? 'opacity-60' : ''} ${className}`}
      data-own={Math.floor(own.median)}
    >
      <span>
        for you up to <b className="text-ink">{Math.floor(own.median)}</b> ({rangeWords(own)}), {bindsWords(own.binds)}
      </span>
      <Why>{restsOnWords(ability, asked)}</Why>
    </div>
  );
}
