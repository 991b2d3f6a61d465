import { useEffect, useRef } from 'react';
import type { PageImage, PageReport, PageScreen } from '../api/client';
import { typeName } from '../design/typeNames';
import { count, sentence, size, weight } from '../design/figures';
import { faultWords } from './faults';
import { isOn } from './screens';
import { t } from '../texts/texts';

/** The pictures of a page, the one that gains most first; what is wrong with the chosen one, and what to do. */
export function ImageList({
  report,
  screen,
  chosen,
  onChoose,
}: {
  report: PageReport;
  screen: PageScreen;
  chosen: number | null;
  onChoose: (image: number) => void;
}) {
  const { images, notes } = report;
  return (
    <aside
      className="flex min-h-0 flex-col overflow-y-auto border-l border-line bg-sheet"
      aria-label={t('pageCheck.pictures')}
    >
      {images.length === 0 && <p className="p-5 text-ink-2">{t('pageCheck.thePageShowsNoPicturesOn')}</p>}
      <ol>
        {images.map((image, i) => (
          <ImageLine
            key={i}
            number={i + 1}
            image={image}
            screen={screen}
            chosen={i === chosen}
            onChoose={() => onChoose(i)}
          />
        ))}
      </ol>
      {notes.length > 0 && (
        <section className="border-t border-line px-4 py-3 text-ink-2">
          <h2 className="text-ink">{t('pageCheck.notShown')}</h2>
          {notes.map((note) => (
            <p key={note} className="mt-1">
              {sentence(note)}
            </p>
          ))}
        </section>
      )}
    </aside>
  );
}

function ImageLine({
  number,
  image,
  screen,
  chosen,
  onChoose,
}: {
  number: number;
  image: PageImage;
  screen: PageScreen;
  chosen: boolean;
  onChoose: () => void;
}) {
  const line = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (chosen) line.current?.scrollIntoView({ block: 'nearest' });
  }, [chosen]);
  return (
    <li ref={line} className={`border-b border-line ${chosen ? 'bg-sheet-2' : ''}`}>
      <button
        type="button"
        onClick={onChoose}
        aria-expanded={chosen}
        className="grid w-full grid-cols-[28px_minmax(0,1fr)_auto] gap-x-2 px-4 py-2 text-left"
      >
        <span
          className={`h-[18px] text-center text-note leading-[18px] font-semibold ${chosen ? 'bg-accent text-on-accent' : 'border border-line'}`}
        >
          {number}
        </span>
        <span className="wrap-anywhere font-semibold">{image.address}</span>
        <span className="text-right whitespace-nowrap">
          {image.gain > 0 ? t('pageCheck.gainLess', { gain: weight(image.gain) }) : ''}
        </span>
        <span className="col-span-2 col-start-2 text-ink-2">
          {image.faults.length === 0
            ? t('pageCheck.noProblems')
            : [...new Set(image.faults.map((fault) => faultWords[fault.code]))].join(', ')}
        </span>
      </button>
      {chosen && <ImageDetail image={image} screen={screen} />}
    </li>
  );
}

function ImageDetail({ image, screen }: { image: PageImage; screen: PageScreen }) {
  const place = image.shown.find(isOn(screen));
  return (
    <div className="px-4 pb-3 pl-[52px]">
      <dl className="grid grid-cols-[64px_1fr] gap-x-2 text-ink-2">
        <dt>{t('pageCheck.loadedFile')}</dt>
        <dd className="text-ink">
          {image.format ? typeName(image.format) : t('pageCheck.noPicture')}
          {image.natural && `, ${size(image.natural[0]!, image.natural[1]!)}`}, {weight(image.bytes)}
        </dd>
        <dt>{t('pageCheck.shown')}</dt>
        <dd className="text-ink">
          {!place || place.css[0] === 0
            ? t('pageCheck.notOnThisScreen')
            : t('pageCheck.shownNeeds', {
                width: count(place.css[0]!),
                height: count(place.css[1]!),
                needed: size(place.needed[0]!, place.needed[1]!),
              }) +
              (place.waste >= 0.01
                ? t('pageCheck.wasteSurplusPixels', { waste: Math.floor(place.waste * 100) })
                : '')}
        </dd>
        {screen.first === image.where && place && (
          <>
            <dt>{t('pageCheck.first')}</dt>
            <dd className="text-ink">{t('pageCheck.visibleAtOnceOnThisScreen')}</dd>
          </>
        )}
        <dt>{t('pageCheck.inThePage')}</dt>
        <dd className="break-all">{image.where}</dd>
      </dl>
      {image.faults.map((fault, i) => (
        <p key={i} className="mt-2">
          {sentence(fault.message)}
        </p>
      ))}
    </div>
  );
}
