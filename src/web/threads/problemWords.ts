import type { WorkProblem } from './workerTask';

/** Why something could not be worked out; the rest of the page goes on. */
export function problemWords(problem: WorkProblem): string {
  switch (problem) {
    case 'too-long':
      return 'It took too long and was given up.';
    case 'not-started':
      return 'It could not be begun: the server does not answer. The rest of the page goes on.';
    case 'fault':
      return 'It ended in a fault of Morrin. The rest of the page goes on.';
    default:
      return problem satisfies never;
  }
}
