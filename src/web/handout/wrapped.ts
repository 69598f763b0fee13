/**
 * Text broken between words into lines that fit; a word that fits on no line is cut.
 * @param widthOf how wide a piece of text is, in the same unit as `width`
 */
export function wrapped(text: string, width: number, widthOf: (text: string) => number): string[] {
  const lines: string[] = [];
  for (const paragraph of text.trim().split(/\n+/)) {
    let line = '';
    for (const word of paragraph.split(/\s+/).flatMap((own) => cut(own, width, widthOf))) {
      const longer = line === '' ? word : `${line} ${word}`;
      if (line !== '' && widthOf(longer) > width) {
        lines.push(line);
        line = word;
      } else line = longer;
    }
    if (line !== '') lines.push(line);
  }
  return lines;
}

/** A word in pieces that fit, of one letter at least. */
function cut(word: string, width: number, widthOf: (text: string) => number): string[] {
  if (widthOf(word) <= width) return [word];
  const pieces: string[] = [];
  let piece = '';
  for (const letter of word) {
    if (piece !== '' && widthOf(piece + letter) > width) {
      pieces.push(piece);
      piece = letter;
    } else piece += letter;
  }
  return [...pieces, piece];
}
