import { render, screen } from '@testing-library/react';
import type { SaveState } from './openTuneSlice';
import { SaveMark } from './SaveMark';

const KEPT: SaveState = { kind: 'kept', at: 0 };
const FAILED: SaveState = { kind: 'failed', failure: { code: 'no-connection', details: [] } };

test('trouble is said aloud, its end once, and ordinary saving never', () => {
  const { rerender } = render(<SaveMark save={KEPT} />);
  const aloud = (save: SaveState) => {
    rerender(<SaveMark save={save} />);
    return screen.getByRole('status').textContent;
  };
  expect([aloud({ kind: 'unsaved' }), aloud(KEPT)]).toEqual(['', '']);
  expect(aloud(FAILED)).toContain('no connection');
  expect(aloud(KEPT)).toBe('saved again');
  expect([aloud({ kind: 'unsaved' }), aloud(KEPT)]).toEqual(['', '']);
});
