/** A made-up reel of 32 bars: pickup, endings, triplets, grace notes, double stops, rests, slurred pairs and threes. */
export const TIDE_REEL = `X:1
T:Reel of the Turning Tide
R:reel
M:4/4
L:1/8
K:D
|:(FG)|A2 (FA) DAFA|(dc)(de) {g}f2 ed|(3BcB (AB) GBEG|[DF]2 A2 (FED)F|
A2 (FA) DAFA|dcde f^ga2|(gf)(ed) c{d}cAG|1 F2 D2 [Dd]2:|2 F2 D2 D4||
|:f2 (df) afdf|(gf)(ge) c2 Ac|{e}d2 (fd) (3efg fe|d>c BA B2 z2|
f2 (df) afdf|(gfe)g a2 =c2|BGdB (AF)(EG)|1 F2 D2 [DA]2 (de):|2 F2 D2 D4|]
`;
