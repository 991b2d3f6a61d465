import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, type FileType, type Picture, take } from '../api/client';
import { Button } from '../design/Button';
import { typedNumber } from '../design/figures';
import { typeNames } from '../design/typeNames';
import { t } from '../texts/texts';

const types = ['jpeg', 'png', 'webp', 'avif'] as const satisfies readonly FileType[];
const box = 'h-7 w-full rounded-md border border-line bg-sheet px-2';

/** Makes a newer original of a picture's own: upright, smaller, of another type, with a filled background. */
export function FixOriginal({ picture }: { picture: Picture }) {
  const cache = useQueryClient();
  const [side, setSide] = useState('');
  const [type, setType] = useState<FileType | ''>('');
  const [background, setBackground] = useState('');
  const put = useMutation({
    mutationFn: () =>
      take(
        api.POST('/api/pictures/{id}/fix', {
          params: { path: { id: picture.id } },
          body: {
            maxSide: side.trim() === '' ? null : Math.round(typedNumber(side)),
            type: type === '' ? null : type,
            background: background.trim() === '' ? null : background.trim(),
          },
        }),
      ),
    onSettled: () => void cache.invalidateQueries({ queryKey: ['pictures'] }),
  });
  const wrong = side.trim() !== '' && !(typedNumber(side) >= 1);
  return (
    <details className="mt-4 border-t border-line pt-3">
      <summary className="cursor-pointer font-medium">{t('pictures.fixTheOriginal')}</summary>
      <form
        className="mt-2 grid grid-cols-2 gap-x-3 gap-y-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (!wrong) put.mutate();
        }}
      >
        <label className="block">
          <span className="block text-ink-2">{t('pictures.longestSidePx')}</span>
          <input
            className={box}
            value={side}
            placeholder={t('pictures.asItIs')}
            aria-invalid={wrong}
            onChange={(event) => setSide(event.target.value)}
          />
        </label>
        <TypeField type={type} onChoose={setType} />
        {picture.hasAlpha && (
          <label className="col-span-2 block">
            <span className="block text-ink-2">{t('pictures.backgroundForTransparentParts')}</span>
            <input
              className={box}
              value={background}
              placeholder={t('pictures.noneOrAColourLikeFfffff')}
              onChange={(event) => setBackground(event.target.value)}
            />
          </label>
        )}
        <p className="col-span-2 text-ink-2">{t('pictures.thePictureIsTurnedUprightAnd')}</p>
        {put.isError && (
          <p role="alert" className="col-span-2 text-breaks">
            {put.error.message}
          </p>
        )}
        <Button
          needs="edit"
          type="submit"
          disabled={put.isPending || wrong}
          className="col-span-2 justify-self-start"
        >
          {put.isPending ? t('pictures.makingTheNewOriginal') : t('pictures.makeANewerOriginal')}
        </Button>
      </form>
    </details>
  );
}

function TypeField({ type, onChoose }: { type: FileType | ''; onChoose: (type: FileType | '') => void }) {
  return (
    <label className="block">
      <span className="block text-ink-2">{t('pictures.type')}</span>
      <select
        className={box}
        value={type}
        onChange={(event) => onChoose(event.target.value as FileType | '')}
      >
        <option value="">{t('pictures.asItIs')}</option>
        {types.map((one) => (
          <option key={one} value={one}>
            {typeNames[one]}
          </option>
        ))}
      </select>
    </label>
  );
}
