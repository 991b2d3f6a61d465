import { useMutation, useQueryClient } from '@tanstack/react-query';
import { addresses, api, take } from '../api/client';
import { useRemoved } from '../api/queries';
import { Button } from '../design/Button';
import { Sheet } from '../design/Sheet';
import { day } from '../texts/numbers';
import { t } from '../texts/texts';

/** Pictures that were removed and can still be restored. */
export function RemovedPictures() {
  const cache = useQueryClient();
  const removed = useRemoved();
  const restore = useMutation({
    mutationFn: (id: string) => take(api.POST('/api/pictures/{id}/restore', { params: { path: { id } } })),
    onSettled: () => void cache.invalidateQueries({ queryKey: ['pictures'] }),
  });
  if (!removed.data || removed.data.length === 0) return null;
  return (
    <Sheet
      title={t('pictures.removedPictures')}
      trigger={<Button>{t('pictures.removedData', { data: removed.data.length })}</Button>}
    >
      <ul className="mt-4 border-t border-line">
        {removed.data.map(({ picture, until }) => (
          <li key={picture.id} className="flex items-center gap-3 border-b border-line py-2">
            <img
              src={addresses.preview(picture.id, picture.shown, 480)}
              alt=""
              className="h-10 w-16 object-contain object-left"
            />
            <span className="min-w-0 flex-1">
              <span className="block wrap-anywhere">{picture.name}</span>
              <span className="block text-ink-2">{t('pictures.deletedOn', { day: day(until) })}</span>
            </span>
            <Button needs="edit" onClick={() => restore.mutate(picture.id)}>
              {t('pictures.restoreOriginal')}
            </Button>
          </li>
        ))}
      </ul>
    </Sheet>
  );
}
