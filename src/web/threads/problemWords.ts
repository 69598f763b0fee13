import type { WorkProblem } from './workerTask';

/** Why something could not be worked out; the rest of the page goes on. */
export function problemWords(problem: WorkProblem): string {
  switch (problem) {
    case 'too-long':
      return 'It took too long and was stopped.';
    case 'not-started':
      return 'It could not start: the server does not answer. The rest of the page still works.';
    case 'fault':
      return 'It failed because of an error in Morrin. The rest of the page still works.';
    default:
      return problem satisfies never;
  }
}
