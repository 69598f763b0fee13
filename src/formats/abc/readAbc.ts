import Parse, { type AbcTune } from 'abcjs/src/parse/abc_parse.js';
import { MAX_PLAYED_EVENTS } from '#core/document';
import type { Key } from '#core/pitch';
import type { Part, Tune } from '#core/tune';
import { STANDARD_TUNING } from '#core/tuning';
import {
  applyDirectives,
  assemble,
  barSumMessages,
  PartBuilder,
  readDirectives,
  readOrder,
  type ReadResult,
  type ReadTune,
} from '../score';
import { FILE_START, type ImportMatter, type ImportMessage, importMessage, stopMessage, TextPositions } from '../text';
import { keyOf, meterOf } from './elements';
import { readHeader, tempoOf } from './header';
import { prepareText } from './prepare';
import { type AbcTuneText, fileDefaults, splitTunes } from './splitTunes';
import { listVoices, staffOfVoice } from './voices';
import { walkLines, type WalkOptions } from './walk';

/** A tune of an ABC text always has a text of its own. */
export type ReadAbcTune = ReadTune & { readonly source: string };

/** Reads all tunes of an ABC text, one at a time, so that a caller can show progress. */
export function* readAbcTunes(
  text: string,
  voice?: string,
): Generator<ReadAbcTune | { readonly failed: ImportMessage[] }> {
  const defaults = fileDefaults(text);
  for (const tuneText of splitTunes(text)) {
    try {
      yield readOne(tuneText, defaults, voice);
    } catch (error) {
      // The other tunes are read all the same.
      const start = { line: tuneText.firstLine, column: 1 };
      const placeOf = (offset: number) => new TextPositions(tuneText.text, tuneText.firstLine).at(offset);
      yield { failed: [stopMessage(error, 'tune', start, placeOf)] };
    }
  }
}

/** Reads an ABC text: tunes as far as they could be read, and every message with line and column. */
export function readAbc(text: string): ReadResult<ReadAbcTune> {
  const tunes: ReadAbcTune[] = [];
  const messages: ImportMessage[] = [];
  for (const result of readAbcTunes(text)) {
    if ('failed' in result) messages.push(...result.failed);
    else tunes.push(result);
  }
  if (tunes.length === 0 && messages.length === 0) messages.push(importMessage(FILE_START, { what: 'no-abc-tune' }));
  return { tunes, messages };
}

type Failed = { readonly failed: ImportMessage[] };

function readOne(tuneText: AbcTuneText, defaults: readonly string[], wanted: string | undefined): ReadAbcTune | Failed {
  const { text, firstLine, reference } = tuneText;
  const positions = new TextPositions(text, firstLine);
  const start = { line: firstLine, column: 1 };
  const fail = (matter: ImportMatter, before: readonly ImportMessage[] = []): Failed => ({
    failed: [...before, importMessage(start, matter)],
  });
  if (!/^K:/m.test(text)) return fail({ what: 'no-key-line' });
  const prepared = prepareText(text, positions);
  const { messages } = prepared;
  const lead = defaults.map((line) => `${line}\n`).join('');
  const tree = parsed(lead, prepared.text, positions, messages);
  if (!tree) return fail({ what: 'not-parsed' }, messages);

  const header = readHeader(tuneText, defaults, messages);
  const { builder, head, voices } = readVoice(tree, wanted, {
    text,
    positions,
    messages,
    leadLength: lead.length,
    prepared,
    propagate: /%%propagate-accidentals\s+(\w+)/.exec(lead + text)?.[1] ?? 'pitch',
  });
  if (!builder.bars.some(({ events }) => events.some(({ kind }) => kind === 'note')))
    return fail({ what: 'no-abc-notes', title: header.title }, messages);

  const ownLines = text.split('\n').map((line, i) => ({ text: line, line: firstLine + i }));
  const order = header.order === null ? null : readOrder(header.order);
  if (header.order !== null && order === null)
    messages.push(importMessage(start, { what: 'order-not-understood', order: header.order }));
  const directives = readDirectives(ownLines, messages);
  const { parts, form, isTooLong } = assemble(builder.bars, order, directives);
  if (isTooLong) messages.push(importMessage(start, { what: 'too-many-plays', max: MAX_PLAYED_EVENTS }));
  if (order && !directives.form && namesTwice(order, form, parts))
    messages.push(importMessage(start, { what: 'order-and-repeats', order: header.order ?? '', form: form.join('') }));
  const tune: Tune = applyDirectives(
    {
      schemaVersion: 1,
      title: header.title || 'Untitled',
      ...(header.composer ? { composer: header.composer } : {}),
      ...(header.source ? { source: header.source } : {}),
      ...(header.notes ? { notes: header.notes } : {}),
      danceType: header.danceType,
      meter: head.meter,
      key: head.key,
      tuning: directives.tuning ?? STANDARD_TUNING,
      tempoBpm: tempoOf(tree.metaText.tempo, tuneText, header.danceType, head.meter, messages),
      start: null,
      parts,
      form,
    },
    directives,
  );
  messages.push(...barSumMessages(tune, builder.offsets, positions));
  messages.sort((a, b) => a.line - b.line || a.column - b.column);
  const barPositions = new Map([...builder.offsets].map(([id, offset]) => [id, positions.at(offset)]));
  return { reference, tune, messages, source: text, barPositions, voices: voices.length > 1 ? voices : [] };
}

/** The parser's tree, with what it warns of; null where it gives up. */
function parsed(lead: string, text: string, positions: TextPositions, messages: ImportMessage[]): AbcTune | null {
  const parser = new Parse();
  try {
    parser.parse(lead + text, {});
  } catch {
    return null;
  }
  for (const warning of parser.getWarningObjects() ?? []) {
    // Odd note lengths are only hard to draw for the parser; here they are exact.
    // Now and then it says something else than words.
    if (typeof warning.message !== 'string') continue;
    if (warning.message.startsWith('Duration not representable')) continue;
    const { line } = positions.at(Math.max(0, warning.startChar - lead.length));
    messages.push(importMessage({ line, column: warning.column + 1 }, { what: 'parser', words: warning.message }));
  }
  return parser.getTune();
}

/** The bars of the wanted voice, or of the first one, and the meter and key with which it begins. */
function readVoice(tree: AbcTune, wanted: string | undefined, options: WalkOptions & { readonly text: string }) {
  const { text, positions, messages } = options;
  const lines = tree.lines.flatMap(({ staff }) => (staff?.[0]?.voices[0] ? [staff] : []));
  const voices = listVoices(lines, text);
  const chosen = voices.find(({ id }) => id === wanted) ?? voices[0];
  const place = chosen ? Number(chosen.id) - 1 : 0;
  const firstStaff = lines[0] && staffOfVoice(lines[0], place)?.staff;
  const meter = meterOf(firstStaff?.meter) ?? { num: 4, den: 4 };
  const key: Key = firstStaff?.key ? keyOf(firstStaff.key) : { letter: 'C', alter: 0, mode: 'major' };
  const builder = new PartBuilder(meter, key);
  if (voices.length > 1) {
    const at = positions.at(Math.max(0, text.search(/^V:|\[V:|&/m)));
    messages.push(importMessage(at, { what: 'voices', read: place === 0 ? null : chosen!.name }));
  }
  walkLines(
    builder,
    lines.flatMap((staves) => staffOfVoice(staves, place) ?? []),
    options,
  );
  return { builder, head: { meter, key }, voices };
}

/** Whether an order names a part twice in a row that its repeat signs repeat as well. */
function namesTwice(order: readonly string[], form: readonly string[], parts: readonly Part[]): boolean {
  const count = (names: readonly string[], name: string) => names.filter((own) => own === name).length;
  const isRepeated = parts.some(({ name }) => count(form, name) > count(order, name));
  return isRepeated && order.some((name, i) => order[i + 1] === name);
}
