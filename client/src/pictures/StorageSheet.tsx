import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, take } from '../api/client';
import type { components } from '../api/schema';
import { Button } from '../design/Button';
import { count, files, figure, moment, weight } from '../design/figures';
import { Sheet } from '../design/Sheet';
import { useDraft } from '../design/useDraft';

type StorageIntegrity = components['schemas']['IntegrityView'];

const megabyte = 1_000_000;

/** How much lies in the data folder and for what, and how much is kept of files that no job wants any more. */
export function StorageSheet() {
  return (
    <Sheet title="Storage on this machine" trigger={<Button>Storage</Button>}>
      <Storage />
    </Sheet>
  );
}

function Storage() {
  const cache = useQueryClient();
  const storage = useQuery({
    queryKey: ['storage'],
    queryFn: ({ signal }) => take(api.GET('/api/storage', { signal })),
    staleTime: 0,
  });
  const set = useMutation({
    mutationFn: (mostUnwanted: number) => take(api.PUT('/api/storage', { body: { mostUnwanted } })),
    onSuccess: (now) => cache.setQueryData(['storage'], now),
  });
  const collect = useMutation({
    mutationFn: () => take(api.POST('/api/storage/collect')),
    onSuccess: () => cache.invalidateQueries({ queryKey: ['storage'] }),
  });
  const fault = storage.error ?? set.error ?? collect.error;
  if (!storage.data) return <p className="my-4 text-ink-2">{fault?.message ?? 'Adding up.'}</p>;
  const { originals, wanted, unwanted, previews, mostUnwanted, integrity } = storage.data;
  return (
    <>
      <dl className="mt-4 grid grid-cols-[1fr_auto] border-t border-line">
        <Row name="Originals, which are never touched" bytes={originals} />
        <Row name="Files that jobs want" bytes={wanted} />
        <Row name="Small copies for the screen" bytes={previews} />
        <Row name="Files that no job wants any more" bytes={unwanted} />
      </dl>
      <p className="mt-4 text-ink-2">
        A frame moved or a rule changed leaves files behind that nothing wants. They are there at once when
        something is undone; without them it is remade.
      </p>
      <div className="mt-3 flex items-center gap-2">
        <MostField value={mostUnwanted} onSet={(bytes) => set.mutate(bytes)} />
        <span className="flex-1" />
        <Button disabled={unwanted === 0 || collect.isPending} onClick={() => collect.mutate()}>
          Clear them now
        </Button>
      </div>
      {collect.data && (
        <p className="mt-2 text-ink-2" role="status">
          {collect.data.files === 0
            ? 'Nothing was old enough: what was made in the last ten minutes stays.'
            : `${files(collect.data.files)} went, ${weight(collect.data.bytes)}.`}
        </p>
      )}
      {fault && (
        <p role="alert" className="mt-2 text-breaks">
          {fault.message}
        </p>
      )}
      <Integrity integrity={integrity} />
    </>
  );
}

/** How far the slow check of all stored files is, and which originals it found damaged. */
function Integrity({ integrity }: { integrity: StorageIntegrity }) {
  const { checked, of, finishedAt, remade, damagedOriginals } = integrity;
  return (
    <section className="mt-4 border-t border-line pt-3" aria-label="Check of the stored files">
      <h3 className="font-semibold">Check of the stored files</h3>
      <p className="mt-1 text-ink-2">
        Every stored file is read again and again, slowly, and compared with its checksum.{' '}
        {of === 0
          ? 'The first round begins a minute after the start.'
          : `${count(checked)} of ${files(of)} checked.`}
        {finishedAt !== null && ` The last round ended on ${moment(finishedAt)}.`}
        {remade > 0 && ` ${files(remade)} were damaged and are remade.`}
      </p>
      {of > 0 && checked < of && (
        <progress className="mt-2 w-full accent-accent" max={of} value={checked} aria-label="Files checked" />
      )}
      {damagedOriginals.length > 0 && (
        <div role="alert" className="mt-2 text-breaks">
          <p>
            {damagedOriginals.length === 1
              ? 'One original is'
              : `${count(damagedOriginals.length)} originals are`}{' '}
            missing or damaged. Add the same file again: that mends it.
          </p>
          <ul className="mt-1 list-inside list-disc">
            {damagedOriginals.map((name) => (
              <li key={name}>{name}</li>
            ))}
          </ul>
        </div>
      )}
    </section>
  );
}

function Row({ name, bytes }: { name: string; bytes: number }) {
  return (
    <>
      <dt className="border-b border-line py-1.5">{name}</dt>
      <dd className="border-b border-line py-1.5 text-right font-semibold">{weight(bytes)}</dd>
    </>
  );
}

function MostField({ value, onSet }: { value: number; onSet: (bytes: number) => void }) {
  const { wrong, field } = useDraft(
    String(value / megabyte),
    (text) => onSet(Math.round(figure(text) * megabyte)),
    (text) => figure(text) >= 0 && figure(text) <= 1e8,
  );
  return (
    <label className="flex items-center gap-2">
      <span>Keep at most</span>
      <input
        inputMode="numeric"
        className={`w-24 rounded-md border bg-sheet px-2 py-1 text-right ${wrong ? 'border-breaks' : 'border-line'}`}
        aria-invalid={wrong}
        title={wrong ? 'A number of megabytes from 0' : undefined}
        {...field}
      />
      <span className="text-ink-2">MB of them</span>
    </label>
  );
}
