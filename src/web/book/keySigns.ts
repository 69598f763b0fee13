/** Sharps and flats as signs: `F# minor` is `F♯ minor`. */
export function keySigns(text: string): string {
  return text.replace(/([A-G])#/g, '$1♯').replace(/([A-G])b/g, '$1♭');
}
