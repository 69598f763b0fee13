import { SELECT } from './Field';

/** One of the choices: a value that names itself, or one with its name. */
export type Option<T> = (T & string) | { readonly value: T; readonly name: string };

interface SelectProps<T> {
  /** Said of it where no label stands beside it. */
  readonly label?: string;
  readonly value: T;
  readonly options: readonly Option<T>[];
  readonly onChange: (value: T) => void;
  readonly id?: string;
  /** By which a form finds it. */
  readonly name?: string;
  readonly className?: string;
  readonly disabled?: boolean;
}

type Choosable = string | number | null | undefined;

const isNamed = <T,>(option: Option<T>): option is { readonly value: T; readonly name: string } =>
  typeof option === 'object' && option !== null;

/** One of a few values, which come back as they were given and not as text. */
export function Select<T extends Choosable>(props: SelectProps<T>) {
  const { label, value, options, onChange, className = SELECT, ...more } = props;
  const choices = options.map((option) => (isNamed(option) ? option : { value: option as T, name: String(option) }));
  return (
    <select
      aria-label={label}
      className={className}
      value={String(value ?? '')}
      onChange={({ target }) => onChange(choices[target.selectedIndex]!.value)}
      {...more}
    >
      {choices.map((choice) => (
        <option key={String(choice.value ?? '')} value={String(choice.value ?? '')}>
          {choice.name}
        </option>
      ))}
    </select>
  );
}
