import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'wouter';
import { api, type PageElement, take } from '../api/client';
import { useDestinations } from '../api/queries';
import { Button } from '../design/Button';
import { count } from '../design/figures';
import { t } from '../texts/texts';

const densities = [1, 1.5, 2];

/** The width that was measured becomes a slot. */
export function RulerPanel({ element, viewport }: { element: PageElement | null; viewport: number }) {
  if (!element)
    return (
      <aside className="border-l border-line bg-sheet p-5 text-ink-2" aria-label={t('pageCheck.ruler')}>
        <h2 className="text-ink">{t('pageCheck.ruler')}</h2>
        <p className="mt-1">{t('pageCheck.clickAnyPartOfThePage')}</p>
      </aside>
    );
  return <SlotOf key={`${element.where} ${element.inner}`} element={element} viewport={viewport} />;
}

function SlotOf({ element, viewport }: { element: PageElement; viewport: number }) {
  const width = Math.max(1, Math.round(element.inner));
  const cache = useQueryClient();
  const known = useDestinations();
  const [destination, setDestination] = useState<string | null>(null);
  const [name, setName] = useState<string>(t('pageCheck.columnOfWidth', { width }));
  const [chosen, setChosen] = useState<readonly number[]>([1, 2]);
  const into = destination ?? known.data?.[0]?.key;
  const key = keyOf(name);
  const make = useMutation({
    mutationFn: () =>
      take(
        api.PUT('/api/destinations/{destination}/slots/{slot}', {
          params: { path: { destination: into!, slot: key } },
          body: { rule: { key, name, size: { width }, densities: chosen }, pattern: null },
        }),
      ),
    onSuccess: () => void cache.invalidateQueries({ queryKey: ['destinations'] }),
  });
  const taken = known.data?.find((one) => one.key === into)?.slots.some((slot) => slot.key === key);
  const field = 'h-8 rounded-md border border-line bg-sheet px-2 hover:border-ink-2';
  return (
    <aside className="overflow-y-auto border-l border-line bg-sheet p-5" aria-label={t('pageCheck.ruler')}>
      <h2>{t('pageCheck.widthPxWide', { width: count(width) })}</h2>
      <p className="text-ink-2">
        {t('pageCheck.onAScreenOfViewportPx', { viewport: count(viewport) })}
        <br />
        <span className="break-all">{element.where}</span>
      </p>
      <form
        className="mt-4 flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          make.mutate();
        }}
      >
        <label className="flex flex-col gap-1">
          {t('pageCheck.slot')}
          <input className={field} value={name} onChange={(event) => setName(event.target.value)} />
        </label>
        <label className="flex flex-col gap-1">
          {t('pageCheck.destination')}
          <select
            className={field}
            value={into ?? ''}
            onChange={(event) => setDestination(event.target.value)}
          >
            {known.data?.map((one) => (
              <option key={one.key} value={one.key}>
                {one.name}
              </option>
            ))}
          </select>
        </label>
        <Densities width={width} chosen={chosen} onChoose={setChosen} />
        <Button
          kind="main"
          type="submit"
          disabled={
            make.isPending || !into || key === '' || chosen.length === 0 || (taken && !make.isSuccess)
          }
        >
          {t('pageCheck.addAsASlot')}
        </Button>
        <Answer
          taken={taken === true}
          failed={make.error}
          done={make.isSuccess ? `/destinations/${into}/${key}` : null}
          name={name}
        />
      </form>
    </aside>
  );
}

function Answer({
  taken,
  failed,
  done,
  name,
}: {
  /** True where the destination has a slot of this key. */
  taken: boolean;
  failed: Error | null;
  /** The way to the slot once it is there. */
  done: string | null;
  name: string;
}) {
  if (done)
    return (
      <p role="status">
        <Link href={done} className="text-accent underline">
          {name}
        </Link>{' '}
        {t('pageCheck.wasAddedAsASlot')}
      </p>
    );
  return (
    <>
      {taken && <p>{t('pageCheck.thisDestinationAlreadyHasASlot')}</p>}
      {failed && (
        <p role="alert" className="text-breaks">
          {failed.message}
        </p>
      )}
    </>
  );
}

function Densities({
  width,
  chosen,
  onChoose,
}: {
  width: number;
  chosen: readonly number[];
  onChoose: (chosen: readonly number[]) => void;
}) {
  return (
    <fieldset className="flex gap-4">
      <legend className="mb-1">{t('pageCheck.screens')}</legend>
      {densities.map((density) => (
        <label key={density} className="flex items-center gap-1.5">
          <input
            type="checkbox"
            checked={chosen.includes(density)}
            onChange={() => onChoose(densities.filter((one) => (one === density) !== chosen.includes(one)))}
          />
          {t('pageCheck.densityXWidthPx', { density, width: count(width * density) })}
        </label>
      ))}
    </fieldset>
  );
}

/** A key as slots have it: small letters, figures and hyphens. */
const keyOf = (name: string) =>
  name
    .toLowerCase()
    .normalize('NFD')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 50);
