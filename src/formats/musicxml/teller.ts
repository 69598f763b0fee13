import { type ImportMatter, type ImportMessage, importMessage, type TextPositions } from '../text';
import type { XmlElement } from './xml';

/** What is said of a file, each thing with the place of the element that it is about. */
export class Teller {
  readonly messages: ImportMessage[] = [];
  private readonly told = new Set<string>();

  constructor(private readonly positions: TextPositions) {}

  say(at: XmlElement, matter: ImportMatter): void {
    this.messages.push(importMessage(this.positions.at(at.offset), matter));
  }

  /** The same, for what may stand at every note: the first place is told. */
  once(at: XmlElement, matter: ImportMatter): void {
    const kind = JSON.stringify(matter);
    if (this.told.has(kind)) return;
    this.told.add(kind);
    this.say(at, matter);
  }
}
