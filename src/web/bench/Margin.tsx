import { CircleAlert, Info, TriangleAlert } from 'lucide-react';
import { useState } from 'react';
import type { Finding, Mend } from '#core/report';
import type { Tuning } from '#core/tuning';
import { findingWords } from '#words/finding';
import { mendWords } from '#words/mend';
import { selectWords } from '../store/selectSettings';
import { useAppSelector } from '../store/store';
import { Button } from '../ui/Button';

interface MarginProps {
  readonly findings: readonly Finding[];
  /** Selected notes: what is said of them is always shown. */
  readonly ids: readonly string[];
  /** All of them are listed: the panel has the room. */
  readonly isWhole?: boolean;
  /** In which strings are named. */
  readonly tuning: Tuning;
  readonly onShow: (finding: Finding) => void;
  readonly onMend: (mend: Mend, finding: Finding) => void;
  /** A mend is pointed at, or no longer: the score shows what it would make. */
  readonly onPreview: (mend: Mend | null, finding: Finding) => void;
}

/** Rows of text that fit beside a line of the score; what goes beyond is folded away. */
const ROWS_BESIDE_LINE = 17;
const CHARACTERS_IN_ROW = 42;

const SEVERITY = {
  problem: { Icon: CircleAlert, tone: 'text-madder', name: 'Problem' },
  care: { Icon: TriangleAlert, tone: 'text-weld-ink', name: 'Take care' },
  note: { Icon: Info, tone: 'text-muted', name: 'Note' },
} as const;

/** Findings beside the line they speak of, as a teacher would pencil them. */
export function Margin({ findings, ids, tuning, isWhole = false, onShow, onMend, onPreview }: MarginProps) {
  const [isOpen, setOpen] = useState(false);
  const fitting = isWhole ? findings.length : fittingFindings(findings);
  const keys = keysOf(findings);
  const shown = findings.flatMap((finding, at) =>
    isOpen || at < fitting || finding.ids.some((id) => ids.includes(id)) ? [{ finding, key: keys[at]! }] : [],
  );
  const hidden = findings.length - shown.length;
  return (
    <div
      className={isWhole ? '' : 'border-line pb-3 lg:border-l lg:pl-4'}
      {...((isWhole || findings.length > 0) && { role: 'group', 'aria-label': 'Findings' })}
    >
      {isWhole && findings.length === 0 && <p className="text-lichen-ink">Nothing to mend.</p>}
      {shown.map(({ finding, key }) => (
        <FindingNote
          key={key}
          finding={finding}
          tuning={tuning}
          onShow={onShow}
          onMend={onMend}
          onPreview={onPreview}
        />
      ))}
      {(hidden > 0 || (isOpen && findings.length > fitting)) && (
        <Button look="link" onClick={() => setOpen(!isOpen)} aria-expanded={isOpen}>
          {isOpen ? 'show fewer' : `${hidden} more`}
        </Button>
      )}
    </div>
  );
}

/** How many findings fit beside their line, one at least. */
function fittingFindings(findings: readonly Finding[]): number {
  const rowsOf = (text: string) => Math.ceil(text.length / CHARACTERS_IN_ROW);
  let rows = 0;
  const tooMany = findings.findIndex((finding) => {
    const { lead, body, figures } = findingWords(finding);
    const [mend, ...others] = finding.mends;
    rows += rowsOf(`${lead} ${body}`) + rowsOf(figures) + 0.5;
    rows += (mend ? rowsOf(mendWords(mend, finding)) : 0) + (others.length > 0 ? 1 : 0);
    return rows > ROWS_BESIDE_LINE;
  });
  return Math.max(1, tooMany < 0 ? findings.length : tooMany);
}

/** A key of its own for each finding, the same as long as it speaks of the same place: several may speak of one note. */
export function keysOf(findings: readonly Finding[]): string[] {
  const seen = new Map<string, number>();
  return findings.map((finding) => {
    const kind = finding.code === 'ornament-misfits' ? ` ${finding.ornament} ${finding.obstacle}` : '';
    const join = finding.code === 'join-does-not-add-up' ? ` ${finding.from} ${finding.to ?? 'again'}` : '';
    const key = `${finding.code}${kind}${join} ${finding.ids.join(' ')}`;
    const count = seen.get(key) ?? 0;
    seen.set(key, count + 1);
    return count === 0 ? key : `${key} #${count + 1}`;
  });
}

function FindingNote({
  finding,
  tuning,
  onShow,
  onMend,
  onPreview,
}: Omit<MarginProps, 'findings' | 'ids'> & { readonly finding: Finding }) {
  const [isOpen, setOpen] = useState(false);
  const { lead, body, figures } = findingWords(finding, { ...useAppSelector(selectWords), tuning });
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
          className={`font-serif text-lead font-bold hover:underline ${tone}`}
        >
          {lead}
        </button>{' '}
        {body}
      </p>
      <p className="text-hint leading-snug text-muted">{figures}</p>
      <ul className="leading-snug">
        {mends.map((mend, i) => (
          <li key={`${i} ${mendWords(mend, finding)}`}>
            <Button
              look="link"
              className="min-h-6 py-0.5 text-left"
              onClick={() => onMend(mend, finding)}
              // Pointed at by moving: a page that opens under a pointer at rest shows itself as it is.
              onPointerMove={() => onPreview(mend, finding)}
              onPointerLeave={() => onPreview(null, finding)}
              onFocus={() => onPreview(mend, finding)}
              onBlur={() => onPreview(null, finding)}
            >
              {mendWords(mend, finding)}
            </Button>
          </li>
        ))}
      </ul>
      {others.length > 0 && !isOpen && (
        <Button
          look="link"
          className="inline-block min-h-6 min-w-6 py-0.5 text-hint font-normal"
          onClick={() => setOpen(true)}
        >
          {others.length} more
        </Button>
      )}
    </section>
  );
}
