/** Characters of a line of a note on paper, so that it stays within the margins. */
const LINE = 100;
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

/** A note broken between words into lines that fit the paper; a word that is longer than a line is cut. */
export function noteLines(note: string): string[] {
  const lines: string[] = [];
  for (const paragraph of note.trim().split(/\n+/)) {
    let line = '';
    for (const word of paragraph.split(/\s+/).flatMap(cut)) {
      if (line !== '' && line.length + 1 + word.length > LINE) {
        lines.push(line);
        line = word;
      } else line = line === '' ? word : `${line} ${word}`;
    }
    if (line !== '') lines.push(line);
  }
  return lines;
}

function cut(word: string): string[] {
  return word.length <= LINE ? [word] : (word.match(new RegExp(`.{1,${LINE}}`, 'g')) ?? []);
}
