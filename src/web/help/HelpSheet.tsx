import { roomHelp } from '#words/help';
import { TERMS } from '#words/terms';
import { Sheet } from '../ui/Sheet';

/** Words that are explained: those that are only another form of one are left out. */
const EXPLAINED = Object.entries(TERMS).filter(([name]) => name !== 'flip');

/** What this room is for, its keys, and the words used in it. */
export function HelpSheet({ path, onClose }: { readonly path: string; readonly onClose: () => void }) {
  const { title, about, keys } = roomHelp(path);
  return (
    <Sheet open onOpenChange={onClose} title={title} wide>
      {/* Focusable, so that the keys scroll it. */}
      <div tabIndex={0} data-autofocus className="grid gap-x-8 gap-y-4 @2xl:grid-cols-2">
        <div>
          {about.map((line) => (
            <p key={line} className="mb-2">
              {line}
            </p>
          ))}
          <dl className="mt-3 grid grid-cols-[5.5rem_1fr] gap-x-4 gap-y-1">
            {keys.map(([combination, does]) => (
              <div key={combination} className="contents">
                <dt className="font-bold whitespace-nowrap">{combination}</dt>
                <dd>{does}</dd>
              </div>
            ))}
          </dl>
        </div>
        <section aria-labelledby="help-words">
          <h3 id="help-words" className="mb-1 text-lead">
            Words
          </h3>
          <dl>
            {EXPLAINED.map(([name, explained]) => (
              <div key={name} className="border-t border-line py-1">
                <dt className="inline font-bold">{name}: </dt>
                <dd className="inline text-small">{explained}</dd>
              </div>
            ))}
          </dl>
        </section>
      </div>
    </Sheet>
  );
}
