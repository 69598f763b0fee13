/** Angles of the bow's plane; 0 is the plane through the D and A places, positive toward E. */
export type Degrees = number;
/** Length along the hair or the stick. */
export type Centimetres = number;
/** Length on the instrument. */
export type Millimetres = number;
export type Seconds = number;
export type Milliseconds = number;
/** Dance beats a minute. Which note value is a beat, `beatUnit` tells. */
export type BeatsPerMinute = number;
export type CentimetresPerSecond = number;
/** MIDI note number: A4 = 69, one a semitone. */
export type Midi = number;
export type Semitones = number;
