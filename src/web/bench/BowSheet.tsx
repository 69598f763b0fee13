import { useState } from 'react';
import { CartesianGrid, Line, LineChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { TuneReport } from '#core/report';
import type { Schools } from '#core/schools';
import {
  bowSchedule,
  bowSpeed,
  fadeTo,
  PULSE_PEAK,
  pulseDecibels,
  pulseLength,
  pulseSpeed,
  REFERENCE_CONTACT,
  toneOf,
  toneWindow,
} from '#core/travel';
import { beatWords } from '#words/tempo';
import type { SheetProps } from '../openTune/sheetProps';
import { Sheet } from '../ui/Sheet';
import { strokeToTell, type ToldStroke } from './strokeToTell';

const SCHOOL_NAMES: Record<Schools['bowAmount'], string> = {
  'short-strokes': 'short strokes from the first day',
  'whole-bow': 'the whole bow first',
};
/** A fade ends at this share of the speed it began with. */
const FADE_SHARE = 1 / 3;
const ORDINARY_WEIGHT = 0.6;

/** How much bow at which tempo, whether speed, weight and contact go together, and what a pulse is. */
export default function BowSheet(props: Pick<SheetProps, 'report' | 'states' | 'ids' | 'where' | 'onClose'>) {
  const { report, states, ids, where, onClose } = props;
  const stroke = strokeToTell(report, states.get(ids[0] ?? ''), where);
  if (!stroke) return null;
  return (
    <Sheet open onOpenChange={onClose} title="Bow amount and tone" description={stroke.words} wide>
      <div className="grid gap-x-8 gap-y-6 @2xl:grid-cols-2">
        <Schedule report={report} stroke={stroke} />
        <Tone report={report} stroke={stroke} />
        <PulseCurves pulse={report.settings.schools.pulse} />
      </div>
    </Sheet>
  );
}

function Schedule({ report, stroke }: { readonly report: TuneReport; readonly stroke: ToldStroke }) {
  const { settings, tune } = report;
  const schools = ['short-strokes', 'whole-bow'] as const;
  const rungs = schools.map((school) =>
    bowSchedule(school, {
      seconds: stroke.seconds,
      danceBpm: settings.bpm,
      speed: bowSpeed(tune.danceType),
      hairCm: settings.instrument.hairCm,
    }),
  );
  return (
    <section aria-labelledby="schedule">
      <h3 id="schedule" className="mb-1 font-serif text-lead font-bold">
        From practice to dance tempo
      </h3>
      <table className="w-full text-small tabular-nums">
        <thead>
          <tr className="text-left text-muted">
            <th className="pr-2 font-normal">{beatWords(settings.beat)} a minute</th>
            {schools.map((school) => (
              <th
                key={school}
                className={`pr-2 align-bottom ${school === settings.schools.bowAmount ? 'font-bold text-ink' : 'font-normal'}`}
              >
                {SCHOOL_NAMES[school]}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rungs[0]!.map(({ bpm }, i) => (
            <tr key={bpm} className="border-t border-line">
              <th scope="row" className="py-0.5 text-left font-normal">
                {Math.round(bpm)}
              </th>
              {rungs.map((list, k) => (
                <td key={schools[k]} className={schools[k] === settings.schools.bowAmount ? 'font-bold' : 'text-muted'}>
                  {list[i]!.cm.toFixed(0)} cm at {list[i]!.speed.toFixed(0)} cm/s
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Tone({ report, stroke }: { readonly report: TuneReport; readonly stroke: ToldStroke }) {
  const { stringLengthMm } = report.settings.instrument;
  const [contact, setContact] = useState(REFERENCE_CONTACT);
  const [weight, setWeight] = useState(ORDINARY_WEIGHT);
  const speed = stroke.seconds > 0 ? stroke.cm / stroke.seconds : 0;
  const { min, max } = toneWindow(speed, contact);
  const tone = toneOf(speed, contact, weight);
  const fade = fadeTo(speed, speed * FADE_SHARE, contact, weight);
  const mm = (share: number) => `${Math.round(share * stringLengthMm)} mm from the bridge`;
  const verdict = {
    clean: 'They go together: the string speaks.',
    scratch: 'Too much weight for this speed: it scratches.',
    whistle: 'Too little weight: the string does not speak, it whistles.',
  }[tone];
  return (
    <section aria-labelledby="tone">
      <h3 id="tone" className="mb-1 font-serif text-lead font-bold">
        Speed, weight and contact
      </h3>
      <p className="text-small text-muted">Drawn at {speed.toFixed(0)} cm a second.</p>
      <label className="mt-1 flex items-center gap-3">
        <span className="w-16">weight</span>
        <input
          type="range"
          min={0.02}
          max={2}
          step={0.02}
          value={weight}
          aria-valuetext={`${weight.toFixed(2)} newtons`}
          onChange={({ target }) => setWeight(Number(target.value))}
          className="h-6 flex-1 accent-woad"
        />
        <span className="w-40 text-small text-muted tabular-nums">{weight.toFixed(2)} N</span>
      </label>
      <label className="flex items-center gap-3">
        <span className="w-16">contact</span>
        <input
          type="range"
          min={0.02}
          max={0.2}
          step={0.002}
          value={contact}
          aria-valuetext={mm(contact)}
          onChange={({ target }) => setContact(Number(target.value))}
          className="h-6 flex-1 accent-woad"
        />
        <span className="w-40 text-small text-muted">{mm(contact)}</span>
      </label>
      <p
        className={`mt-1 font-bold ${tone === 'clean' ? 'text-lichen-ink' : 'text-madder'}`}
        aria-live="polite"
        data-tone={tone}
      >
        {verdict}
      </p>
      <p className="text-small text-muted">
        {min < max
          ? `${min.toFixed(2)} to ${max.toFixed(2)} N fit here.`
          : 'So near the bridge no weight fits: go out, or draw quicker.'}
      </p>
      <p className="mt-1 text-small">
        A fade to a third of the speed: lighter, and out toward the fingerboard, to {fade.weight.toFixed(2)} N at{' '}
        {mm(fade.contact)}, where {fade.window.min.toFixed(2)} to {fade.window.max.toFixed(2)} N fit.
      </p>
    </section>
  );
}

const CURVE = Array.from({ length: 41 }, (_, i) => ({ share: i * 2.5, swell: pulseSpeed(i / 40), even: 1 }));

function PulseCurves({ pulse }: Pick<Schools, 'pulse'>) {
  const bySpeed = pulse === 'speed';
  const words = `${bySpeed ? 'speed' : 'weight'} swells to ${PULSE_PEAK} times and comes back, ${bySpeed ? 'weight' : 'speed'} stays even`;
  return (
    <section aria-labelledby="pulse" className="@2xl:col-span-2">
      <h3 id="pulse" className="mb-1 font-serif text-lead font-bold">
        A pulse by {bySpeed ? 'speed' : 'weight'}
      </h3>
      <p className="text-small text-muted">
        +{pulseDecibels().toFixed(1)} dB in the middle of the note;{' '}
        {bySpeed ? `it takes ${pulseLength().toFixed(2)} times its hair.` : 'it takes no more hair.'} The way back is
        part of it.
      </p>
      <div role="img" aria-label={words} className="h-36">
        <ResponsiveContainer>
          <LineChart data={CURVE} margin={{ top: 6, right: 8, bottom: 0, left: -18 }} accessibilityLayer={false}>
            <CartesianGrid stroke="var(--line)" vertical={false} />
            <XAxis
              dataKey="share"
              type="number"
              domain={[0, 100]}
              unit=" %"
              tick={{ fill: 'var(--muted)', fontSize: 12 }}
              stroke="var(--soft)"
            />
            <YAxis
              domain={[0.8, 1.8]}
              ticks={[1, 1.25, 1.5, 1.75]}
              tick={{ fill: 'var(--muted)', fontSize: 12 }}
              stroke="var(--soft)"
            />
            <Line dataKey="swell" stroke="var(--woad)" strokeWidth={2} dot={false} isAnimationActive={false} />
            <Line
              dataKey="even"
              stroke="var(--walnut)"
              strokeDasharray="5 4"
              strokeWidth={1.5}
              dot={false}
              isAnimationActive={false}
            />
          </LineChart>
        </ResponsiveContainer>
      </div>
      <p className="text-hint text-muted">
        <span className="text-woad">—</span> {bySpeed ? 'speed' : 'weight'}, <span className="text-walnut">- -</span>{' '}
        {bySpeed ? 'weight' : 'speed'}, against even playing, over the length of the note
      </p>
    </section>
  );
}
