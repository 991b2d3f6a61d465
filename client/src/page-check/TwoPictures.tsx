import { addresses, type PageCheck, type PageImage, type PageScreen } from '../api/client';
import { Divider, useDivider } from '../design/Divider';
import { size as sizeWords, weight } from '../design/figures';
import { typeName } from '../design/typeNames';
import { Notice } from '../design/Notice';
import { useElementSize } from '../design/useElementSize';
import { isOn } from './screens';
import { DividerLabel } from '../design/DividerLabel';
import { t } from '../texts/texts';

/** What a screen loads for a picture and what would be enough, at true pixels, with a divider between them. */
export function TwoPictures({
  check,
  image,
  screen,
  version,
}: {
  check: PageCheck;
  image: PageImage;
  screen: PageScreen;
  version: string;
}) {
  const [room, size] = useElementSize<HTMLDivElement>();
  const [share, setShare] = useDivider();
  const made = image.files.find((one) => one.screens.some(isOn(screen)));
  if (!made?.path || !image.path)
    return (
      <Notice>
        {image.natural === null
          ? t('pageCheck.thereIsNoPictureToCompare')
          : t('pageCheck.noFileWasMadeForThis')}
      </Notice>
    );
  const ratio = window.devicePixelRatio || 1;
  const [width, height] = [made.width / ratio, made.height / ratio];
  const left = size ? (size.width - width) / 2 : 0;
  const top = size ? Math.max(40, (size.height - height) / 2) : 0;
  // Of what is loaded only a part may be seen; it is drawn so that this part lies over the other picture.
  const [partLeft, partTop, partRight, partBottom] = made.part as [number, number, number, number];
  const whole = { width: width / (partRight - partLeft), height: height / (partBottom - partTop) };
  const from = Math.max(0, left);
  const to = Math.min(size?.width ?? 0, left + width);
  const divider = from + (to - from) * share;
  return (
    <div ref={room} className="relative min-h-0 overflow-hidden" data-testid="two-pictures">
      {size && (
        <>
          <div className="transparent-ground absolute" style={{ left, top, width, height }} />
          <img
            src={addresses.pageFile(check.id, made.path, version)}
            alt={t('pageCheck.enough')}
            className="absolute max-w-none"
            style={{ left, top, width, height }}
          />
          <div className="absolute inset-0" style={{ clipPath: `inset(0 ${size.width - divider}px 0 0)` }}>
            <div className="absolute overflow-hidden" style={{ left, top, width, height }}>
              <div className="transparent-ground absolute inset-0" />
              <img
                src={addresses.pageFile(check.id, image.path, version)}
                alt={t('pageCheck.loaded')}
                className="absolute max-w-none"
                style={{ ...whole, left: -partLeft * whole.width, top: -partTop * whole.height }}
              />
            </div>
          </div>
          <Divider share={share} onShare={setShare} from={from} to={to} />
          <DividerLabel
            side="left"
            text={t('pageCheck.loadedBytes', { bytes: weight(image.bytes) })}
            at={divider}
            shown={divider > 130}
          />
          <DividerLabel
            side="right"
            text={t('pageCheck.enoughBytes', { bytes: weight(made.bytes) })}
            at={size.width - divider}
            shown={size.width - divider > 130}
          />
          <FileLine made={made} />
        </>
      )}
    </div>
  );
}

/** The file that would be enough, and for which screens. */
function FileLine({ made }: { made: PageImage['files'][number] }) {
  return (
    <p className="pointer-events-none absolute inset-x-0 bottom-3 z-20 text-center">
      <span className="bg-sheet px-2 py-0.5">
        {t('pageCheck.formatOfWidthForScreens', {
          format: typeName(made.format),
          width: sizeWords(made.width, made.height),
          screens: made.screens
            .map((one) =>
              t('pageCheck.viewportPxAtDensityX', { viewport: one.viewport!, density: one.density! }),
            )
            .join(', '),
        })}
      </span>
    </p>
  );
}
