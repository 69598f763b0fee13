/** The call's words are off: exit 2. */
export class UsageError extends Error {}

/** The input could not be used: exit 1, lines of `file:line:column: text`. */
export class InputError extends Error {}

export const USAGE = `morrin: checks the bowing of fiddle tunes

  report FILE [--json] [--tune X] [--tempo N] [--pattern NAME] [--start down|up]
              [--tuning "A3 E4 A4 E5"] [--lilt NAME] [--fingers open|fourth]
              [--limits FILE] [--instrument FILE] [--schools FILE] [--optimise K]
  convert FILE --to abc|musicxml|midi|json [--tune X] [--out PATH]
  render FILE --out x.wav [--tune X] [--tempo N] [--lilt NAME] [--from BAR] [--to BAR]
              [--layers melody,drones,bowing,colour,backing,click,tone] [--pitch A4]
  drones FILE [--wish pair|stressed|phrase-ends|throughout] [--stopped] [--tune X] [--json]
  fingering FILE [--tune X] [--json]
  practice FILE [--tune X] [--tempo N] [--bite N] [--order start|most|hardest|end] [--log LOG]
              [--minutes N] [--json]
  ability --log LOG [FILE…] [--json]
  forecast FILE --log LOG --wish N --a-day M [--tune X] [--json]
  readiness FILE --log LOG [--book FILE…] [--tune X] [--json]
  simulate FILE --out take.wav [--truth truth.json] [--tune X] [--tempo N] [--lilt NAME] [--from BAR] [--to BAR]
              [--loops N] [--player steady|plain|shaky] [--mistake KIND[@NOTE[:PASS]]]… [--noise DB]
              [--room S] [--drift PERCENT] [--pitch A4] [--seed N]
  take FILE --recording take.wav [--tune X] [--tempo N] [--lilt NAME] [--from BAR] [--to BAR] [--loops N]
              [--pitch A4] [--json]
  patterns [--json]
  tunings [--json]
  retune [--from "G3 D4 A4 E5"] --to "A3 E4 A4 E5" [--json]
  schema report

FILE is ABC, MusicXML (also packed), MIDI, a Morrin plan or book, or an archive of them, told by
what is in it; - reads from standard input.
Noise is the signal's level over it in dB; pitch is that of A4 in Hz. Tempo counts the dance's own beat; bars of render are counted as played, pickups not. Exit 0: done, 1: the input could not be used, 2: wrong usage.
`;
