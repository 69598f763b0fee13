import { MAX_PLAYED_EVENTS, playedEvents } from '#core/document';
import type { BarEvent, Part } from '#core/tune';
import type { MorrinDirectives } from './directiveTable';
import { withPassLinks } from './passLinks';
import { type RawBar, type Structure, structureOf } from './structure';

export interface Assembled extends Structure {
  /** With its repeats it plays more than is kept: each part is played once. */
  readonly isTooLong: boolean;
}

/**
 * Parts and form from bars with their signs, from what the page says in words about them, and from what slurs mean where
 * a repeat leads back.
 */
export function assemble(
  bars: readonly RawBar[],
  order: readonly string[] | null,
  directives: Pick<MorrinDirectives, 'parts' | 'form' | 'plays'>,
): Assembled {
  const read = structureOf(bars, order);
  const names = directives.parts?.length === read.parts.length ? directives.parts : null;
  const renamed = names ? renameParts(read, names) : read;
  const parts = directives.plays.length > 0 ? withPlays(renamed.parts, directives.plays) : renamed.parts;
  const known = new Set(parts.map(({ name }) => name));
  const said = directives.form?.every((name) => known.has(name)) ? [...directives.form] : renamed.form;
  const isTooLong = playedEvents({ parts, form: said }) > MAX_PLAYED_EVENTS;
  const form = isTooLong ? parts.map(({ name }) => name) : said;
  return { parts: withPassLinks(parts, form), form, isTooLong };
}

function renameParts({ parts, form }: Structure, names: readonly string[]): Structure {
  const renamed = new Map(parts.map(({ name }, i) => [name, names[i]!]));
  return {
    parts: parts.map((part, i) => ({ ...part, name: names[i]! })),
    form: form.map((name) => renamed.get(name)!),
  };
}

/** Bars, counted from 1 through all parts, that sound on some passes only. */
function withPlays(parts: readonly Part[], plays: MorrinDirectives['plays']): Part[] {
  const byBar = new Map(plays.map((own) => [own.bar, own]));
  let count = 0;
  return parts.map((part) => ({
    ...part,
    events: part.events.map((event) => {
      if (event.kind !== 'bar') return event;
      const own = byBar.get(++count);
      if (!own) return event;
      const { onPlays: _plays, ending: _ending, ...rest } = event;
      return { ...rest, onPlays: own.onPlays, ...(own.ending ? { ending: true as const } : {}) } satisfies BarEvent;
    }),
  }));
}
