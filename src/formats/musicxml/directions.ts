import type { Pitch } from '#core/pitch';
import type { Tuning } from '#core/tuning';
import { tuningFault } from '../text';
import { NOTE_TYPES } from './names';
import { pitchFrom } from './signs';
import type { Teller } from './teller';
import { child, childrenOf, childText, type XmlElement } from './xml';

/** What stands over and under the staff: tempo, strings, names of parts, and jumps that are not followed. */
export class Directions {
  /** In quarters a minute, as a player is told it. */
  quarterTempo: number | null = null;
  tuning: Tuning | null = null;
  /** The name of a part that begins with the bar it stands in. */
  label: string | undefined;

  constructor(
    private readonly teller: Teller,
    private readonly hasOwnLabels: boolean,
  ) {}

  direction(item: XmlElement): void {
    const sound = child(item, 'sound');
    if (sound) this.sound(sound);
    for (const type of childrenOf(item, 'direction-type')) for (const sign of type.children) this.sign(sign);
  }

  sound({ attributes }: XmlElement): void {
    const tempo = Number(attributes.tempo);
    if (this.quarterTempo === null && Number.isFinite(tempo) && tempo > 0) this.quarterTempo = tempo;
  }

  private sign(sign: XmlElement): void {
    switch (sign.name) {
      case 'rehearsal':
        // Rehearsal marks may be bar numbers; a letter names a part.
        if (sign.text !== '' && (this.hasOwnLabels || /^[A-Z]\d?$/.test(sign.text)))
          this.label = sign.text.slice(0, 24);
        break;
      case 'metronome':
        this.metronome(sign);
        break;
      case 'scordatura':
        this.scordatura(sign);
        break;
      case 'segno':
      case 'coda':
        this.teller.once(sign, { what: 'jump', name: sign.name });
        break;
      case 'words':
        if (/^(d\.?\s?[cs]\.?|fine|to coda)\b/i.test(sign.text))
          this.teller.once(sign, { what: 'jump', name: sign.text });
        break;
      case 'dynamics':
      case 'wedge':
        this.teller.once(sign, { what: 'dynamics-not-kept' });
        break;
    }
  }

  private metronome(sign: XmlElement): void {
    const unit = NOTE_TYPES.find(([name]) => name === childText(sign, 'beat-unit'));
    const perMinute = Number(childText(sign, 'per-minute'));
    if (!unit || !Number.isFinite(perMinute) || perMinute <= 0) return;
    const dotted = childrenOf(sign, 'beat-unit-dot').length > 0 ? 1.5 : 1;
    this.quarterTempo = (perMinute * unit[1] * dotted) / 64;
  }

  private scordatura(sign: XmlElement): void {
    const strings = childrenOf(sign, 'accord').map((accord): [number, Pitch | null] => [
      Number(accord.attributes.string),
      pitchFrom(
        childText(accord, 'tuning-step'),
        childText(accord, 'tuning-alter'),
        childText(accord, 'tuning-octave'),
      ),
    ]);
    const byString = new Map(strings);
    const [g, d, a, e] = [4, 3, 2, 1].map((number) => byString.get(number));
    if (!g || !d || !a || !e) this.teller.once(sign, { what: 'scordatura-incomplete' });
    else if (tuningFault([g, d, a, e]))
      this.teller.once(sign, { what: 'scordatura-implausible', tuning: [g, d, a, e] });
    else this.tuning = [g, d, a, e];
  }
}
