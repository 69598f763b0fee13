import { BarlineType, Stave } from 'vexflow/core';
import { type Key, keyFifths } from '#core/pitch';
import type { Meter } from '#core/tune';
import { STAFF_SPACE, STAFF_TOP } from './geometry';
import type { LineBar, LineSpec } from './lines';

/** VexFlow keeps four spaces over the top line. */
const STAVE_Y = STAFF_TOP - 4 * STAFF_SPACE;
const MAJOR_KEYS = ['Cb', 'Gb', 'Db', 'Ab', 'Eb', 'Bb', 'F', 'C', 'G', 'D', 'A', 'E', 'B', 'F#', 'C#'];

/** The staff of the line's bar number `i`, with clef, key, meter and bar lines. */
export function makeStave(line: LineSpec, i: number, x: number, width: number): Stave {
  const bar = line.bars[i]!;
  const isLineEnd = i === line.bars.length - 1;
  const stave = new Stave(x, STAVE_Y, width, { leftBar: false });
  if (i === 0) {
    stave.addClef('treble');
    stave.addKeySignature(vexKeySignature(bar.key));
  } else if (bar.showKey) {
    stave.addKeySignature(vexKeySignature(bar.key), vexKeySignature(bar.keyBefore));
  }
  if (bar.showMeter) stave.addTimeSignature(vexMeter(bar.meter));
  if (bar.beginsRepeat) stave.setBegBarType(BarlineType.REPEAT_BEGIN);
  else if (i === 0) stave.setBegBarType(BarlineType.NONE);
  stave.setEndBarType(endBarType(line, bar, isLineEnd));
  if (isLineEnd) announce(stave, line.courtesy);
  return stave;
}

const leads = new Map<string, number>();

/** Pixels that the signs at a bar's start take. Measured once for each set of signs. */
export function staveLead(line: LineSpec, i: number): number {
  const { key, keyBefore, meter, showKey, showMeter, beginsRepeat } = line.bars[i]!;
  const signs = [
    i === 0 || showKey ? vexKeySignature(key) : '',
    i > 0 && showKey ? vexKeySignature(keyBefore) : '',
    showMeter ? vexMeter(meter) : '',
    beginsRepeat,
    i === 0,
  ].join(' ');
  const known = leads.get(signs);
  if (known !== undefined) return known;
  const stave = makeStave(line, i, 0, 200);
  const lead = Math.max(0, stave.getNoteStartX() - stave.getX());
  leads.set(signs, lead);
  return lead;
}

/** A change of key or meter that comes with the next line, shown at this one's end. */
function announce(stave: Stave, courtesy: LineSpec['courtesy']): void {
  if (courtesy?.key) stave.setEndKeySignature(vexKeySignature(courtesy.key), vexKeySignature(courtesy.keyBefore));
  if (courtesy?.meter) stave.setEndTimeSignature(vexMeter(courtesy.meter));
}

function endBarType(line: LineSpec, bar: LineBar, isLineEnd: boolean): BarlineType {
  if (bar.endsRepeat) return BarlineType.REPEAT_END;
  if (bar.endsPart && line.closesTune && isLineEnd) return BarlineType.END;
  return bar.endsPart ? BarlineType.DOUBLE : BarlineType.SINGLE;
}

function vexKeySignature(key: Key): string {
  return MAJOR_KEYS[keyFifths(key) + 7] ?? 'C';
}

function vexMeter({ num, den, symbol }: Meter): string {
  return symbol === 'common' ? 'C' : symbol === 'cut' ? 'C|' : `${num}/${den}`;
}
