import { useQuery } from '@tanstack/react-query';
import { api, type Picture, take } from '../api/client';
import { Button } from '../design/Button';
import { t } from '../texts/texts';

/** Asks before a picture is removed, and says where it is live: its pages go on to show it unless it is unpublished with it. */
export function RemovePicture({
  picture,
  onRemove,
  onKeep,
}: {
  picture: Picture;
  onRemove: (unpublish: boolean) => void;
  onKeep: () => void;
}) {
  const live = useQuery({
    queryKey: ['pictures', picture.id, 'live-addresses'],
    queryFn: ({ signal }) =>
      take(api.GET('/api/pictures/{id}/live-addresses', { signal, params: { path: { id: picture.id } } })),
    staleTime: 0,
  });
  const addresses = live.data ?? [];
  return (
    <>
      <p>{t('pictures.thePictureIsRemovedFromThe')}</p>
      {live.error && (
        <p role="alert" className="mt-2 text-breaks">
          {live.error.message}
        </p>
      )}
      {addresses.length > 0 && (
        <>
          <p className="mt-2">{t('pictures.thePictureIsLiveAtAddresses', { count: addresses.length })}</p>
          <ul className="mt-1 max-h-24 overflow-y-auto text-ink-2">
            {addresses.map((address) => (
              <li key={address} className="break-all">
                {address}
              </li>
            ))}
          </ul>
        </>
      )}
      <div className="mt-2 flex flex-wrap gap-2">
        {addresses.length > 0 && (
          <Button onClick={() => onRemove(true)}>{t('pictures.removeAndUnpublish')}</Button>
        )}
        <Button disabled={!live.data && !live.error} onClick={() => onRemove(false)}>
          {addresses.length > 0 ? t('pictures.removeKeepLive') : t('pictures.remove')}
        </Button>
        <Button onClick={onKeep}>{t('pictures.cancel')}</Button>
      </div>
    </>
  );
}
