import { AudioLines } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useMemo, useState } from 'react';
import type { Layer } from '#core/performance';
import type { TuneReport } from '#core/report';
import type { Balance } from '#core/sound';
import { Button, SignButton } from '../ui/Button';
import { Select } from '../ui/Select';
import { type Comparison, comparisonsOf } from './comparisons';
import type { ListenSettings } from './listenSettings';
import { SoundFilesSheet } from './SoundFilesSheet';
import type { Span } from './span';
import type { Listening } from './usePlayer';

const COUNT_INS = [
  { value: 0, name: 'nothing' },
  { value: 1, name: 'one bar' },
  { value: 2, name: 'two bars' },
];

/** Percent faster each time round. */
const CLIMBS = [0, 2, 3, 4, 5, 6];

const LAYER_WORDS: readonly { readonly layer: Layer; readonly words: string; readonly level: keyof Balance | null }[] =
  [
    { layer: 'melody', words: 'melody', level: 'melody' },
    { layer: 'drones', words: 'second string', level: 'second' },
    { layer: 'bowing', words: 'bowing as planned', level: null },
    { layer: 'colour', words: 'ornaments', level: null },
    { layer: 'backing', words: 'backing: bass and chords', level: 'backing' },
    { layer: 'click', words: 'click', level: 'click' },
    { layer: 'tone', words: 'tone of the key', level: 'tone' },
  ];

const GROUPS: Readonly<Record<Comparison['group'], string>> = {
  lilt: 'Lilt',
  bowing: 'Bowing of the whole tune',
  pulse: 'Pulses',
};
const SELECT = 'rounded-md border border-line bg-surface px-2 py-1';

/** Layers and their balance, how a loop goes, and sound files. */
export function ListenMenu(props: {
  readonly listening: Listening;
  readonly report: TuneReport;
  readonly span: Span | null;
}) {
  const { listening, report, span } = props;
  const { settings, setSettings } = listening;
  const [isSaving, setSaving] = useState(false);
  const change = (more: Partial<ListenSettings>) => setSettings({ ...settings, ...more });
  const comparisons = useMemo(() => comparisonsOf(report), [report]);
  return (
    <>
      <Popover.Root>
        <Popover.Trigger asChild>
          <SignButton label="Sound and loop">
            <AudioLines size={18} aria-hidden />
          </SignButton>
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content
            sideOffset={8}
            align="start"
            collisionPadding={8}
            aria-label="Sound and loop"
            className="z-30 flex max-h-(--radix-popover-content-available-height) w-88 max-w-[94vw] flex-col gap-2.5 overflow-y-auto rounded-lg border border-line bg-surface px-4 py-3 shadow-lg"
          >
            <fieldset>
              <legend className="sr-only">Layers</legend>
              {LAYER_WORDS.map(({ layer, words, level }) => (
                <div key={layer} className="flex min-h-7 items-center gap-2">
                  <label className="flex flex-1 items-center gap-2">
                    <input
                      type="checkbox"
                      className="accent-woad"
                      checked={settings.layers.includes(layer)}
                      onChange={({ target }) =>
                        change({
                          layers: target.checked
                            ? [...settings.layers, layer]
                            : settings.layers.filter((other) => other !== layer),
                        })
                      }
                    />
                    {words}
                  </label>
                  {level && (
                    <input
                      type="range"
                      className="w-24 accent-woad disabled:opacity-40"
                      aria-label={`How loud: ${words}`}
                      min={0}
                      max={1.5}
                      step={0.05}
                      disabled={!settings.layers.includes(layer)}
                      value={settings.balance[level]}
                      aria-valuetext={`${Math.round(100 * settings.balance[level])} %`}
                      onChange={({ target }) =>
                        change({ balance: { ...settings.balance, [level]: Number(target.value) } })
                      }
                    />
                  )}
                </div>
              ))}
            </fieldset>
            <label className="flex items-center justify-between gap-3">
              count in
              <Select value={settings.countIn} options={COUNT_INS} onChange={(countIn) => change({ countIn })} />
            </label>
            <fieldset className="flex flex-col gap-1.5 border-t border-line pt-2">
              <legend className="float-left mb-1 w-full text-hint text-muted">When it loops</legend>
              <label className="flex items-center gap-2">
                <input
                  type="checkbox"
                  className="accent-woad"
                  checked={settings.answer}
                  onChange={({ target }) => change({ answer: target.checked, loop: target.checked || settings.loop })}
                />
                call and answer: a gap as long for you
              </label>
              <label className="flex items-center justify-between gap-3">
                tempo climbs each round by
                <Select
                  value={settings.climb}
                  options={CLIMBS.map((percent) => ({
                    value: percent as number,
                    name: percent === 0 ? 'nothing' : `${percent} %`,
                  }))}
                  onChange={(climb) => change({ climb, loop: climb > 0 || settings.loop })}
                />
              </label>
              <label className="flex flex-col gap-1">
                by turns with
                <select
                  className={SELECT}
                  value={settings.compare ?? ''}
                  onChange={({ target }) =>
                    change({ compare: target.value || null, loop: target.value !== '' || settings.loop })
                  }
                >
                  <option value="">nothing else</option>
                  {(Object.keys(GROUPS) as Comparison['group'][]).map((group) => {
                    const own = comparisons.filter((comparison) => comparison.group === group);
                    return (
                      own.length > 0 && (
                        <optgroup key={group} label={GROUPS[group]}>
                          {own.map(({ key, words }) => (
                            <option key={key} value={key}>
                              {words}
                            </option>
                          ))}
                        </optgroup>
                      )
                    );
                  })}
                </select>
              </label>
            </fieldset>
            <div className="border-t border-line pt-2.5">
              <Popover.Close asChild>
                <Button onClick={() => setSaving(true)}>Sound files …</Button>
              </Popover.Close>
              <p className="mt-2 max-w-72 text-hint leading-snug text-muted">
                The click is no louder than it has to be. A fiddle at the ear is: on long days take breaks, or protect
                your hearing.
              </p>
            </div>
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
      {isSaving && <SoundFilesSheet report={report} settings={settings} span={span} onClose={() => setSaving(false)} />}
    </>
  );
}
