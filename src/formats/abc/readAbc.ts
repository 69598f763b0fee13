import Parse from 'abcjs/src/parse/abc_parse.js';
import type { Key } from '#core/pitch';
import type { Tune } from '#core/tune';
import { STANDARD_TUNING } from '#core/tuning';
import { MAX_PLAYED_EVENTS } from '#core/document';
import {
  PartBuilder,
  type ReadResult,
  type ReadTune,
  applyDirectives,
  assemble,
  barSumMessages,
  readDirectives,
  readOrder,
} from '../score';
import { type ImportMessage, TextPositions, importMessage, stopMessage } from '../text';

import { keyOf, meterOf } from './elements';
import { readHeader, tempoOf } from './header';
import { prepareText } from './prepare';
import { type AbcTuneText, fileDefaults, splitTunes } from './splitTunes';
import { listVoices, staffOfVoice } from './voices';
import { walkLines } from './walk';

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
  if (tunes.length === 0 && messages.length === 0)
    messages.push(
      importMessage(1, 1, 'error', 'no-notes', 'No tune was found: expected ABC with a K: line and notes after it.'),
    );
  return { tunes, messages };
}

function readOne(
  tuneText: AbcTuneText,
  defaults: readonly string[],
  wanted: string | undefined,
): ReadAbcTune | { failed: ImportMessage[] } {
  const positions = new TextPositions(tuneText.text, tuneText.firstLine);
  if (!/^K:/m.test(tuneText.text)) {
    const words = 'No K: line was found; in ABC the music begins after the line that names the key, such as K:D.';
    return { failed: [importMessage(tuneText.firstLine, 1, 'error', 'no-notes', words)] };
  }
  const prepared = prepareText(tuneText.text, positions);
  const messages = prepared.messages;
  const lead = defaults.map((line) => `${line}\n`).join('');
  const parser = new Parse();
  try {
    parser.parse(lead + prepared.text, {});
  } catch {
    const words = 'This tune could not be read at all; its text is kept as it is.';
    return { failed: [...messages, importMessage(tuneText.firstLine, 1, 'error', 'not-read', words)] };
  }
  const tree = parser.getTune();
  for (const warning of parser.getWarningObjects() ?? []) {
    // Odd note lengths are only hard to draw for the parser; here they are exact.
    // Now and then it says something else than words.
    if (typeof warning.message !== 'string') continue;
    if (warning.message.startsWith('Duration not representable')) continue;
    const at = positions.at(Math.max(0, warning.startChar - lead.length));
    messages.push(importMessage(at.line, warning.column + 1, 'warning', 'syntax', `${warning.message}.`));
  }

  const header = readHeader(tuneText, defaults, messages);
  const lines = tree.lines.flatMap(({ staff }) => (staff?.[0]?.voices[0] ? [staff] : []));
  const voices = listVoices(lines, tuneText.text);
  const chosen = voices.find(({ id }) => id === wanted) ?? voices[0];
  const place = chosen ? Number(chosen.id) - 1 : 0;
  const firstStaff = lines[0] && staffOfVoice(lines[0], place)?.staff;
  const meter = meterOf(firstStaff?.meter) ?? { num: 4, den: 4 };
  const key: Key = firstStaff?.key ? keyOf(firstStaff.key) : { letter: 'C', alter: 0, mode: 'major' };
  const builder = new PartBuilder(meter, key);
  if (voices.length > 1) {
    const at = tuneText.text.search(/^V:|\[V:|&/m);
    const { line, column } = positions.at(Math.max(0, at));
    const words = `Several voices: ${place === 0 ? 'the first one' : `“${chosen!.name}”`} is read as the melody, the others are left out.`;
    messages.push(importMessage(line, column, 'warning', 'voice-left-out', words));
  }
  walkLines(
    builder,
    lines.flatMap((staves) => staffOfVoice(staves, place) ?? []),
    {
      positions,
      messages,
      leadLength: lead.length,
      prepared,
      propagate: /%%propagate-accidentals\s+(\w+)/.exec(lead + tuneText.text)?.[1] ?? 'pitch',
    },
  );
  if (!builder.bars.some(({ events }) => events.some(({ kind }) => kind === 'note'))) {
    const words = `No notes were found${header.title ? ` in "${header.title}"` : ''}: expected a K: line and notes after it.`;
    return { failed: [...messages, importMessage(tuneText.firstLine, 1, 'error', 'no-notes', words)] };
  }

  const order = header.order === null ? null : readOrder(header.order);
  if (header.order !== null && order === null)
    messages.push(
      importMessage(
        tuneText.firstLine,
        1,
        'warning',
        'part-order',
        `The playing order P:${header.order} was not understood; the written order is used.`,
      ),
    );
  const ownLines = tuneText.text.split('\n').map((text, i) => ({ text, line: tuneText.firstLine + i }));
  const directives = readDirectives(ownLines, messages);
  const { parts, form, isTooLong } = assemble(builder.bars, order, directives);
  if (isTooLong)
    messages.push(
      importMessage(
        tuneText.firstLine,
        1,
        'error',
        'too-long',
        `With its repeats this plays over ${MAX_PLAYED_EVENTS} notes; each part is kept once.`,
      ),
    );
  if (
    order &&
    !directives.form &&
    parts.some(
      (part) => form.filter((name) => name === part.name).length > order.filter((name) => name === part.name).length,
    ) &&
    order.some((name, i) => order[i + 1] === name)
  )
    messages.push(
      importMessage(
        tuneText.firstLine,
        1,
        'warning',
        'part-order',
        `P:${header.order} names parts twice that also have repeat signs; both are followed, so the form is ${form.join('')}.`,
      ),
    );
  const tune: Tune = applyDirectives(
    {
      schemaVersion: 1,
      title: header.title || 'Untitled',
      ...(header.composer ? { composer: header.composer } : {}),
      ...(header.source ? { source: header.source } : {}),
      ...(header.notes ? { notes: header.notes } : {}),
      danceType: header.danceType,
      meter,
      key,
      tuning: directives.tuning ?? STANDARD_TUNING,
      tempoBpm: tempoOf(tree.metaText.tempo, tuneText, header.danceType, meter, messages),
      start: null,
      parts,
      form,
    },
    directives,
  );
  messages.push(...barSumMessages(tune, builder.offsets, positions));
  messages.sort((a, b) => a.line - b.line || a.column - b.column);
  const barPositions = new Map([...builder.offsets].map(([id, offset]) => [id, positions.at(offset)]));
  return {
    reference: tuneText.reference,
    tune,
    messages,
    source: tuneText.text,
    barPositions,
    voices: voices.length > 1 ? voices : [],
  };
}
