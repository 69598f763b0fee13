import { reportTune } from '#core/report';
import { readAbc } from '#formats/abc';
import { findingWords } from './finding';
import { mendWords } from './mend';

const findingsOf = (music: string, header = 'R:reel\nM:4/4') =>
  reportTune(readAbc(`X:1\nT:W\n${header}\nL:1/8\nK:D\n${music}\n`).tunes[0]!.tune).findings;
const wordsOf = (music: string, code: string, header?: string) => {
  const finding = findingsOf(music, header).find((candidate) => candidate.code === code)!;
  const { lead, body, figures } = findingWords(finding);
  return { all: `${lead} ${body} ${figures}`, mends: finding.mends.map((mend) => mendWords(mend, finding)) };
};

test('a part that flips says on which bow, by what count, and what brings it round', () => {
  const { all, mends } = wordsOf('|:fgaf (gf)ed:|', 'part-flips');
  expect(all).toBe(
    'A flips. The 2nd time starts on the up-bow, the first on the other. 7 turns from one start to the next: odd, so it flips · 8 notes change direction',
  );
  expect(mends[0]).toMatch(/^(split|slur|retake).*: comes round, holds up to \d+$/);
});

test('a slur over a string says how far and how long, and that splitting it helps', () => {
  const { all, mends } = wordsOf('|:(fF)Ad (fF)Ad:|', 'slur-skips-string');
  expect(all).toMatch(
    /^Bar 1 of A, beat 3\. This slur jumps from E to D over the string between\. 18° in 138 ms, you need 181 after 3 other crossings in 0.6 s · holds up to 88/,
  );
  expect(mends.some((words) => words.startsWith('split it'))).toBe(true);
});

test('a contradicted lock names its passes, and can be unlocked', () => {
  const { all, mends } = wordsOf('|:dvAFA defd:|', 'lock-contradicted');
  expect(all).toContain(
    'Bar 1 of A, the “and” of 1. You locked this down-bow, but the strokes before it lead to the other. in A1, A2',
  );
  expect(mends.at(-1)).toMatch(/^unlock it/);
});

test('a bar that does not add up counts in eighths, and its mend promises no tempo', () => {
  const { all, mends } = wordsOf('d8|dAFA def|d8|]', 'bar-short');
  expect(all).toBe('Bar 2 of A. This bar is too short. 7 eighths where 8 eighths should be');
  expect(mends).toEqual(['redraw the bar lines from here']);
});

test('what the hand cannot reach is named', () => {
  expect(wordsOf("|:c'''8|d8:|", 'out-of-reach').all).toContain('Out of reach: no position up to the fifth has it');
  expect(wordsOf('|:[dfa]4 d4:|', 'stops-out-of-reach').all).toContain('The hand cannot stop these notes together');
});

test('every finding of a tune full of trouble has a place, a reason and figures', () => {
  const findings = findingsOf("|:(fF)vAd {c}[dfa]2 c''2|(fFA)d e>f g<a|d7:|", 'R:reel\nM:4/4\nQ:1/2=180');
  expect(findings.length).toBeGreaterThan(4);
  for (const finding of findings) {
    const { lead, body, figures } = findingWords(finding);
    expect(lead).toMatch(/\.$/);
    expect(body.length).toBeGreaterThan(10);
    expect(figures).toMatch(/\d|A1/);
    for (const mend of finding.mends) expect(mendWords(mend, finding)).not.toMatch(/undefined|NaN|null/);
  }
});
