import type { ReactNode } from 'react';
import { addresses, type Picture } from '../api/client';
import { megapixels, printed, size, weight } from '../design/figures';
import { t } from '../texts/texts';

const turns: Record<number, string> = {
  2: t('pictures.storedMirroredShownCorrectly'),
  3: t('pictures.storedUpsideDownShownUpright'),
  4: t('pictures.storedUpsideDownAndMirroredShown'),
  5: t('pictures.storedRotatedAndMirroredShownUpright'),
  6: t('pictures.storedRotatedShownUpright'),
  7: t('pictures.storedRotatedAndMirroredShownUpright'),
  8: t('pictures.storedRotatedShownUpright'),
};

/** What the file says about itself, in words that do not mislead. */
export function PictureFacts({ picture }: { picture: Picture }) {
  return (
    <section className="border-b border-line px-5 pt-4 pb-4" aria-label={t('pictures.details')}>
      <h2 className="wrap-anywhere text-head" title={picture.name}>
        {picture.name}
      </h2>
      <p className="mt-0.5 text-ink-2">
        {size(picture.width, picture.height)}, {weight(picture.bytes)}, {picture.formatLabel}
      </p>
      <dl className="mt-3 grid grid-cols-[96px_1fr] gap-x-3 gap-y-1.5">
        <Fact term={t('pictures.pixels')}>{megapixels(picture.width, picture.height)}</Fact>
        {picture.kind && (
          <Fact term={t('pictures.content')}>
            {picture.kind === 'photograph' ? t('pictures.photograph') : t('pictures.flatGraphic')}
            {picture.needsLight && (
              <span className="block text-ink-2">{t('pictures.hasMuchFineBrightDetailResized')}</span>
            )}
          </Fact>
        )}
        {picture.jpegQuality != null && (
          <Fact term={t('pictures.quality')}>
            {t('pictures.aboutJpegQuality', { jpegQuality: picture.jpegQuality })}
            <span className="block text-ink-2">{t('pictures.readFromTheJPEGTablesFiles')}</span>
          </Fact>
        )}
        <Fact term={t('pictures.colours')}>
          {t('pictures.coloursBitsBitProfile', {
            colours: picture.colours,
            bits: picture.bits,
            profile: picture.profile ? `, ${picture.profile}` : t('pictures.noProfileTreatedAsSRGB'),
          })}
        </Fact>
        <Fact term={t('pictures.transparency')}>
          {picture.hasAlpha ? t('pictures.yes') : t('pictures.none')}
        </Fact>
        {turns[picture.orientation] && <Fact term={t('pictures.turned')}>{turns[picture.orientation]}</Fact>}
        {picture.frames > 1 && (
          <Fact term={t('pictures.frames')}>
            {t('pictures.framesTheFirstOneIsUsed', { frames: picture.frames })}
          </Fact>
        )}
        <Fact term={t('pictures.resolutionTagPpi')}>
          {picture.ppi == null ? (
            t('pictures.none')
          ) : (
            <>
              {t('pictures.ppiPpi', { ppi: picture.ppi })}
              <span className="block text-ink-2">
                {t('pictures.forPrintOnlyWidthHeightCm', {
                  width: printed(picture.width, picture.ppi),
                  height: printed(picture.height, picture.ppi),
                })}
              </span>
            </>
          )}
        </Fact>
        {picture.hasLocation && (
          <Fact term={t('pictures.location')}>{t('pictures.theFileContainsTheLocationWhere')}</Fact>
        )}
        {picture.misnamed && (
          <Fact term={t('pictures.name')}>
            {t('pictures.theFileExtensionIsWrongThe', { formatLabel: picture.formatLabel })}
          </Fact>
        )}
      </dl>
      <a
        className="mt-3 inline-block text-accent underline underline-offset-2"
        href={addresses.original(picture.id)}
        download={picture.name}
      >
        {t('pictures.downloadTheOriginal')}
      </a>
    </section>
  );
}

function Fact({ term, children }: { term: string; children: ReactNode }) {
  return (
    <>
      <dt className="text-ink-2">{term}</dt>
      <dd className="break-words">{children}</dd>
    </>
  );
}
