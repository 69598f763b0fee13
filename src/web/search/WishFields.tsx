import type { StyleWishes } from '#core/search';

interface WishFieldsProps {
  readonly wishes: StyleWishes;
  readonly onWishes: (wishes: StyleWishes) => void;
}

const SLIDERS = [
  { name: 'shuffle', label: 'One way of bowing', low: 'freely', high: 'throughout' },
  { name: 'smooth', label: 'Smoothness', low: 'single strokes', high: 'long slurs' },
  { name: 'likeness', label: 'As it is now', low: 'start afresh', high: 'keep as much as possible' },
] as const;

/** What is wanted of a bowing. */
export function WishFields({ wishes, onWishes }: WishFieldsProps) {
  return (
    <fieldset className="grid gap-x-6 gap-y-1 @lg:grid-cols-3 @lg:gap-y-2">
      <legend className="sr-only">What you want</legend>
      {SLIDERS.map(({ name, label, low, high }, i) => (
        <label
          key={name}
          className="flex items-center gap-x-3 @lg:flex-col @lg:items-stretch"
          title={`from ${low} to ${high}`}
        >
          <span className="w-34 font-bold @lg:w-auto">{label}</span>
          <input
            type="range"
            min={0}
            max={1}
            step={0.1}
            value={wishes[name]}
            data-autofocus={i === 0 || undefined}
            aria-valuetext={`${Math.round(wishes[name] * 100)} %, from ${low} to ${high}`}
            onChange={({ target }) => onWishes({ ...wishes, [name]: Number(target.value) })}
            className="h-6 min-w-0 flex-1 accent-woad @lg:flex-none"
          />
          <span className="hidden justify-between text-fine text-muted @lg:flex" aria-hidden>
            <span>{low}</span>
            <span>{high}</span>
          </span>
        </label>
      ))}
      <Tick
        label="bars begin on a down-bow"
        isOn={wishes.downbeat === 'down'}
        onTick={(on) => onWishes({ ...wishes, downbeat: on ? 'down' : 'free' })}
      />
      <Tick
        label="slurs may run over the beat"
        isOn={wishes.acrossBeat === 'free'}
        onTick={(on) => onWishes({ ...wishes, acrossBeat: on ? 'free' : 'avoid' })}
      />
      <Tick
        label="slurs may cross strings"
        isOn={wishes.slurAcrossStrings}
        onTick={(on) => onWishes({ ...wishes, slurAcrossStrings: on })}
      />
    </fieldset>
  );
}

function Tick(props: { readonly label: string; readonly isOn: boolean; readonly onTick: (on: boolean) => void }) {
  return (
    <label className="flex items-center gap-1.5">
      <input
        type="checkbox"
        className="accent-woad"
        checked={props.isOn}
        onChange={({ target }) => props.onTick(target.checked)}
      />
      {props.label}
    </label>
  );
}
