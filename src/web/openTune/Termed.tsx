import { termedPieces, TERMS } from '#words/terms';
import { Explained } from '../ui/Explained';

/** A sentence in which words of the trade explain themselves. */
export function Termed({ children }: { readonly children: string }) {
  return termedPieces(children).map(({ words, term }, at) =>
    term === null ? (
      words
    ) : (
      <Explained key={at} by={TERMS[term]}>
        {words}
      </Explained>
    ),
  );
}
