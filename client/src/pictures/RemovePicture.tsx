import { useQuery } from '@tanstack/react-query';
import { api, type Picture, take } from '../api/client';
import { Button } from '../design/Button';

/** Asks before a picture is removed, and says where it is live: its pages go on to show it unless it is withdrawn with it. */
export function RemovePicture({
  picture,
  onRemove,
  onKeep,
}: {
  picture: Picture;
  onRemove: (withdraw: boolean) => void;
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
      <p>It leaves the library and every job. It can be restored for 30 days.</p>
      {live.error && (
        <p role="alert" className="mt-2 text-breaks">
          {live.error.message}
        </p>
      )}
      {addresses.length > 0 && (
        <>
          <p className="mt-2">
            It is live at {addresses.length} {addresses.length === 1 ? 'address' : 'addresses'}. Pages that
            use
            {addresses.length === 1 ? ' it' : ' them'} go on to show the picture until it is withdrawn:
          </p>
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
        {addresses.length > 0 && <Button onClick={() => onRemove(true)}>Remove and withdraw</Button>}
        <Button disabled={!live.data && !live.error} onClick={() => onRemove(false)}>
          {addresses.length > 0 ? 'Remove, keep live' : 'Remove it'}
        </Button>
        <Button onClick={onKeep}>Keep it</Button>
      </div>
    </>
  );
}
