import { CircleAlert, Info, TriangleAlert } from 'lucide-react';
import { useState } from 'react';
import { findingWords, mendWords } from '#contract/findingWords';
import type { Finding, Mend } from '#core/report';
import { Button } from '../ui/Button';

interface MarginProps {
  readonly findings: readonly Finding[];
  readonly onShow: (finding: Finding) => void;
  readonly onMend: (mend: Mend, finding: Finding) => void;
}

/** More than this beside one line is folded away. */
const MOST_SHOWN = 3;

const SEVERITY = {
  problem: { Icon: CircleAlert, tone: 'text-madder', name: 'Problem' },
  care: { Icon: TriangleAlert, tone: 'text-weld-ink', name: 'Take care' },
  note: { Icon: Info, tone: 'text-muted', name: 'Note' },
} as const;

/** Findings beside the line they speak of, as a teacher would pencil them. */
export function Margin({ findings, onShow, onMend }: MarginProps) {
  const [isOpen, setOpen] = useState(false);
  const shown = isOpen ? findings : findings.slice(0, MOST_SHOWN);
  return (
    <aside className="border-line pb-3 lg:border-l lg:pl-4" aria-label="Findings">
      {shown.map((finding) => (
        <FindingNote key={keyOf(finding)} finding={finding} onShow={onShow} onMend={onMend} />
      ))}
      {findings.length > MOST_SHOWN && (
        <Button look="link" onClick={() => setOpen(!isOpen)} aria-expanded={isOpen}>
          {isOpen ? 'show fewer' : `${findings.length - MOST_SHOWN} more`}
        </Button>
      )}
    </aside>
  );
}

function keyOf({ code, ids }: Finding): string {
  return `${code} ${ids.join(' ')}`;
}

function FindingNote({ finding, onShow, onMend }: Omit<MarginProps, 'findings'> & { readonly finding: Finding }) {
  const [isOpen, setOpen] = useState(false);
  const { lead, body, figures } = findingWords(finding);
  const { Icon, tone, name } = SEVERITY[finding.severity];
  const [first, ...others] = finding.mends;
  const mends = isOpen ? finding.mends : first ? [first] : [];
  return (
    <section className="mb-3" data-finding={finding.code}>
      <p className="leading-snug">
        <Icon size={15} className={`mr-1 inline align-[-2px] ${tone}`} aria-label={name} role="img" />
        <button
          type="button"
          onClick={() => onShow(finding)}
          className={`font-serif text-[17px] font-bold hover:underline ${tone}`}
        >
          {lead}
        </button>{' '}
        {body}
      </p>
      <p className="text-[13.5px] leading-snug text-muted">{figures}</p>
      <ul className="leading-snug">
        {mends.map((mend) => (
          <li key={mendWords(mend, finding)}>
            <Button look="link" className="min-h-6 py-0.5 text-left" onClick={() => onMend(mend, finding)}>
              {mendWords(mend, finding)}
            </Button>
          </li>
        ))}
      </ul>
      {others.length > 0 && !isOpen && (
        <Button
          look="link"
          className="inline-block min-h-6 min-w-6 py-0.5 text-[13.5px] font-normal"
          onClick={() => setOpen(true)}
        >
          {others.length} more
        </Button>
      )}
    </section>
  );
}
