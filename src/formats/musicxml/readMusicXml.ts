import { toNumber } from '#core/base';
import { MAX_PLAYED_EVENTS } from '#core/document';
import { beatUnit } from '#core/tempo';
import { type DanceType, type Tune, writtenNotes } from '#core/tune';
import { STANDARD_TUNING } from '#core/tuning';
import { applyDirectives, assemble, barSumMessages, readDirectives, type ReadResult, type Voice } from '../score';
import { FILE_START, type ImportMatter, type ImportMessage, importMessage, stopMessage, TextPositions } from '../text';
import { readHeadFields, withFields } from './fields';
import { FIELD_PREFIX } from './names';
import { byPart } from './timewise';
import { listVoices } from './voices';
import { walkPart } from './walkPart';
import { child, childrenOf, childText, parseXml, type XmlElement } from './xml';

/**
 * Reads a MusicXML score, partwise or timewise: one voice of it as a tune.
 * @param voice id of the voice that is the melody; left out: the first part's voice with the most notes
 */
export function readMusicXml(text: string, voice?: string): ReadResult {
  const failed = (at: Pick<ImportMessage, 'line' | 'column'>, matter: ImportMatter): ReadResult => ({
    tunes: [],
    messages: [importMessage(at, matter)],
  });
  const parsed = parseXml(text);
  if (!parsed.ok) return failed(parsed, { what: 'not-xml', words: parsed.message });
  const positions = new TextPositions(text);
  const root = byPart(parsed.root);
  if (!root)
    return failed(positions.at(parsed.root.offset), { what: 'no-score', found: parsed.root.name.slice(0, 40) });
  const voices = listVoices(root);
  const chosen = voices.find(({ id }) => id === voice) ?? mainVoice(voices);
  if (!chosen) return failed(FILE_START, { what: 'no-part-notes' });
  try {
    return readVoice(root, chosen, voices, positions);
  } catch (error) {
    return { tunes: [], messages: [stopMessage(error, 'score', FILE_START, (offset) => positions.at(offset))] };
  }
}

/** Of the first part the voice with the most notes. */
function mainVoice(voices: readonly Voice[]): Voice | undefined {
  const part = voices[0]?.id.split('/')[0];
  return voices
    .filter(({ id }) => id.split('/')[0] === part)
    .reduce<Voice | undefined>((best, own) => (best && best.notes >= own.notes ? best : own), undefined);
}

function readVoice(root: XmlElement, voice: Voice, voices: readonly Voice[], positions: TextPositions): ReadResult {
  const slash = voice.id.lastIndexOf('/');
  const part = childrenOf(root, 'part').find(({ attributes }) => (attributes.id ?? '') === voice.id.slice(0, slash))!;
  const fields = miscellaneousFields(root);
  const messages: ImportMessage[] = [];
  if (voices.length > 1) messages.push(importMessage(positions.at(part.offset), { what: 'voices', read: voice.name }));
  const lines = fields.map(({ name, element }) => ({
    text: `%%morrin-${name} ${element.text}`,
    line: positions.at(element.offset).line,
  }));
  const head = readHeadFields(fields);
  const directives = readDirectives(
    lines.filter((_, i) => !head.names.has(fields[i]!.name)),
    messages,
  );
  const walk = walkPart(part, {
    voice: voice.id.slice(slash + 1),
    positions,
    hasOwnLabels: directives.parts !== undefined,
  });
  const { parts, form, isTooLong } = assemble(walk.bars, null, directives);
  if (isTooLong) messages.push(importMessage(FILE_START, { what: 'too-many-plays', max: MAX_PLAYED_EVENTS }));
  const { danceType } = head;
  const composer = compositionCredit(root);
  const source = childText(child(root, 'identification') ?? root, 'source');
  const tune: Tune = applyDirectives(
    withFields(
      {
        schemaVersion: 1,
        title: titleOf(root),
        ...(composer ? { composer } : {}),
        ...(source ? { source: source.slice(0, 1000) } : {}),
        ...(head.notes ? { notes: head.notes } : {}),
        danceType,
        meter: walk.meter,
        key: walk.key,
        tuning: directives.tuning ?? walk.tuning ?? STANDARD_TUNING,
        tempoBpm: tempoOf(walk.quarterTempo, danceType, walk.meter),
        start: null,
        parts,
        form,
      },
      head,
    ),
    directives,
  );
  if (writtenNotes(tune).length === 0) {
    const message = importMessage(FILE_START, { what: 'no-voice-notes' });
    return { tunes: [], messages: [...messages, message] };
  }
  messages.push(...walk.messages, ...barSumMessages(tune, walk.offsets, positions));
  messages.sort((a, b) => a.line - b.line || a.column - b.column);
  const barPositions = new Map([...walk.offsets].map(([id, offset]) => [id, positions.at(offset)]));
  return {
    tunes: [{ reference: '', tune, messages, source: null, barPositions, voices: voices.length > 1 ? voices : [] }],
    messages: [],
  };
}

function tempoOf(quarters: number | null, danceType: DanceType | null, meter: Tune['meter']): number | null {
  if (quarters === null) return null;
  const bpm = quarters / (4 * toNumber(beatUnit(danceType, meter)));
  return bpm >= 10 && bpm <= 400 ? Math.round(bpm * 1e6) / 1e6 : null;
}

function titleOf(root: XmlElement): string {
  const work = child(root, 'work');
  const credit = childrenOf(root, 'credit').find((element) => childText(element, 'credit-type') === 'title');
  const title =
    (work && childText(work, 'work-title')) ||
    childText(root, 'movement-title') ||
    (credit && childText(credit, 'credit-words'));
  return (title || 'Untitled').replace(/\s+/g, ' ').slice(0, 300);
}

function compositionCredit(root: XmlElement): string {
  const creators = childrenOf(child(root, 'identification') ?? root, 'creator');
  return creators
    .filter(({ attributes }) => (attributes.type ?? 'composer') === 'composer')
    .map(({ text }) => text)
    .filter((text) => text !== '')
    .join(', ')
    .slice(0, 300);
}

/** Fields of ours, their names without the prefix. */
function miscellaneousFields(root: XmlElement): { name: string; element: XmlElement }[] {
  const group = child(child(root, 'identification') ?? root, 'miscellaneous');
  return (group ? childrenOf(group, 'miscellaneous-field') : []).flatMap((element) => {
    const name = element.attributes.name ?? '';
    return name.startsWith(FIELD_PREFIX) ? [{ name: name.slice(FIELD_PREFIX.length), element }] : [];
  });
}
