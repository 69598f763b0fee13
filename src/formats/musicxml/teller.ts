import { type ImportMessage, importMessage, type TextPositions } from '../text';
import type { XmlElement } from './xml';

/** What is said of a file, each thing with the place of the element that it is about. */
export class Teller {
  readonly messages: ImportMessage[] = [];
  private readonly told = new Set<string>();

  constructor(private readonly positions: TextPositions) {}

  say(at: XmlElement, severity: ImportMessage['severity'], code: ImportMessage['code'], words: string): void {
    const { line, column } = this.positions.at(at.offset);
    this.messages.push(importMessage(line, column, severity, code, words));
  }

  /** The same, for what may stand at every note: the first place is told. */
  once(kind: string, ...said: Parameters<Teller['say']>): void {
    if (this.told.has(kind)) return;
    this.told.add(kind);
    this.say(...said);
  }
}
