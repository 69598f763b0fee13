const KEY = 'morrin.teachers-note.';

/** What a teacher writes on the hand-out of a tune; kept in the browser. */
export function readTeachersNote(tuneId: string): string {
  try {
    return localStorage.getItem(`${KEY}${tuneId}`) ?? '';
  } catch {
    return '';
  }
}

export function writeTeachersNote(tuneId: string, note: string): void {
  try {
    if (note.trim() === '') localStorage.removeItem(`${KEY}${tuneId}`);
    else localStorage.setItem(`${KEY}${tuneId}`, note);
  } catch {
    // Without storage it holds until the page is left.
  }
}
