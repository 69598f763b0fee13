import { OutOfBounds } from './lengths';
import { stopMessage } from './stopped';

const START = { line: 4, column: 1 };

test('music out of bounds is told where it stands, with the bound', () => {
  const message = stopMessage(new OutOfBounds(7, { code: 'too-long', found: 900 }), 'tune', START, (offset) => ({
    line: 5,
    column: offset,
  }));
  expect(message).toMatchObject({ line: 5, column: 7, code: 'not-read' });
  expect(message.matter).toEqual({ what: 'out-of-bounds', subject: 'tune', fault: { code: 'too-long', found: 900 } });
});

test('a fault of the program is not blamed on the file', () => {
  const message = stopMessage(new TypeError('of undefined'), 'score', START);
  expect(message).toMatchObject({ ...START, code: 'fault' });
  expect(message.matter).toEqual({ what: 'fault', subject: 'score', detail: 'of undefined' });
});
