import type { InkView, PreviewView } from '../api/client';
import { Button } from '../design/Button';
import { TickField } from '../forms/Fields';
import { Colour } from './Colour';
import { t } from '../texts/texts';

/** Contrast as it is reached: cut, not rounded, as 4.497 does not reach 4.5. */
export const contrast = (ratio: number) => `${(Math.floor(ratio * 100) / 100).toFixed(2)} : 1`;

const most = 7;

/** The ink of the title: the one that needs least fade, one of those that the picture offers, or one picked from it. */
export function TextColourPart({
  ink,
  fades,
  offers,
  picking,
  onInk,
  onFades,
  onPick,
}: {
  ink: string;
  fades: boolean;
  offers: readonly InkView[];
  picking: boolean;
  onInk: (ink: string) => void;
  onFades: (fades: boolean) => void;
  onPick: () => void;
}) {
  const shown = offers.slice(0, most);
  const own = ink !== 'auto' && !shown.some((offer) => offer.ink === ink);
  return (
    <section className="mt-2" aria-label={t('overlay.textColour')}>
      <p className="flex items-end text-small text-ink-2">
        <span className="flex-1">{t('overlay.textColourWithItsContrastHere')}</span>
        <Button className="h-6! px-2!" aria-pressed={picking} onClick={onPick}>
          {picking ? t('overlay.clickOnThePicture') : t('overlay.pickFromThePicture')}
        </Button>
      </p>
      <div className="mt-1 grid grid-cols-4 gap-1" role="group" aria-label={t('overlay.textColours')}>
        <Colour hex={null} name="auto" chosen={ink === 'auto'} onTake={() => onInk('auto')} />
        {shown.map((offer) => (
          <Colour
            key={offer.ink}
            hex={offer.ink}
            name={`${offer.ratio.toFixed(1)} : 1`}
            hint={t('overlay.inkRatioWithoutAFadeWith', {
              ink: offer.ink,
              ratio: contrast(offer.ratio),
              fade: Math.round(offer.fade * 100),
              reached: offer.reached ? t('overlay.readable') : t('overlay.stillNotReadable'),
            })}
            chosen={ink === offer.ink}
            onTake={() => onInk(offer.ink)}
          />
        ))}
        {own && <Colour hex={ink} name={ink} chosen onTake={() => undefined} />}
      </div>
      <div className="mt-1.5">
        <TickField name={t('overlay.fadeThePictureAsFarAs')} value={fades} onSet={onFades} />
      </div>
    </section>
  );
}

/** What is reached, and by how much of a fade. */
export function ReachedContrast({
  dress,
  behind = false,
  outlined = false,
}: {
  dress: NonNullable<PreviewView['dress']>;
  behind?: boolean;
  /** True where the place that reaches it last is outlined beside it. */
  outlined?: boolean;
}) {
  if (dress.contrast == null && dress.fade == null) return null;
  return (
    <p className={`mt-2 border-t border-line pt-2 ${behind ? 'text-ink-2' : ''}`} data-testid="reached">
      {dress.contrast != null && (
        <>
          <b className="font-semibold">{contrast(dress.contrast)}</b> {t('overlay.atTheWorst1OfThe')}
          {dress.wanted != null && t('overlay.wantedWanted', { wanted: contrast(dress.wanted) })}
          {dress.ink && t('overlay.textColourInk', { ink: dress.ink })}.{' '}
        </>
      )}
      {dress.fade != null && t('overlay.fadeFade', { fade: Math.round(dress.fade * 100) })}{' '}
      {dress.last && outlined && (
        <span className="text-ink-2">{t('overlay.theOutlinedPlaceHasTheLowest')}</span>
      )}
    </p>
  );
}
