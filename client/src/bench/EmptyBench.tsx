import { Button, Key } from '../design/Button';
import { useHead, useJobStore } from '../jobs/useJob';
import { useLibraryPage } from '../api/queries';
import { addresses } from '../api/client';
import { t } from '../texts/texts';

/** A job that has no pictures or no slots yet: two steps, in any order. */
export function EmptyBench({ onChoose }: { onChoose: () => void }) {
  const head = useHead();
  const store = useJobStore();
  const library = useLibraryPage('', 0);
  const there = new Set(head.pictures.map((one) => one.picture.id));
  const others = (library.data?.pictures ?? []).filter((one) => !there.has(one.id));
  return (
    <div className="grid min-w-0 flex-1 grid-cols-[minmax(0,1fr)] place-items-center overflow-y-auto p-8 max-md:flex-none max-md:overflow-visible max-md:p-5">
      <div className="w-full max-w-xl">
        <h2 className="text-title">
          {head.pictures.length === 0
            ? t('bench.dropPicturesHere')
            : t('bench.picturesAreHereChooseWhereThey', { count: head.pictures.length })}
        </h2>
        <p className="mt-2 text-ink-2">
          {head.pictures.length === 0
            ? t('bench.dropThemAnywhereOnThisPage')
            : t('bench.tickSlotsOnTheRightEvery')}
        </p>
        {head.pictures.length === 0 ? (
          <>
            <Button needs="edit" kind="main" className="mt-5" onClick={onChoose}>
              {t('bench.addPictures')} <Key>R</Key>
            </Button>
            {others.length > 0 && (
              <section className="mt-8" aria-label={t('bench.fromTheLibrary')}>
                <div className="flex flex-wrap items-center justify-between gap-2">
                  <h3 className="text-ink-2">{t('bench.orChooseFromTheLibrary')}</h3>
                  <Button needs="edit" onClick={() => void store.addPictures(others.map((one) => one.id))}>
                    {library.data!.total > library.data!.pictures.length
                      ? t('bench.addTheNewestOthers', { others: others.length })
                      : t('bench.addAllOthers', { others: others.length })}
                  </Button>
                </div>
                <ul className="mt-2 flex flex-wrap gap-2">
                  {others.slice(0, 40).map((picture) => (
                    <li key={picture.id}>
                      <button
                        type="button"
                        title={picture.name}
                        aria-label={t('bench.addName', { name: picture.name })}
                        onClick={() => void store.addPictures([picture.id])}
                      >
                        <img
                          src={addresses.preview(picture.id, picture.shown, 480)}
                          alt=""
                          loading="lazy"
                          className="h-16 w-auto"
                        />
                      </button>
                    </li>
                  ))}
                </ul>
              </section>
            )}
          </>
        ) : (
          <ul className="mt-6 flex flex-wrap gap-2" aria-label={t('bench.picturesOfTheJob')}>
            {head.pictures.slice(0, 60).map((one) => (
              <li key={one.picture.id}>
                <img
                  src={addresses.preview(one.picture.id, one.shown, 480)}
                  alt={one.picture.name}
                  className="h-16 w-auto"
                />
              </li>
            ))}
          </ul>
        )}
      </div>
    </div>
  );
}
