import { Trash2 } from 'lucide-react';
import { use, useState } from 'react';
import { Link } from 'react-router';
import type { TuneVersion, VersionOrigin } from '#contract/versions';
import { tuneDifference } from '#core/difference';
import type { Tune } from '#core/tune';
import { momentWords } from '#words/days';
import { failureWords } from '#words/failure';
import { originWords } from '#words/origin';
import type { Failure } from '../api/answer';
import {
  useChangeVersionMutation,
  useNameVersionMutation,
  useRemoveVersionMutation,
  useVersionsQuery,
} from '../api/versionsApi';
import type { SheetProps } from '../openTune/sheetProps';
import { usePreview } from '../openTune/usePreview';
import { Alert } from '../ui/Alert';
import { Button, SignButton } from '../ui/Button';
import { INPUT } from '../ui/Field';
import { NotRead } from '../ui/PageState';
import { Sheet } from '../ui/Sheet';
import { SheetPlace } from '../ui/SheetPlace';
import { Differences } from './Differences';
import { OriginFields } from './OriginFields';
import { RevisionsList } from './RevisionsList';

/** Versions under names of their own: what is different now, and the way back. */
export function VersionsSheet({
  id,
  tune,
  onApply,
  onPreview,
  onHear,
  onClose,
}: Pick<SheetProps, 'id' | 'tune' | 'onApply' | 'onPreview' | 'onHear' | 'onClose'>) {
  const restore = (next: Tune, name: string) => onApply(next, `back to “${name}”`);
  const { data: versions, error, isLoading, refetch } = useVersionsQuery(id);
  const [nameVersion, { isLoading: isNaming, error: namingError }] = useNameVersionMutation();
  const [removeVersion] = useRemoveVersionMutation();
  const [name, setName] = useState('');
  const [origin, setOrigin] = useState(PLAIN_ORIGIN);
  const [hasOrigin, setHasOrigin] = useState(false);
  const [hasEdits, setHasEdits] = useState(false);
  const [removed, setRemoved] = useState<TuneVersion | null>(null);
  /** The version that the score shows in place of the plan. */
  const [shownId, setShown] = useState<string | null>(null);
  const shown = versions?.find((version) => version.id === shownId)?.tune ?? null;
  usePreview(onPreview, shown ?? tune, shown !== null);
  const keep = async (wanted: string, kept: Tune, from: VersionOrigin) => {
    const answer = await nameVersion({ id, name: wanted, tune: kept, ...from });
    if (!answer.data) return;
    setName('');
    setOrigin(PLAIN_ORIGIN);
    setHasOrigin(false);
  };
  return (
    <Sheet
      open
      onOpenChange={onClose}
      title="Named versions"
      description="Every edit is saved anyway; a name makes a version easy to find."
    >
      <div className="flex flex-col gap-4">
        <form
          className="flex flex-wrap items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            if (name.trim() !== '') void keep(name.trim(), tune, origin);
          }}
        >
          <label className="flex min-w-0 flex-1 flex-col gap-1">
            <span className="font-bold">Save the tune as it is now, under a name</span>
            <input
              data-autofocus
              value={name}
              maxLength={120}
              placeholder="plain, for the Saturday class"
              onChange={({ target }) => setName(target.value)}
              className={INPUT}
            />
          </label>
          <Button look="main" type="submit" disabled={name.trim() === '' || isNaming}>
            {isNaming ? 'Saving …' : 'Save it'}
          </Button>
          <div className="w-full">
            <Button look="link" aria-expanded={hasOrigin} onClick={() => setHasOrigin(!hasOrigin)}>
              where it is from
            </Button>
            {hasOrigin && <OriginFields origin={origin} onChange={setOrigin} />}
          </div>
        </form>
        {versions && versions.length > 0 && (
          <Link to={`/tunes/${id}/settings`} className="text-woad underline">
            Compare them beat by beat
          </Link>
        )}
        {namingError !== undefined && <Alert>Not saved. {failureWords(namingError as Failure)}</Alert>}
        {isLoading && <p className="text-muted">Looking for versions …</p>}
        {error !== undefined && (
          <NotRead
            words={`The versions cannot be shown. ${failureWords(error as Failure)}`}
            onRetry={() => void refetch()}
          />
        )}
        {removed && (
          <p role="status" className="flex flex-wrap items-center gap-2">
            “{removed.name}” is deleted.
            <Button
              look="link"
              onClick={() => {
                void keep(removed.name, removed.tune, originOf(removed));
                setRemoved(null);
              }}
            >
              restore it
            </Button>
          </p>
        )}
        {versions?.length === 0 && <p className="text-muted">No version has a name yet.</p>}
        <ul className="flex flex-col gap-3" aria-label="Versions">
          {versions?.map((version) => (
            <VersionRow
              key={version.id}
              id={id}
              version={version}
              tune={tune}
              isShown={version.id === shownId}
              onShow={() => setShown(version.id === shownId ? null : version.id)}
              onHear={onHear}
              onRestore={() => {
                setShown(null);
                restore(version.tune, version.name);
              }}
              onRemove={() => {
                setRemoved(version);
                void removeVersion({ id, versionId: version.id });
              }}
            />
          ))}
        </ul>
        <Button look="link" className="self-start" aria-expanded={hasEdits} onClick={() => setHasEdits(!hasEdits)}>
          {hasEdits ? 'hide' : 'show'} how it was after earlier edits
        </Button>
        {hasEdits && <RevisionsList id={id} tune={tune} onRestore={restore} />}
      </div>
    </Sheet>
  );
}

/** What a version is where nothing is said. */
const PLAIN_ORIGIN: VersionOrigin = { kind: 'plan', taughtBy: '', learnedOn: null, note: '' };

function VersionRow(props: {
  readonly id: string;
  readonly version: TuneVersion;
  readonly tune: Tune;
  readonly isShown: boolean;
  readonly onShow: () => void;
  readonly onHear: SheetProps['onHear'];
  readonly onRestore: () => void;
  readonly onRemove: () => void;
}) {
  const { id, version, tune, isShown, onShow, onHear, onRestore, onRemove } = props;
  const isBeside = use(SheetPlace) === 'panel';
  const [changed, setChanged] = useState<VersionOrigin | null>(null);
  const [changeVersion, { isLoading: isChanging, error }] = useChangeVersionMutation();
  const keepOrigin = async () => {
    if (!changed) return;
    const answer = await changeVersion({
      id,
      versionId: version.id,
      change: { ...originOf(changed), name: version.name, baseRevision: version.revision },
    });
    if (answer.data) setChanged(null);
  };
  const differences = tuneDifference(version.tune, tune);
  return (
    <li className="border-t border-line pt-2">
      <div className="flex flex-wrap items-baseline gap-x-3">
        <b className="font-serif text-lead">{version.name}</b>
        <span className="text-hint text-muted">{momentWords(version.createdAt)}</span>
        <span className="ml-auto flex items-center gap-1">
          <Button onClick={onRestore} disabled={differences.length === 0}>
            Go back to it
          </Button>
          <SignButton label={`Delete “${version.name}”`} onClick={onRemove}>
            <Trash2 size={16} aria-hidden />
          </SignButton>
        </span>
      </div>
      <p className="text-small text-muted">
        {originWords(version)}{' '}
        <Button look="link" className="text-small" onClick={() => setChanged(changed ? null : version)}>
          {changed ? 'cancel' : 'edit'}
        </Button>
      </p>
      {changed && (
        <div className="my-2 flex flex-col gap-2 rounded-md border border-line bg-paper px-3 py-2">
          <OriginFields origin={changed} onChange={setChanged} />
          <span>
            <Button disabled={isChanging} onClick={() => void keepOrigin()}>
              Save where it is from
            </Button>
          </span>
          {error !== undefined && <Alert>Not saved. {failureWords(error as Failure)}</Alert>}
        </div>
      )}
      {isBeside && differences.length > 0 && (
        <div className="my-1 flex flex-wrap items-center gap-1.5">
          <Button look="small" aria-pressed={isShown} onClick={onShow}>
            {isShown ? 'back to the plan' : 'show it in the score'}
            <span className="sr-only">: {version.name}</span>
          </Button>
          <span className="text-small text-muted">hear</span>
          <Button look="small" onClick={() => onHear(version.tune)}>
            this version
          </Button>
          <Button look="small" onClick={() => onHear(null)}>
            the plan
          </Button>
          <Button look="small" onClick={() => onHear(version.tune, true)}>
            both by turns
          </Button>
        </div>
      )}
      <Differences differences={differences} />
    </li>
  );
}

/** Only what a version says of its origin, of all that it holds. */
function originOf({ kind, taughtBy, learnedOn, note }: VersionOrigin): VersionOrigin {
  return { kind, taughtBy, learnedOn, note };
}
