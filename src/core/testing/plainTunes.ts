/**
 * Sixty plain tunes, made for tests: reels, jigs, slip jigs, hornpipes dotted and even, strathspeys with snaps, polkas with
 * runs, slides, marches, waltzes, airs and hoedowns in cross-tunings; with pickups before the repeat and in the last bar,
 * endings, triplets, and keys up to two flats. Written over plain chords, two bars of each phrase coming again, as such tunes
 * are; none is anybody's.
 */
export const PLAIN_TUNES = `X:1
T:Ferry at Dawn
R:reel
M:4/4
L:1/8
K:D
|:FABd F2DE|G2Bc B2dB|FEFG DEDF|ABGF c2ec|FABd F2DE|G2Bc B2dB|AFGA EFGF|DFGA B2d2:|
|:A2cA f2dc|B2cB G2Bc|d2Bc ABAc|c2BA e2gf|A2cA f2dc|B2cB G2Bc|A2cA B2AG|d2e2 d4:|

X:2
T:Tide at Dawn
R:reel
M:4/4
L:1/8
K:G
|:d|B2Ac d2Bc|GFGF E2FE|(3BcBcB G2AB|FEGE A2cB|B2Ac d2Bc|GFGF E2FE|dcdB (3ABAGA|BAcB G3:|
|:d|BAGA BdBc|(3efege G2AG|(3dedce dBce|defe dcdc|BAGA BdBc|(3efege G2AG|(3ABABA d2fe|Bcdc g3:|

X:3
T:Rope at Dawn
R:reel
M:4/4
L:1/8
K:A
e|:c2Ac e2de|A2FD EGEG|A2Bc e2dc|BcAB cABc|c2Ac e2de|A2FD EGEG|G2BA e2dc|e2c2 A3e:|
|:AGAG e2gf|Acdf c2eg|ABdB A2Bc|BGBc BGAB|AGAG e2gf|Acdf c2eg|GAGB GAcd|cdfg A3e:|

X:4
T:Slip at Dawn
R:reel
M:4/4
L:1/8
K:Ador
|:EGBA edce|AFED AcdB|AcAc ABdB|E2DE B2dB|EGBA edce|AFED AcdB|(3BcBcA GAcA|[1 A2B2 A4:|[2 A2B2 A4|]
|:cegf c2ed|(3ABAGA e2cA|GABA (3GAGAc|efgf egef|cegf c2ed|(3ABAGA e2cA|gefd e2df|efef A4:|

X:5
T:Mooring at Dawn
R:reel
M:4/4
L:1/8
K:Edor
|:BcBA BABA|EGFE BcAG|decB D2EF|E2FD E2DF|BcBA BABA|EGFE BcAG|BGAG BGEF|EGAc e4:|
|:BAcd efgf|c2Bc A2Bd|efdB cecd|B2AG f2de|BAcd efgf|c2Bc A2Bd|f2df B2AG|efed e4:|

X:6
T:Lantern at Dawn
R:reel
M:4/4
L:1/8
K:F
|:c|F2EG c2Bc|cedc dBcd|cAGE AGED|cAFD cAFG|F2EG c2Bc|cedc dBcd|G2EF E2GF|cdcA F3:|
|:c|fgfd AcAB|fecB dfef|fgfd ABAG|cdfd cBAG|fgfd AcAB|fecB dfef|G2Ac d2ec|cBce A2f:|

X:7
T:Heron at Dawn
R:reel
M:4/4
L:1/8
K:Bb
F|:FGFE BcBc|FABd e2cd|eded edcd|AGFA Bdec|FGFE BcBc|FABd e2cd|A2GE ABcd|Bcde B3F:|
|:dece decd|Bcec gefd|BAcB fegf|c2dB c2AG|dece decd|Bcec gefd|fede ABdc|fdcc B3F:|

X:8
T:Curlew at Dawn
R:reel
M:4/4
L:1/8
K:D
|:(3ABABA d2BA|G2FG A2Bc|dcBc dede|cded edcB|(3ABABA d2BA|G2FG A2Bc|cded ecde|dedB A2D2:|
|:AGAB A2cA|(3dedeg AcBA|e2cd cdef|AcBA (3dedce|AGAB A2cA|(3dedeg AcBA|cBAB cBdB|d2c2 d4:|

X:9
T:Anchor at Dawn
R:jig
M:6/8
L:1/8
K:D
|:ABG FAB|ABA FGA|cBd ABc|FAB d2e|ABG FAB|ABA FGA|ABA EGB|d2B d3:|
|:A2B f2d|f2e dcA|A2c ecB|AGB AGA|A2B f2d|f2e dcA|A2G AcB|d2c d3:|

X:10
T:Oar at Dawn
R:jig
M:6/8
L:1/8
K:G
|:d|B2A BGF|BGA G2A|ABd edc|dec BGF|B2A BGF|BGA G2A|AFA B2c|dBA G2:|
|:d|Bdc BAB|cAG e2g|g2f ged|fdc AGA|Bdc BAB|cAG e2g|A2B dcA|B2A G2:|

X:11
T:Net at Dawn
R:jig
M:6/8
L:1/8
K:A
e|:cdB c2d|cAG A2B|A2B F2G|GBd BGA|cdB c2d|cAG A2B|G2A GAc|AGF A2e:|
|:cdf efg|A2B fef|cAB cAc|g2f edc|cdf efg|A2B fef|edc efd|A2c A2e:|

X:12
T:Buoy at Dawn
R:jig
M:6/8
L:1/8
K:Em
|:GAG BGA|EGF BAG|F2D E2F|EGF G2A|GAG BGA|EGF BAG|d2B c2B|B2c e3:|
|:gfd G2A|Bde fef|dcd fed|GAc efe|gfd G2A|Bde fef|f2d BAB|G2A e3:|

X:13
T:Shoal at Dawn
R:jig
M:6/8
L:1/8
K:Amix
|:EFG cBd|A2B A2G|AGA D2E|EDE GFA|EFG cBd|A2B A2G|e2c BAB|c2B A3:|
|:cdc A2c|ecd cef|ABA dBd|BAB c2A|cdc A2c|ecd cef|G2A BcB|c2B A3:|

X:14
T:Spray at Dawn
R:jig
M:6/8
L:1/8
K:F
|:c|cAB A2F|FAB FDF|F2D EGF|c2B GAG|cAB A2F|FAB FDF|GBc ecB|AcB F2:|
|:c|cdB cdc|BAG B2d|f2g cec|c2d c2B|cdB cdc|BAG B2d|e2f egf|A2c f2:|

X:15
T:Reed at Dawn
R:jig
M:6/8
L:1/8
K:G
d|:Bcd GFE|G2A G2F|ABc d2c|BAc GEF|Bcd GFE|G2A G2F|DEG AFE|GFE G2d:|
|:ded GAc|cAc G2A|dfe gfg|f2e ABA|ded GAc|cAc G2A|d2e AGA|B2A G2d:|

X:16
T:Marsh at Dawn
R:jig
M:6/8
L:1/8
K:D
|:dec FED|G2F Bcd|FDE D2E|A2G E2F|dec FED|G2F Bcd|cBA edB|[1 F2G D3:|[2 F2G D3|]
|:AGB AGA|B2c d2c|f2e d2B|A2c d2e|AGB AGA|B2c d2c|cBA cAG|f2e d3:|

X:17
T:Plover at Dawn
R:slip jig
M:9/8
L:1/8
K:G
|:GFD B2G AGA|FGB D2F AGB|BdB GFD BAG|BAF GBc G3:|
|:d2e ded g2f|f2e A2B dce|d2B G2B cAc|Bcd BcA G3:|

X:18
T:Gull at Dawn
R:slip jig
M:9/8
L:1/8
K:D
|:A2c d2c dBc|FAc FAc AGE|BGB c2B GFG|d2B AFE D3:|
|:f2e fgf A2c|cBG cdc edf|A2B fef d2B|dcB AcB d3:|

X:19
T:Cockle at Dawn
R:slip jig
M:9/8
L:1/8
K:Em
|:E2F G2E GBA|BGA BdB ede|edB c2B ABc|e2c GAG E3:|
|:G2B c2d GAB|e2d ecd g2f|Bde B2c dcA|G2A BAB e3:|

X:20
T:Samphire at Dawn
R:slip jig
M:9/8
L:1/8
K:A
|:E2D EDF E2F|c2B c2A EGF|E2D E2G AcB|ABc AGF A3:|
|:e2d ced A2B|BAc B2c efe|efd e2g cBA|ABd ecB A3:|

X:21
T:Ferry over the Bar
R:hornpipe
M:4/4
L:1/8
K:D
|:A>G A>B F>D F>G|(3EFF E>F c>d c>B|d>B A>G D>E D>E|D>E F>A F>A B>d|A>G A>B F>D F>G|(3EFF E>F c>d c>B|A>B c>B A>G A>F|(3FGA B>c d4:|
|:(3ABc A>G d>e d>c|c>d e>c d>c e>d|A>c A>B (3ABG A>G|f>g d>B (3dec d>c|(3ABc A>G d>e d>c|c>d e>c d>c e>d|A>c e>f c>B c>e|f>e f>e d4:|

X:22
T:Tide over the Bar
R:hornpipe
M:4/4
L:1/8
K:G
|:G>F D>E B>A d>e|B>G D>F B>A G>A|(3EFF G>F E>G E>G|F>A (3BcA B>d A>F|G>F D>E B>A d>e|B>G D>F B>A G>A|D>F A>c d>c A>c|B>G A>F G4:|
|:G>A (3deB G>A d>c|g>f g>f g>f B>c|A>G f>g d>f d>B|B>d B>c (3dec G>A|G>A (3deB G>A d>c|g>f g>f g>f B>c|d>c d>e d>c f>g|g>e d>c g4:|

X:23
T:Rope over the Bar
R:hornpipe
M:4/4
L:1/8
K:A
|:A>B c>d c>d e>d|e>d A>F c>d (3edd|A>F G>B A>F D>F|E>F E>F E>D E>G|A>B c>d c>d e>d|e>d A>F c>d (3edd|G>B E>D E>G B>G|E>G (3ABB A4:|
|:c>B e>f e>d A>B|c>d c>d (3efd A>G|(3fgd e>d A>c A>G|e>c G>A G>A e>f|c>B e>f e>d A>B|c>d c>d (3efd A>G|g>e B>c B>G e>c|e>d e>f A4:|

X:24
T:Slip over the Bar
R:hornpipe
M:4/4
L:1/8
K:Bb
|:F>E B>d F>G F>G|(3EFF E>F E>G B>c|B>G F>A F>E B>G|F>D c>B c>e (3ABB|F>E B>d F>G F>G|(3EFF E>F E>G B>c|F>E c>B c>e A>c|F>E B>c B4:|
|:d>f B>G f>d B>d|g>e (3gfe B>c G>B|B>A f>d f>d B>c|A>c f>g A>c A>c|d>f B>G f>d B>d|g>e (3gfe B>c G>B|f>e A>G c>d c>e|(3BcA f>d B4:|

X:25
T:Mooring over the Bar
R:hornpipe
M:4/4
L:1/8
K:G
|:DEDE DEGF|(3dedcB decB|FGFD EGAF|GAGA BAGB|DEDE DEGF|(3dedcB decB|FGFE AGAB|B2A2 G4:|
|:d2ed edBc|Acef dfec|d2Bd edcA|BcAG ABdc|d2ed edBc|Acef dfec|dBAG dBdf|B2G2 A2G2:|

X:26
T:Lantern over the Bar
R:hornpipe
M:4/4
L:1/8
K:D
|:d2BA DEGF|FEFG decd|e2de dBGE|FGAF decd|d2BA DEGF|FEFG decd|A2GF cBdB|d2e2 F2d2:|
|:degf AGBA|A2GB efgf|(3ABABc dfgf|fdcB defe|degf AGBA|A2GB efgf|cdfd efef|A2G2 d4:|

X:27
T:Heron over the Bar
R:hornpipe
M:4/4
L:1/8
K:A
|:EDED AFDF|B2AF GFDE|cBcB cdBA|EGFE FAGA|EDED AFDF|B2AF GFDE|EDED Bced|c2e2 B2A2:|
|:ecBd efed|A2cd efec|AGAG cdeg|B2cB efdc|ecBd efed|A2cd efec|BAGA GABc|e2d2 A4:|

X:28
T:Curlew over the Bar
R:strathspey
M:4/4
L:1/8
K:D
|:A<B F<G D>F A<G|D>E A>G d<c d<B|G>F G>A D>F B>G|c>e c<A B<A c>B|A<B F<G D>F A<G|D>E A>G d<c d<B|e<d e<c d<B c>B|d>e d<B D4:|
|:A>c A>G f>g A>G|d<B d<B d<c B>A|f<d f>d A>c d>c|c<B A<c e<f e<d|A>c A>G f>g A>G|d<B d<B d<c B>A|e>c d>e c>B e>f|d>c A<G d4:|

X:29
T:Anchor over the Bar
R:strathspey
M:4/4
L:1/8
K:A
|:E>F E>D E<F E>D|G>A G>A E<F G>F|A>G A>c A>G c>d|e>c d>e A>B E<F|E>F E>D E<F E>D|G>A G>A E<F G>F|G<F G>F G>F G>A|e>d A>B A4:|
|:e<d c<e A>G e<f|B>c B>c e<c B>d|c>e c>d c<d A>G|c<B c>d c>A c>d|e<d c<e A>G e<f|B>c B>c e<c B>d|g>e g>f g<f B>A|e>d e<d A4:|

X:30
T:Oar over the Bar
R:strathspey
M:4/4
L:1/8
K:G
|:G<B d<e d>B c>B|A<B A>F D>E D>F|B>c G>A G<F G>F|D>F G<F G>F G>B|G<B d<e d>B c>B|A<B A>F D>E D>F|A>B D<E D>E D>E|G>F B>c G4:|
|:B>A d>e G>A B<G|B<d B>c B>c d<e|c>d e>f c>d g>f|A>G A>G A>c d>B|B>A d>e G>A B<G|B<d B>c B>c d<e|A>G f>g f>e d<f|g<e B>d g4:|

X:31
T:Net over the Bar
R:strathspey
M:4/4
L:1/8
K:Amix
|:A>c A>G A>G c>B|A>G A<G F>G F>G|c>B c>A c<B A>B|B>c e>d G<A B>G|A>c A>G A>G c>B|A>G A<G F>G F>G|e<c B<c e>d B>G|E>F E>F A4:|
|:e>f A<G A>c e>d|A<c d>e A>c e<g|e<d B<A B>G e<f|A>B A>B A<G e>d|e>f A<G A>c e>d|A<c d>e A>c e<g|e>f e>d g>f g>f|c<e c>B A4:|

X:32
T:Buoy over the Bar
R:strathspey
M:4/4
L:1/8
K:F
|:c>B F<G F<A c<A|F<E c>d F<E F<E|B<A D>E D>E F>D|E<F G>E F<A c>e|c>B F<G F<A c<A|F<E c>d F<E F<E|c>B G>A e>d c>A|A>c d>c F4:|
|:c>e f>d f>g f>d|e<g f>e c<B g<e|c>B A>G f>d c>B|f>d c>B f>d A<B|c>e f>d f>g f>d|e<g f>e c<B g<e|g>f g<f e>g f>g|A>G c<B f4:|

X:33
T:Shoal over the Bar
R:polka
M:2/4
L:1/8
K:D
|:dc F2|AF AG|BA GA|AG A2|dc F2|AF AG|AG c2|eB d2:|
|:fd ed|dB f2|g2 fg|(A/B/c/d/) AG|fd ed|dB f2|c2 dc|ef d2:|

X:34
T:Spray over the Bar
R:polka
M:2/4
L:1/8
K:G
|:B2 cB|GF c2|G2 Bc|FE FE|B2 cB|GF c2|Ac dc|AB G2:|
|:GB GA|ce fd|g2 Bc|dB d2|GB GA|ce fd|de fd|fe g2:|

X:35
T:Reed over the Bar
R:polka
M:2/4
L:1/8
K:A
|:EG AF|AB ed|e2 GF|(C/D/E/F/) AG|EG AF|AB ed|(E/F/G/A/) ed|Bc A2:|
|:AB Ac|Ac ec|dc fd|(e/f/g/a/) ed|AB Ac|Ac ec|e2 GA|Bc A2:|

X:36
T:Marsh over the Bar
R:polka
M:2/4
L:1/8
K:C
|:E2 FD|cd GF|FE Ac|G2 AB|E2 FD|cd GF|GE DE|de c2:|
|:ef e2|ef ed|fd AG|BG BA|ef e2|ef ed|GA GB|de c2:|

X:37
T:Plover over the Bar
R:polka
M:2/4
L:1/8
K:G
|:(B/c/d/e/) GF|D2 AG|(G/A/B/c/) GF|(G/A/B/c/) GF|(B/c/d/e/) GF|D2 AG|de de|AB G2:|
|:BA G2|c2 ge|dB df|fg dc|BA G2|c2 ge|(f/g/a/b/) dc|AB G2:|

X:38
T:Gull over the Bar
R:slide
M:12/8
L:1/8
K:A
|:e2d ede c2B E2G|B2d G2F E2D EDE|cdB e2c edB c2A|cBG E2F B3 A3:|
|:ABd A2B ecB c2A|A2c A2G cec e2f|AGB d2f dBA f2d|ege f2e B3 A3:|

X:39
T:Cockle over the Bar
R:slide
M:12/8
L:1/8
K:D
|:d2B F2E D2E AcA|D2E BGF B2c B2d|d2c d2e FGE F2D|DED A2G F3 d3:|
|:d2c AGB d2c A2c|d2c A2c f2d egf|c2d A2c Acd e2f|d2f d2e f3 d3:|

X:40
T:Samphire over the Bar
R:slide
M:12/8
L:1/8
K:G
|:Bdc B2c BGE G2A|G2A D2E GFG A2B|c2d G2A c2B GAB|BcB c2d A3 G3:|
|:B2A d2e d2c BGB|G2A c2A G2A GAc|B2c deg B2A d2e|d2c B2G d3 G3:|

X:41
T:Ferry by Night
R:slide
M:12/8
L:1/8
K:Em
|:G2E BAc e2d B2d|ced A2B cec A2G|EFA G2F BAB c2d|GAB e2d G3 E3:|
|:B2A GAG B2A B2G|B2c fdc f2d B2c|e2f e2c Bcd B2A|G2A B2d B3 e3:|

X:42
T:Tide by Night
R:march
M:6/8
L:1/8
K:D
|:A|FGB F2G|E3 c2B|AGF D2F|DEG F2G|FGB F2G|E3 c2B|A2B E2G|F3 d2:|
|:A|d2f g2f|cBc e2d|d2f dec|A2B dBd|d2f g2f|cBc e2d|cBA e2d|f2g d2:|

X:43
T:Rope by Night
R:march
M:6/8
L:1/8
K:A
e|:EDF A2B|A3 E2G|E2G B2G|c3 A2B|EDF A2B|A3 E2G|B2c B2G|E2F A2e:|
|:AcB c2B|A3 d2f|A3 c2A|e2c BGB|AcB c2B|A3 d2f|B2d e2d|e3 A2e:|

X:44
T:Slip by Night
R:march
M:2/4
L:1/8
K:G
|:Bc GE|GE DF|DE FE|BG D2|Bc GE|GE DF|AB FA|AB G2:|
|:B2 cB|ce cd|ge BG|AB fd|B2 cB|ce cd|AB dc|AB G2:|

X:45
T:Mooring by Night
R:march
M:2/4
L:1/8
K:D
|:dB d2|GA dc|FD FD|EG c2|dB d2|GA dc|ed Ac|eB d2:|
|:df gf|BA G2|fg de|cA Bd|df gf|BA G2|ed ed|ef d2:|

X:46
T:Lantern by Night
R:waltz
M:3/4
L:1/8
K:G
|:B4 d2|c2 GE c2|d2 GE B2|F3G d2|B4 d2|c2 GE c2|d2 A2 B2|G6:|
|:d3e d2|B2 d2 B2|G2 ed g2|f3g d2|d3e d2|B2 d2 B2|A2 d2 ef|G6:|

X:47
T:Heron by Night
R:waltz
M:3/4
L:1/8
K:D
|:A|d4 AB|A2 e2 AB|d2 A2 de|F2 GB F2|d4 AB|A2 e2 AB|E2 A2 ed|D5:|
|:A|d4 eg|d3e d2|f4 dc|A4 cB|d4 eg|d3e d2|c2 d2 cd|d5:|

X:48
T:Curlew by Night
R:waltz
M:3/4
L:1/8
K:C
|:c4 d2|G4 cd|d3e G2|G4 EG|c4 d2|G4 cd|d2 e2 G2|G4 c2:|
|:e2 c2 de|f4 cB|e2 c2 gf|B3d B2|e2 c2 de|f4 cB|B2 G2 AG|d4 c2:|

X:49
T:Anchor by Night
R:waltz
M:3/4
L:1/8
K:A
e|:A2 EF A2|A2 c2 e2|G2 AB c2|A4 c2|A2 EF A2|A2 c2 e2|B2 G2 E2|A5e:|
|:e3f e2|e2 c2 ef|e4 gf|e3f c2|e3f e2|e2 c2 ef|e2 fd g2|B4 Ae:|

X:50
T:Oar by Night
R:waltz
M:3/4
L:1/8
K:F
|:c3B A2|e4 d2|A4 F2|c2 A2 F2|c3B A2|e4 d2|E4 FE|A4 F2:|
|:c4 fe|g2 f2 g2|f4 cB|c2 d2 fd|c4 fe|g2 f2 g2|c2 GB e2|f6:|

X:51
T:Net by Night
R:air
M:3/4
L:1/8
K:D
|:d4 FE|A4 E2|D2 E2 F2|A4 DE|d4 FE|A4 E2|E2 GA B2|D6:|
|:d2 e2 d2|e2 f2 e2|d4 ef|f2 d2 e2|d2 e2 d2|e2 f2 e2|c2 B2 c2|d6:|

X:52
T:Buoy by Night
R:air
M:3/4
L:1/8
K:G
|:B2 A2 D2|D4 G2|A2 GF G2|B4 dB|B2 A2 D2|D4 G2|A2 G2 D2|G6:|
|:G3B c2|B2 A2 G2|f2 g2 d2|g4 fd|G3B c2|B2 A2 G2|f4 dB|g6:|

X:53
T:Shoal by Night
R:air
M:3/4
L:1/8
K:Am
|:c2 e2 d2|c3B c2|E4 GF|A2 B2 c2|c2 e2 d2|c3B c2|e2 cd B2|A6:|
|:A3G c2|e4 fe|e4 A2|A4 BG|A3G c2|e4 fe|G2 B2 G2|A6:|

X:54
T:Spray by Night
R:air
M:3/4
L:1/8
K:Em
|:G4 e2|d4 e2|B4 G2|G2 FG A2|G4 e2|d4 e2|B3c B2|E6:|
|:B3c G2|B4 f2|g4 f2|e2 c2 g2|B3c G2|B4 f2|f3d B2|e6:|

X:55
T:Reed by Night
R:hoedown
M:4/4
L:1/8
%%morrin-tuning A3 E4 A4 E5
K:A
|:cAGB ABGA|ECDE AGFE|DECD AcBd|BcAB ecAB|cAGB ABGA|ECDE AGFE|G2Bd G2FE|E2FB A4:|
|:AGBA cefd|c2Ac dfeg|f2dB f2ef|g2fe G2AB|AGBA cefd|c2Ac dfeg|G2AG AGBA|cdcB A4:|

X:56
T:Marsh by Night
R:hoedown
M:4/4
L:1/8
%%morrin-tuning A3 E4 A4 E5
K:A
E|:CDCD EFEC|CEGF EDCD|G2EC B2cd|e2dB e2dB|CDCD EFEC|CEGF EDCD|edBd eded|cBGE A3E:|
|:efdB ABAB|d2ef ABcB|e2cB efed|ecBA GBdf|efdB ABAB|d2ef ABcB|gegf BAGA|cedB A3E:|

X:57
T:Plover by Night
R:hoedown
M:4/4
L:1/8
%%morrin-tuning A3 D4 A4 E5
K:D
|:F2GB F2GF|d2ec dcBG|FGFD EGAG|A2GF c2Bc|F2GB F2GF|d2ec dcBG|ecBc dcdB|FGAG D4:|
|:f2ef gfde|c2Ac e2de|d2fe A2GA|dfdc degf|f2ef gfde|c2Ac e2de|cBAG efef|A2GB d4:|

X:58
T:Gull by Night
R:hoedown
M:4/4
L:1/8
%%morrin-tuning A3 D4 A4 E5
K:D
A|:FGFG ABcA|AcBc AGFE|E2FG cede|FABA dBAG|FGFG ABcA|AcBc AGFE|c2dc ABcA|F2EF d3A:|
|:f2gf g2fe|f2gf g2ef|d2fd Bdeg|eced AGBA|f2gf g2fe|f2gf g2ef|c2Bc AGAc|AGAB d3A:|

X:59
T:Cockle by Night
R:hoedown
M:4/4
L:1/8
%%morrin-tuning G3 D4 G4 D5
K:G
|:G2FE GFEG|B2dB G2AF|cedc dBAB|A2FA D2EG|G2FE GFEG|B2dB G2AF|D2EF G2FE|B2cd G4:|
|:G2Ac dBcB|B2df gefd|GAcB efec|A2GA f2dc|G2Ac dBcB|B2df gefd|dfdc dcBd|G2AA G4:|

X:60
T:Samphire by Night
R:hoedown
M:4/4
L:1/8
%%morrin-tuning D3 D4 A4 E5
K:D
A|:dcde AGBd|F2AG FGBA|B2cd BdBc|ABcB AGBd|dcde AGBd|F2AG FGBA|cBGF cABG|d2Bc D3A:|
|:A2cB fgfe|fecd efdc|cdef efeg|fgfg dedc|A2cB fgfe|fecd efdc|e2fd e2ge|Acdc d3A:|
`;
