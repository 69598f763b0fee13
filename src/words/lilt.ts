import { LILT_NOTES, type LiltFault } from '#core/tempo';

const BEATS = { simple: 'quarter', compound: 'dotted quarter' } as const;

/** Why a lilt cannot be used, with the tempos at which it fails. */
export function liltFaultWords(fault: LiltFault): string {
  switch (fault.code) {
    case 'curve':
      return 'expected a tempo up to which it is full, and a flattening, both more than 0';
    case 'shares':
      return `shares of the ${BEATS[fault.beat]}: expected ${LILT_NOTES.min} to ${LILT_NOTES.max} shares, each more than 0, that sum to 100 %`;
    case 'grows':
      return `note ${fault.position} of the ${BEATS[fault.beat]} would grow longer as the tempo rises from ${Math.round(fault.from)} to ${Math.round(fault.to)}: give it a larger share, or let the lilt flatten more gently`;
  }
}
