import { reportTune, sharedStrokes } from '#core/report';
import { readAbc } from '#formats/abc';
import { longReel } from './bench/longTune.mjs';
const { tune } = readAbc(longReel()).tunes[0]!;
for (let i=0;i<1000;i++) reportTune({...tune}).findings.length;
