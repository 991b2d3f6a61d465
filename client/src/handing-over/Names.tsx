import { addresses, type JobPicture } from '../api/client';
import { useOffWithout } from '../design/rights';
import { useDraft } from '../design/useDraft';
import { wantsText } from '../domain/decisions';
import { wantsTitle } from '../domain/overlay';
import { useHead, useJobStore } from '../jobs/useJob';
import { goToMissing, type TextKind } from './missingTexts';
import { t } from '../texts/texts';

/** Words for names and alternative text, picture by picture. */
export function PictureNames({ asks }: { asks: ReadonlySet<string> }) {
  const store = useJobStore();
  const head = useHead();
  const titled = head.pictures.some((one) => one.decisions.title !== '' || wantsTitle(one, head.slots));
  return (
    <section aria-label={t('handingOver.pictures')}>
      <h2>{t('handingOver.textsOfEachPicture')}</h2>
      <p className="text-ink-2">{t('handingOver.fileNamesAreMadeFromThe')}</p>
      <ul className="mt-1 border-t border-line bg-sheet">
        {head.pictures.map((one) => (
          <li
            key={one.picture.id}
            className={`grid ${titled ? 'grid-cols-[72px_minmax(120px,1fr)_minmax(160px,1.4fr)_minmax(120px,1fr)]' : 'grid-cols-[72px_minmax(140px,1fr)_minmax(180px,1.6fr)]'} items-center gap-3 border-b border-line px-3 py-1.5 max-md:grid-cols-[minmax(0,1fr)]`}
          >
            <img
              src={addresses.preview(one.picture.id, one.shown, 480)}
              alt={one.picture.name}
              title={one.picture.name}
              loading="lazy"
              className="h-9 w-full object-contain object-left"
            />
            <WordsField
              label={t('handingOver.keywordsForName', { name: one.picture.name })}
              value={one.decisions.keywords}
              hint={asks.has(one.picture.id) ? t('handingOver.whatItShows') : (one.words ?? '')}
              missing={asks.has(one.picture.id) ? 'keywords' : undefined}
              onSet={(keywords) => void store.send([{ do: 'give-words', picture: one.picture.id, keywords }])}
            />
            <WordsField
              label={t('handingOver.alternativeTextForName', { name: one.picture.name })}
              value={one.decisions.alternative}
              hint={
                one.decisions.decorative ? t('handingOver.emptyDecorative') : t('handingOver.alternativeText')
              }
              missing={wantsText(one) ? 'alternative' : undefined}
              onSet={(alternative) =>
                void store.send([{ do: 'give-words', picture: one.picture.id, alternative }])
              }
            />
            {titled && (
              <WordsField
                label={t('handingOver.titleForName', { name: one.picture.name })}
                value={one.decisions.title}
                hint={t('handingOver.title')}
                missing={wantsTitle(one, head.slots) ? 'title' : undefined}
                onSet={(title) => void store.send([{ do: 'give-words', picture: one.picture.id, title }])}
              />
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What one picture shows, for those who cannot see it; or that it is a decorative picture. */
export function AlternativeField({ picture }: { picture: JobPicture }) {
  const store = useJobStore();
  const { id, name } = picture.picture;
  const { decorative, alternative } = picture.decisions;
  const off = useOffWithout('edit');
  return (
    <div className="grid grid-cols-[1fr_auto] items-end gap-4 max-md:grid-cols-[minmax(0,1fr)]">
      <label className="block">
        <span className="text-ink-2">{t('handingOver.whatThePictureShowsForPeople')}</span>
        <WordsField
          label={t('handingOver.alternativeTextForName', { name })}
          value={alternative}
          hint={decorative ? t('handingOver.emptyDecorative') : t('handingOver.alternativeText')}
          missing={!decorative && alternative === '' ? 'alternative' : undefined}
          onSet={(text) => void store.send([{ do: 'give-words', picture: id, alternative: text }])}
        />
      </label>
      <label className="flex h-8 items-center gap-2">
        <input
          type="checkbox"
          className="h-4 w-4 accent-(--pm-accent)"
          checked={decorative}
          {...off}
          onChange={(event) =>
            void store.send([{ do: 'give-words', picture: id, decorative: event.target.checked }])
          }
        />
        {t('handingOver.decorativeEmptyAltText')}
      </label>
    </div>
  );
}

/** A line of words, taken over on Enter or when it is left; Enter goes on to the next one that is missing. */
function WordsField({
  label,
  value,
  hint,
  missing,
  onSet,
  most = 500,
}: {
  label: string;
  value: string;
  hint: string;
  /** What is missing as long as nothing stands here. */
  missing?: TextKind | undefined;
  onSet: (value: string) => void;
  most?: number;
}) {
  const { field } = useDraft(value, onSet);
  return (
    <input
      aria-label={label}
      maxLength={most}
      placeholder={hint}
      data-missing={missing}
      className={`w-full rounded-md border bg-sheet px-2 py-1 placeholder:text-ink-2 read-only:text-ink-2 ${missing ? 'border-concedes' : 'border-line'}`}
      {...field}
      onKeyDown={(event) => {
        const here = event.currentTarget;
        const written = here.value.trim() !== '';
        field.onKeyDown?.(event);
        // What was missing and is written leads to the next that is missing.
        if (event.key === 'Enter' && missing && written) goToMissing(missing, here);
      }}
    />
  );
}

/** A prefix for all, and a pattern for each destination. */
export function NameRules() {
  const store = useJobStore();
  const head = useHead();
  const destinations = [...new Map(head.slots.map((slot) => [slot.destination, slot.destinationName]))];
  return (
    <section className="border-b border-line px-5 py-3" aria-label={t('handingOver.names')}>
      <label className="block">
        <span className="text-ink-2">{t('handingOver.everyFileNameBeginsWith')}</span>
        <WordsField
          label={t('handingOver.prefix')}
          value={head.prefix}
          hint={t('handingOver.nothing')}
          most={60}
          onSet={(prefix) => void store.name({ prefix })}
        />
      </label>
      <details className="mt-2">
        <summary className="cursor-pointer text-ink-2">{t('handingOver.patternsOfFileNames')}</summary>
        <p className="mt-1 text-small text-ink-2">
          {'{picture} {slot} {destination} {density} {width} {height} {ratio} {hash}'}
        </p>
        {destinations.map(([key, name]) => (
          <label key={key} className="mt-1.5 block">
            <span>{name}</span>
            <WordsField
              label={t('handingOver.patternForName', { name })}
              value={head.patterns[key] ?? ''}
              hint={t('handingOver.asInTheSlotsRule')}
              most={200}
              onSet={(pattern) => void store.name({ patterns: { [key]: pattern } })}
            />
          </label>
        ))}
      </details>
    </section>
  );
}
