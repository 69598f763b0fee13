import { addDays } from 'date-fns';
import { useMemo, useState } from 'react';
import { drillsFor } from '#core/drills';
import { courseOf } from '#core/practice';
import type { TuneReport } from '#core/report';
import { counted, listed } from '#words/plural';
import { DRILL_NAMES } from '#words/tuneDrill';
import { Button } from '../ui/Button';
import { saveFile } from '../ui/saveFile';
import { Select } from '../ui/Select';

const DAYS = [3, 5, 7, 10, 14].map((value) => ({ value, name: `${value} days` }));
const MINUTES = [15, 20, 30, 45, 60].map((value) => ({ value, name: `${value} minutes a day` }));
/** When a day's practice is put into the calendar. */
const HOUR = 18;

interface CoursePlanProps {
  readonly report: TuneReport;
  /** Bites in the order in which they are learnt. */
  readonly order: readonly string[];
  readonly names: ReadonlyMap<string, string>;
}

/** The tune over some days: what is drilled, what is new and what comes again, and the same for a calendar. */
export function CoursePlan({ report, order, names }: CoursePlanProps) {
  const [days, setDays] = useState(7);
  const [minutesADay, setMinutes] = useState(20);
  const course = useMemo(() => {
    const drills = drillsFor(report).map(({ kind, stages }) => ({
      kind,
      minutes: stages.reduce((sum, stage) => sum + stage.minutes, 0),
    }));
    return courseOf({ drills, bites: order, days, minutesADay });
  }, [report, order, days, minutesADay]);
  const told = course.days.map((day) => ({
    drills: day.aspects.map(
      ({ kind, minutes, goesOn }) => `${DRILL_NAMES[kind].name}, ${minutes} min${goesOn ? ', goes on' : ''}`,
    ),
    fresh: day.fresh.map((id) => names.get(id) ?? id),
    again: day.again.map((id) => names.get(id) ?? id),
    minutes: day.minutes,
  }));
  const save = async () => {
    const { title } = report.tune;
    const events = told.map(({ drills, fresh, again, minutes }, i) => ({
      title: `Practise “${title}”, day ${i + 1}`,
      description: [
        ...(drills.length > 0 ? [`Drills: ${listed(drills)}.`] : []),
        ...(fresh.length > 0 ? [`New: ${listed(fresh)}.`] : []),
        ...(again.length > 0 ? [`Again: ${listed(again)}.`] : []),
      ].join('\n'),
      minutes,
    }));
    // What writes calendars is fetched when one is wanted.
    const { courseCalendar } = await import('./courseCalendar');
    const text = courseCalendar(events, addDays(new Date(), 1), HOUR);
    saveFile(`${title}.ics`, new Blob([text], { type: 'text/calendar' }));
  };
  const left = [
    ...course.leftDrills.map((kind) => DRILL_NAMES[kind].name),
    ...course.leftBites.map((id) => names.get(id) ?? id),
  ];
  return (
    <details className="mt-6" data-course>
      <summary className="w-fit cursor-pointer rounded-sm font-serif text-xl font-bold">A course over days</summary>
      <div className="my-2 flex flex-wrap items-center gap-3">
        <Select label="How many days" value={days} options={DAYS} onChange={setDays} />
        <Select label="Minutes a day" value={minutesADay} options={MINUTES} onChange={setMinutes} />
        <Button onClick={() => void save()} disabled={told.length === 0}>
          Save for a calendar
        </Button>
      </div>
      <table className="w-full max-w-5xl text-small">
        <thead className="text-left text-muted">
          <tr>
            <th className="font-normal">day</th>
            <th className="font-normal">drills, two at most</th>
            <th className="font-normal">new bites</th>
            <th className="font-normal">again</th>
            <th className="text-right font-normal">minutes</th>
          </tr>
        </thead>
        <tbody>
          {told.map(({ drills, fresh, again, minutes }, i) => (
            <tr key={i} className="border-t border-line align-top">
              <td className="py-1 pr-3">{i + 1}</td>
              <td className="py-1 pr-3">{drills.join('; ')}</td>
              <td className="py-1 pr-3">{fresh.join(', ')}</td>
              <td className="py-1 pr-3 text-muted">
                {again.length > 4
                  ? `${again.slice(0, 3).join(', ')} and ${counted(again.length - 3, 'more', 'more')}`
                  : again.join(', ')}
              </td>
              <td className="py-1 text-right">{minutes}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {left.length > 0 && <p className="mt-1 text-small text-muted">No room in these days for: {left.join(', ')}.</p>}
    </details>
  );
}
