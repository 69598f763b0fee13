import { z } from 'zod';
import { MAX_EVENTS, MAX_PLAYED_EVENTS, playedEvents, TUNE_FIELDS } from '#core/document';
import { lengthFault, type Tune } from '#core/tune';
import { lengthWords, tuningFault } from '../text';
import { isTune } from './isTune';
import { schemaOfFields } from './schemaOf';

/** The document, version 1, field by field, with words for what is wrong. */
export const documentSchema = schemaOfFields(TUNE_FIELDS).superRefine((tune, context) => {
  const refuse = (message: string, path: (string | number)[]) => context.addIssue({ code: 'custom', message, path });
  const names = new Set(tune.parts.map(({ name }) => name));
  if (names.size !== tune.parts.length) refuse('part names are different from each other', ['parts']);
  for (const [i, name] of tune.form.entries())
    if (!names.has(name)) refuse(`names a part: one of ${[...names].join(', ')}`, ['form', i]);
  const ids = new Set<string>();
  for (const [p, part] of tune.parts.entries()) {
    if (part.events[0]?.kind !== 'bar') refuse('a part begins with a bar', ['parts', p, 'events', 0]);
    for (const [e, event] of part.events.entries()) {
      if (ids.has(event.id)) refuse('ids are different from each other', ['parts', p, 'events', e, 'id']);
      ids.add(event.id);
    }
  }
  const bars = new Map(
    tune.parts.flatMap(({ events }) =>
      events.flatMap((event) => (event.kind === 'bar' ? [[event.id, event] as const] : [])),
    ),
  );
  for (const [p, part] of tune.parts.entries())
    for (const [e, event] of part.events.entries()) {
      if (event.kind !== 'bar' || event.reuses === undefined) continue;
      const taken = bars.get(event.reuses);
      if (!taken || taken.reuses !== undefined)
        refuse('takes up a bar that has its own notes', ['parts', p, 'events', e, 'reuses']);
    }
  const fault = lengthFault(tune);
  if (fault)
    refuse(
      lengthWords(fault),
      fault.part === null ? ['form'] : ['parts', fault.part, 'events', fault.event!, 'duration'],
    );
  const played = playedEvents(tune);
  if (played > MAX_PLAYED_EVENTS)
    refuse(`plays at most ${MAX_PLAYED_EVENTS} events, this one plays ${played}`, ['form']);
});

/** Events of all parts, as far as a value has such; 0 where it has none. */
function countEvents(value: unknown): number {
  const parts = (value as { parts?: unknown } | null | undefined)?.parts;
  if (!Array.isArray(parts)) return 0;
  return parts.reduce<number>((sum, part: unknown) => {
    const events = (part as { events?: unknown } | null | undefined)?.events;
    return sum + (Array.isArray(events) ? events.length : 0);
  }, 0);
}

/**
 * The tune document as it is stored and exchanged. Nearly every one is as it should be: that is told in a tenth of the time
 * that going through it field by field takes, which is done only to say what is wrong with one.
 */
export const tuneSchema = z.unknown().transform((value, context): Tune => {
  if (isTune(value)) return value;
  // What is too much as a whole is not gone through piece by piece.
  const events = countEvents(value);
  if (events > MAX_EVENTS) {
    context.addIssue({
      code: 'custom',
      path: ['parts'],
      message: `at most ${MAX_EVENTS} events, this one has ${events}`,
    });
    return z.NEVER;
  }
  const parsed = documentSchema.safeParse(value);
  if (parsed.success) return parsed.data;
  for (const { path, message } of parsed.error.issues) context.addIssue({ code: 'custom', path: [...path], message });
  return z.NEVER;
});

/**
 * A tune that comes in from outside: its strings also stand as a fiddle's may. What is stored already is read and saved as
 * it is, so that nothing is shut away by a rule that came after it.
 */
export const newTuneSchema = tuneSchema.superRefine(({ tuning }, context) => {
  const fault = tuningFault(tuning);
  if (fault) context.addIssue({ code: 'custom', path: ['tuning'], message: fault });
});
