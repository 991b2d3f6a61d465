import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, type Frame, type Framing, take, type VariantWish } from './client';

export function usePictures() {
  return useQuery({ queryKey: ['pictures'], queryFn: () => take(api.GET('/api/pictures')) });
}

export function useDestinations() {
  return useQuery({ queryKey: ['destinations'], queryFn: () => take(api.GET('/api/destinations')) });
}

export interface Place {
  id: string;
  destination: string;
  slot: string;
}

const framingKey = (place: Place) => ['framing', place.id, place.destination, place.slot];

export function useFraming(place: Place) {
  return useQuery({
    queryKey: framingKey(place),
    queryFn: () =>
      take(api.GET('/api/pictures/{id}/framings/{destination}/{slot}', { params: { path: { ...place } } })),
  });
}

/** Sets a frame by hand, or with null goes back to the one found automatically. */
export function useSetFraming(place: Place) {
  const cache = useQueryClient();
  return useMutation({
    scope: { id: framingKey(place).join('/') },
    mutationFn: (frame: Frame | null): Promise<Framing> => {
      const params = { path: { ...place } };
      return frame
        ? take(
            api.PUT('/api/pictures/{id}/framings/{destination}/{slot}', {
              params,
              body: { frame: [...frame] },
            }),
          )
        : take(api.DELETE('/api/pictures/{id}/framings/{destination}/{slot}', { params }));
    },
    onSuccess: (framing) => {
      cache.setQueryData(framingKey(place), framing);
      void cache.invalidateQueries({ queryKey: ['variant', place.id, place.destination, place.slot] });
    },
  });
}

export function useVariant(wish: VariantWish, enabled: boolean) {
  return useQuery({
    queryKey: [
      'variant',
      wish.pictureId,
      wish.destination,
      wish.slot,
      wish.density,
      wish.format,
      wish.quality,
    ],
    queryFn: ({ signal }) => take(api.POST('/api/variants', { body: wish, signal })),
    enabled,
    placeholderData: (previous) => previous,
  });
}
