import { useRef } from 'react';
import { useLocation } from 'wouter';
import { useDestinations } from '../api/queries';
import { useShortcuts } from '../design/useShortcuts';
import { Button } from '../design/Button';
import { Notice } from '../design/Notice';
import { DestinationSheet } from './DestinationSheet';
import { RulesAsAWhole } from './RulesAsAWhole';
import { SlotEditor } from './SlotEditor';
import { type RuleBookState, useRuleBook } from './useRuleBook';
import { t } from '../texts/texts';

/** The book of rules: every slot drawn to one scale; the chosen one is edited beside them. */
export function DestinationsScreen({ destination, slot }: { destination?: string; slot?: string }) {
  const destinations = useDestinations();
  const [, go] = useLocation();
  const book = useRuleBook();
  const { fault, load, copy, rename, retire } = book;
  useShortcuts({ b: () => history.back() });
  if (destinations.isPending) return <Notice>{t('destinations.loadingTheRules')}</Notice>;
  if (destinations.isError) return <Notice>{destinations.error.message}</Notice>;
  const place = destinations.data.find((one) => one.key === destination);
  const chosen = place?.slots.find((one) => one.key === slot);
  return (
    <div className="grid h-full min-h-0 grid-cols-[minmax(0,1fr)_420px] max-md:block max-md:overflow-y-auto">
      <section className="flex min-h-0 flex-col" aria-label={t('destinations.destinations')}>
        <Head book={book} />
        {fault && (
          <p role="alert" className="mx-5 mb-3 border-l-4 border-breaks bg-sheet px-3 py-2 text-breaks">
            {fault.message}
          </p>
        )}
        {load.isSuccess && !fault && (
          <p role="status" className="mx-5 mb-3 border-l-4 border-meets bg-sheet px-3 py-2">
            {t('destinations.theRulesWereImportedSlotsWith')}
          </p>
        )}
        <div className="min-h-0 flex-1 overflow-y-auto px-5 pb-8">
          {destinations.data.map((one) => (
            <DestinationSheet
              key={one.key}
              destination={one}
              chosen={one.key === destination ? slot : undefined}
              kin={chosen?.shapeKey}
              onChoose={(key) => go(`/destinations/${one.key}/${key}`)}
              onCopy={() => copy.mutate(one.key)}
              onName={(name) => rename.mutate({ key: one.key, name })}
              onRetire={(retired) =>
                retire.mutate({ slots: one.slots.map((its) => `${one.key}/${its.key}`), retired })
              }
            />
          ))}
        </div>
      </section>
      <aside
        className="flex min-h-0 flex-col border-l border-line bg-sheet"
        aria-label={t('destinations.ruleOfTheSlot')}
      >
        {place && slot ? (
          <SlotEditor
            key={`${place.key}/${slot}`}
            destination={place}
            slotKey={slot}
            known={chosen}
            onSaved={(all, key) => {
              book.taken(all);
              if (key !== slot) go(`/destinations/${place.key}/${key}`, { replace: true });
            }}
            onRetire={(retired) => retire.mutate({ slots: [`${place.key}/${slot}`], retired })}
          />
        ) : (
          <RulesAsAWhole destinations={destinations.data} />
        )}
      </aside>
    </div>
  );
}

function Head({ book: { naming, setNaming, make, load } }: { book: RuleBookState }) {
  const file = useRef<HTMLInputElement>(null);
  return (
    <header className="flex flex-wrap items-center gap-2 px-5 pt-4 pb-3">
      <h1 className="mr-2 text-head">{t('destinations.destinations')}</h1>
      <form
        className="flex gap-1.5"
        onSubmit={(event) => {
          event.preventDefault();
          if (naming.trim()) make.mutate(naming);
        }}
      >
        <input
          aria-label={t('destinations.nameOfANewDestination')}
          placeholder={t('destinations.newDestination')}
          value={naming}
          maxLength={100}
          onChange={(event) => setNaming(event.target.value)}
          className="h-8 w-44 rounded-md border border-line bg-sheet px-2 placeholder:text-ink-2"
        />
        <Button needs="edit" type="submit" disabled={naming.trim() === ''}>
          {t('destinations.addDestination')}
        </Button>
      </form>
      <span className="flex-1" />
      <Button needs="edit" onClick={() => file.current?.click()}>
        {t('destinations.importRules')}
      </Button>
      <a
        href="/api/destinations/rules.json"
        download
        className="inline-flex h-8 items-center rounded-md border border-line bg-sheet px-3 font-medium hover:border-ink-2"
      >
        {t('destinations.exportAllRules')}
      </a>
      <input
        ref={file}
        type="file"
        hidden
        accept=".json,application/json"
        aria-label={t('destinations.chooseAFileOfRules')}
        onChange={(event) => {
          const one = event.target.files?.[0];
          if (one) load.mutate(one);
          event.target.value = '';
        }}
      />
    </header>
  );
}
