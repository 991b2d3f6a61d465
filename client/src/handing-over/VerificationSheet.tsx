import { useState } from 'react';
import { addresses, type ReceiverFile, type ShownFile } from '../api/client';
import { Divider, useDivider } from '../design/Divider';
import { weight } from '../design/figures';
import { Sheet } from '../design/Sheet';
import { useElementSize } from '../design/useElementSize';
import { useJobStore } from '../jobs/useJob';
import { DividerLabel } from '../design/DividerLabel';
import { shownWords } from './deliveries';
import { t } from '../texts/texts';

/** What a receiver was given and what it shows, at the true pixels of what it shows. */
export function VerificationSheet({
  receiver,
  file,
  at,
}: {
  receiver: string;
  file: ReceiverFile;
  at: number;
}) {
  const shown = file.shown[at]!;
  return (
    <Sheet
      title={t('handingOver.deliveredAndShown')}
      width="wide"
      trigger={
        <button type="button" className="text-accent underline underline-offset-2">
          {t('handingOver.compare')}
        </button>
      }
    >
      <p className="mt-1 text-ink-2">{shownWords(shown)}</p>
      <Both receiver={receiver} file={file} shown={shown} at={at} />
    </Sheet>
  );
}

function Both({
  receiver,
  file,
  shown,
  at,
}: {
  receiver: string;
  file: ReceiverFile;
  shown: ShownFile;
  at: number;
}) {
  const store = useJobStore();
  const [room, size] = useElementSize<HTMLDivElement>();
  const [share, setShare] = useDivider();
  const [lost, setLost] = useState(false);
  const ratio = window.devicePixelRatio || 1;
  const [width, height] = [(shown.width ?? 0) / ratio, (shown.height ?? 0) / ratio];
  const left = size ? (size.width - width) / 2 : 0;
  const top = size ? (size.height - height) / 2 : 0;
  const from = Math.max(0, left);
  const to = Math.min(size?.width ?? 0, left + width);
  const divider = from + (to - from) * share;
  const place = { left, top, width, height };
  return (
    <div
      ref={room}
      className="relative mt-3 h-[52vh] overflow-hidden bg-surround"
      data-testid="given-and-shown"
    >
      {lost ? (
        <p className="p-6" role="alert">
          {t('handingOver.theReceiverNoLongerShowsThis')}
        </p>
      ) : (
        size && (
          <>
            <img
              src={addresses.shown(store.id, receiver, file.path, at)}
              alt={t('handingOver.asShown')}
              className="absolute max-w-none"
              style={place}
              onError={() => setLost(true)}
            />
            <div className="absolute inset-0" style={{ clipPath: `inset(0 ${size.width - divider}px 0 0)` }}>
              <div className="absolute inset-0 bg-surround" />
              <img
                src={addresses.file(file.id!)}
                alt={t('handingOver.asDelivered')}
                className="absolute max-w-none"
                style={place}
              />
            </div>
            <Divider share={share} onShare={setShare} from={from} to={to} />
            <DividerLabel
              side="left"
              text={t('handingOver.deliveredBytes', { bytes: weight(file.bytes) })}
              at={divider}
              shown={divider > 130}
            />
            <DividerLabel
              side="right"
              text={t('handingOver.shownBytes', { bytes: weight(shown.bytes ?? 0) })}
              at={size.width - divider}
              shown={size.width - divider > 130}
            />
          </>
        )
      )}
    </div>
  );
}
