import type { TuneReport } from '#core/report';
import { ordinal } from './ordinal';
import { listed } from './plural';

/** `A comes round. B flips on its 2nd time.` */
export function roundWords({ figures, tune }: TuneReport): string {
  const { ledger } = figures;
  if (ledger.passes.every(({ entry }) => entry === null)) return 'There are no notes yet.';
  if (ledger.comesRound) return 'It comes round.';
  const names = tune.parts.map(({ name }) => name).filter((name) => tune.form.includes(name));
  const good = names.filter((name) => !ledger.flippedParts.includes(name));
  const sentences = [
    ...(good.length > 0 ? [`${listed(good)} ${good.length === 1 ? 'comes' : 'come'} round.`] : []),
    ...ledger.flippedParts.map((part) => {
      const passes = ledger.passes.filter((pass) => pass.part === part);
      const odd = passes.findIndex(({ entry }) => entry !== passes[0]!.entry);
      return `${part} flips on its ${ordinal(passes[odd]!.pass)} time.`;
    }),
    ...(ledger.flippedParts.length === 0 ? ['The tune flips when begun again.'] : []),
  ];
  return sentences.join(' ');
}
