import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import type { PlayerAbility } from '#contract/ability';
import type { SpanDay } from '#contract/log';
import type { PracticeSpan } from '#contract/practice';
import { cleanTempo, kindCeilings, marginsAt, marginsOf, ownCeiling, priorOf, tellsMost } from '#core/ability';
import { forecastFan, forecastOf, forecastTune } from '#core/forecast';
import type { TuneReport } from '#core/report';
import { EVENT_KINDS } from '#core/tempo';
import { playedStretch } from '#core/tune';
import { restsOnWords } from '#words/ability';
import { dayWords } from '#words/days';
import { bindsWords } from '#words/eventKind';
import { failureWords } from '#words/failure';
import { forecastWords, tuneForecastWords } from '#words/forecast';
import { counted } from '#words/plural';
import { attemptSpanWords } from '#words/practice';
import { beatWords, rangeWords } from '#words/tempo';
import { useAbility } from '../api/useAbility';
import { useTunePractice } from '../api/useTunePractice';
import { NotRead } from '../ui/PageState';
import { Select } from '../ui/Select';
import { SmallTable } from '../ui/SmallTable';
import { Why } from '../ui/Why';
import { minutesADay, type SpanProgress, spansOf } from './progress';
import { ProgressChart } from './ProgressChart';
import { isSameSpan, landmarkOf } from './spans';
import { useJudgedTune } from './useJudgedTune';
import { wantedPlan } from './wantedPlan';

interface TuneProgressProps {
  readonly tuneId: string;
  readonly days: readonly SpanDay[];
  readonly now: Date;
}

/** How a tune comes on: clean tempo against time, what holds for these hands, and when the tempo wanted will be clean. */
export function TuneProgress({ tuneId, days, now }: TuneProgressProps) {
  const judged = useJudgedTune(tuneId);
  switch (judged.kind) {
    case 'loading':
      return <p className="py-4 text-muted">Reading the tune …</p>;
    case 'failed':
      return <NotRead words={failureWords(judged.failure)} onRetry={judged.again} />;
    case 'gone':
      return <p className="py-4 text-muted">This tune is no longer in the book. What was logged of it is kept.</p>;
    case 'too-long':
      return <p className="py-4 text-muted">This tune is longer than a page can count with.</p>;
    case 'here':
      return <Progress key={tuneId} tuneId={tuneId} report={judged.report} days={days} now={now} />;
  }
}

interface ProgressProps extends TuneProgressProps {
  readonly report: TuneReport;
}

const MINUTES = [2, 3, 5, 8, 10, 15, 20, 30, 45, 60];
const WHOLE = 'tune';
const FAN_DAYS = 12;
/** How far ahead is looked at least, and at most, in days. */
const [NEAR, FAR] = [7, 60];
/** Where the tempo is not on the path, so far, to see where it levels off. */
const LEVEL = 21;

function Progress({ tuneId, report, days, now }: ProgressProps) {
  const { practice } = useTunePractice(tuneId);
  const [picked, setPicked] = useState<string | null>(null);
  const [minutes, setMinutes] = useState<number | null>(null);
  const known = useAbility();
  const spans = useMemo(() => spansOf(days).filter(({ span }) => playedStretch(report.unrolled, span)), [days, report]);
  const nameOf = (span: PracticeSpan) => landmarkOf(practice.landmarks, span)?.name ?? attemptSpanWords(report, span);
  const { bpm: wish } = report.settings;
  const beat = beatWords(report.settings.beat);
  // What is not there yet is what one asks about.
  const shown =
    spans.find(({ span }) => keyOf(span) === picked) ??
    spans.find(({ best }) => !best.some(({ bpm }) => bpm >= wish)) ??
    spans[0];
  const isWhole = picked === WHOLE;
  const aDay = minutes ?? (shown ? minutesADay(isWhole ? wholeOf(spans) : shown, now) : 1);
  const own = useOwnOf(report, isWhole ? null : (shown?.span ?? null), known.ability);
  const told = useMemo(() => {
    if (!shown) return null;
    const asked = { bpm: wish, minutesADay: aDay };
    if (!isWhole) {
      const ceiling = own?.median ?? wish;
      const forecast = forecastOf(shown.best, { ...asked, ownCeilingBpm: ceiling });
      const ahead =
        'tooLittle' in forecast
          ? NEAR
          : forecast.never >= 0.5
            ? LEVEL
            : Math.min(FAR, Math.max(NEAR, 1.3 * forecast.days.p90));
      const at = Array.from({ length: FAN_DAYS + 1 }, (_, i) => (ahead * i) / FAN_DAYS);
      return {
        forecast,
        fan: 'tooLittle' in forecast ? [] : forecastFan(shown.best, { ...asked, ownCeilingBpm: ceiling }, at),
      };
    }
    const plan = wantedPlan(report, practice);
    const { learnt } = known.ability;
    const stretches = plan.bites.map((bite) => ({
      best: spans.find(({ span }) => isSameSpan(span, bite))?.best ?? [],
      ownCeilingBpm: ownCeiling(kindCeilings(report, bite), learnt, priorOf(report.settings.limits))?.median ?? wish,
    }));
    return { forecast: forecastTune(stretches, asked), fan: [] };
  }, [shown, isWhole, own, wish, aDay, report, practice, spans, known.ability]);
  if (!shown || !told)
    return <p className="py-4 text-muted">Nothing of this tune as it stands now has been played with the bow yet.</p>;
  return (
    <div data-progress={keyOf(shown.span)}>
      <div className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-2">
        <label className="flex min-w-0 items-center gap-2">
          stretch
          <Select
            className="min-h-9 max-w-72 min-w-0 rounded-md border border-line bg-surface px-2"
            value={isWhole ? WHOLE : keyOf(shown.span)}
            options={[
              ...spans.map(({ span }) => ({ value: keyOf(span), name: nameOf(span) })),
              { value: WHOLE, name: 'all its bites together' },
            ]}
            onChange={setPicked}
          />
        </label>
        <label className="flex items-center gap-2">
          with
          <Select
            value={aDay}
            options={[...new Set([...MINUTES, aDay])]
              .sort((a, b) => a - b)
              .map((value) => ({ value, name: `${counted(value, 'minute')} a day` }))}
            onChange={setMinutes}
          />
        </label>
      </div>
      <p className="font-serif text-lead leading-snug font-bold" data-forecast>
        {(isWhole ? tuneForecastWords : forecastWords)(told.forecast, { bpm: wish, minutesADay: aDay })}
      </p>
      {own && (
        <div className="mt-1 flex flex-wrap items-baseline gap-x-2 text-muted" data-own={Math.floor(own.median)}>
          <span>
            For your hands {isWhole ? 'the tune' : 'it'} holds up to{' '}
            <b className="text-ink">{Math.floor(own.median)}</b> ({rangeWords(own)}), {bindsWords(own.binds)}
          </span>
          <Why>
            {restsOnWords(
              known.ability,
              EVENT_KINDS.filter((kind) => (own.binds[kind] ?? 0) > 0),
            )}
          </Why>
        </div>
      )}
      {!isWhole && (
        <>
          <ProgressChart days={shown.days} wishBpm={wish} own={own} fan={told.fan} now={now} beatWords={beat} />
          <p className="pl-11 text-small text-muted">
            dots: the quickest that came out clean on a day, {beat} a minute
            {told.fan.length > 0 && '; dashed: to be expected, shaded: 8 times in 10'}
          </p>
        </>
      )}
      <TellsMost tuneId={tuneId} report={report} practice={practice} ability={known.ability} nameOf={nameOf} />
      <FirstAgainstLast spans={spans} nameOf={nameOf} />
    </div>
  );
}

const keyOf = ({ part, from, to }: PracticeSpan): string => `${part} ${from} ${to}`;

/** Minutes of all stretches together, day by day. */
function wholeOf(spans: readonly SpanProgress[]): Pick<SpanProgress, 'days'> {
  const byDay = new Map<string, SpanDay>();
  for (const day of spans.flatMap(({ days }) => days)) {
    const before = byDay.get(day.day);
    byDay.set(day.day, { ...day, minutes: day.minutes + (before?.minutes ?? 0) });
  }
  return { days: [...byDay.values()] };
}

/** Up to which tempo a stretch holds for the player; the whole tune where none is given. */
function useOwnOf(report: TuneReport, span: PracticeSpan | null, { attempts, learnt }: PlayerAbility) {
  return useMemo(() => {
    if (attempts === 0) return null;
    const stretch = span ? (playedStretch(report.unrolled, span) ?? undefined) : undefined;
    return ownCeiling(kindCeilings(report, stretch), learnt, priorOf(report.settings.limits));
  }, [attempts, learnt, report, span]);
}

/** Stretches that are offered to learn from, and at which chance they are tried: where both outcomes are likely. */
const OFFERS = 3;
const OFFERED_CHANCE = 0.6;
/** Less than this narrows nothing to speak of. */
const TELLS = 0.01;
/** No faster than so much over the tempo wanted: nobody wants to play it. */
const FASTEST = 1.15;

/** Which attempt would tell most of what the hands can do. */
function TellsMost(props: {
  readonly tuneId: string;
  readonly report: TuneReport;
  readonly practice: ReturnType<typeof useTunePractice>['practice'];
  readonly ability: PlayerAbility;
  readonly nameOf: (span: PracticeSpan) => string;
}) {
  const { tuneId, report, practice, ability, nameOf } = props;
  const best = useMemo(() => {
    const { limits, bpm } = report.settings;
    const sdOf = priorOf(limits);
    const likely = Object.fromEntries(ability.learnt.kinds.map((kind, i) => [kind, ability.learnt.mean[i]!]));
    const plan = wantedPlan(report, practice);
    const offers = plan.bites
      .map((bite) => {
        const margins = marginsOf(report, bite.first, bite.last);
        const tempo = cleanTempo(margins, bpm, likely, OFFERED_CHANCE);
        return { bite, margins, tempo: tempo === null ? null : Math.min(tempo, FASTEST * bpm) };
      })
      .filter((offer): offer is typeof offer & { tempo: number } => offer.tempo !== null)
      .sort((a, b) => a.tempo - b.tempo)
      .slice(0, OFFERS);
    const falls = tellsMost(
      kindCeilings(report),
      ability.learnt,
      offers.map(({ margins, tempo }) => marginsAt(margins, bpm, tempo)),
      sdOf,
    );
    const most = Math.max(...falls);
    const offer = offers[falls.indexOf(most)];
    return offer ? { ...offer, narrows: 1 - Math.exp(-most), tells: most >= TELLS } : null;
  }, [ability, report, practice]);
  if (!best) return null;
  if (!best.tells)
    return (
      <p className="mt-3 text-muted" data-tells="little">
        One more try of any bite would tell little new of your hands: it narrows the range of the tune by less than 1 %.
      </p>
    );
  return (
    <p className="mt-3" data-tells="much">
      What would tell most of your hands:{' '}
      <Link to={`/tunes/${tuneId}/practice/bite-${best.bite.id}`} className="text-woad underline underline-offset-3">
        {nameOf(best.bite)} at {Math.round(best.tempo)}
      </Link>
      .{' '}
      <span className="text-muted">
        One try, clean or not, narrows the range of the tune by about {Math.max(1, Math.round(100 * best.narrows))} %.
      </span>
    </p>
  );
}

/** Stretches with their first clean day against the last. */
function FirstAgainstLast(props: {
  readonly spans: readonly SpanProgress[];
  readonly nameOf: (span: PracticeSpan) => string;
}) {
  const rows = props.spans.flatMap(({ span, days }) => {
    const clean = days.filter(({ cleanBpm }) => cleanBpm !== null);
    const [first] = clean;
    const last = clean[clean.length - 1];
    return first && last && first !== last ? [{ span, first, last }] : [];
  });
  if (rows.length === 0) return null;
  return (
    <section aria-labelledby="first-last" className="mt-5">
      <h3 id="first-last" className="text-lg">
        First day against last
      </h3>
      <SmallTable
        label="Stretches, their first and their last day"
        minWidth="28rem"
        heads={[
          'stretch',
          'first clean',
          { figures: 'at' },
          'last clean',
          { figures: 'now at' },
          { figures: 'change' },
        ]}
      >
        {rows.map(({ span, first, last }) => {
          const change = Math.round(100 * (last.cleanBpm! / first.cleanBpm! - 1));
          return (
            <tr key={keyOf(span)} className="border-t border-line">
              <td className="py-1 pr-3">{props.nameOf(span)}</td>
              <td className="pr-3 text-small text-muted">{dayWords(first.day)}</td>
              <td className="pr-3 text-right tabular-nums">{Math.round(first.cleanBpm!)}</td>
              <td className="pr-3 text-small text-muted">{dayWords(last.day)}</td>
              <td className="pr-3 text-right tabular-nums">{Math.round(last.cleanBpm!)}</td>
              <td className="pr-3 text-right tabular-nums">
                {change >= 0 ? '+' : '−'}
                {Math.abs(change)} %
              </td>
            </tr>
          );
        })}
      </SmallTable>
    </section>
  );
}
