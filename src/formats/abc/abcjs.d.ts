// The parts of the parser's tree that the adapter reads; the package types only its whole renderer.
declare module 'abcjs/src/parse/abc_parse.js' {
  export interface AbcPitch {
    pitch: number;
    accidental?: string;
    startSlur?: { label: number }[];
    endSlur?: number[];
    startTie?: object;
  }

  export interface AbcElement {
    el_type: string;
    startChar: number;
    endChar: number;
    type?: string;
    title?: string;
    duration?: number;
    pitches?: AbcPitch[];
    rest?: { type: string; text?: number };
    gracenotes?: { pitch: number; accidental?: string }[];
    decoration?: string[];
    chord?: { name: string; position?: string }[];
    startTriplet?: number;
    tripletMultiplier?: number;
    tripletR?: number;
    endTriplet?: boolean;
    startSlur?: { label: number }[];
    endSlur?: number[];
    startEnding?: string;
    endEnding?: boolean;
    root?: string;
    acc?: string;
    mode?: string;
    accidentals?: { acc: string; note: string }[];
    value?: { num: string; den?: string }[];
  }

  export interface AbcLine {
    staff?: { key?: AbcElement; meter?: AbcElement; voices: AbcElement[][] }[];
  }

  export interface AbcTune {
    lines: AbcLine[];
    metaText: { tempo?: { duration?: number[]; bpm?: number } };
  }

  export default class Parse {
    parse(text: string, options: object): void;
    getTune(): AbcTune;
    getWarningObjects(): { message: string; startChar: number; column: number }[] | undefined;
  }
}
