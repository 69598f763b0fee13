/** Text broken between words into lines of so many characters at most; a word that is longer than a line is cut. */
export function wrapped(text: string, length: number): string[] {
  const cut = (word: string) =>
    word.length <= length ? [word] : (word.match(new RegExp(`.{1,${length}}`, 'g')) ?? []);
  const lines: string[] = [];
  for (const paragraph of text.trim().split(/\n+/)) {
    let line = '';
    for (const word of paragraph.split(/\s+/).flatMap(cut)) {
      if (line !== '' && line.length + 1 + word.length > length) {
        lines.push(line);
        line = word;
      } else line = line === '' ? word : `${line} ${word}`;
    }
    if (line !== '') lines.push(line);
  }
  return lines;
}
