import { addresses, type JobPicture } from '../api/client';
import { wantsText } from '../domain/decisions';
import { useHead } from '../jobs/useJob';
import { t } from '../texts/texts';

/** The pictures of the job, with those that do not say what they show. */
export function PagePictures({ chosen, onChoose }: { chosen: JobPicture; onChoose: (id: string) => void }) {
  const head = useHead();
  return (
    <ul
      className="min-h-0 overflow-y-auto border-r border-line bg-sheet"
      aria-label={t('handingOver.pictures')}
    >
      {head.pictures.map((one) => (
        <li key={one.picture.id}>
          <button
            type="button"
            aria-current={one === chosen}
            className={`flex w-full items-center gap-3 border-b border-line px-3 py-1.5 text-left ${one === chosen ? 'bg-sheet-2 font-semibold' : 'hover:bg-sheet-2'}`}
            onClick={() => onChoose(one.picture.id)}
          >
            <img
              src={addresses.preview(one.picture.id, one.shown, 480)}
              alt=""
              loading="lazy"
              className="h-9 w-14 shrink-0 object-contain"
            />
            <span className="min-w-0 flex-1">
              <span className="block wrap-anywhere">{one.words ?? one.picture.name}</span>
              <span
                className={`block wrap-anywhere text-small font-normal ${wantsText(one) ? 'text-concedes' : 'text-ink-2'}`}
              >
                {one.decisions.decorative
                  ? t('handingOver.decorative')
                  : wantsText(one)
                    ? t('handingOver.noAlternativeText')
                    : one.decisions.alternative}
              </span>
            </span>
          </button>
        </li>
      ))}
    </ul>
  );
}
