/** The parts of the second MIDI parser that tests use. */
declare module 'midifile' {
  interface MIDIEvent {
    readonly delta: number;
    readonly type: number;
    readonly subtype: number;
    readonly channel: number;
    readonly param1: number;
    readonly param2: number;
    /** Milliseconds. */
    readonly playTime: number;
  }
  export default class MIDIFile {
    constructor(buffer: ArrayBuffer);
    getMidiEvents(): MIDIEvent[];
    getTrackEvents(track: number): MIDIEvent[];
  }
}
