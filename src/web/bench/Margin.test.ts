import { reportTune } from '#core/report';
import { readAbc } from '#formats/abc';
import { keysOf } from './Margin';

test('each finding has a key of its own, also where two speak of one note while a part is entered', () => {
  // The last bar is short toward its repeat and toward the next part.
  const { tune } = readAbc('X:1\nT:Half\nM:4/4\nL:1/8\nK:D\n|:A|d8|d6:|:B|e8|e8:|\n').tunes[0]!;
  const { findings } = reportTune(tune);
  expect(findings.filter(({ code }) => code === 'join-does-not-add-up').length).toBeGreaterThan(1);
  const keys = keysOf(findings);
  expect(new Set(keys).size).toBe(keys.length);
  expect(keysOf([...findings, ...findings]).filter((key) => key.endsWith('#2'))).toHaveLength(findings.length);
});
