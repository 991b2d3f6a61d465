import { Link } from 'wouter';
import { addresses, type ReceiverDelivery, type ReceiverFile, type ShownFile } from '../api/client';
import { sentence, size, weight } from '../design/figures';
import { useHead, useJobStore } from '../jobs/useJob';
import { shownWords, standings } from './deliveries';
import { VerificationSheet } from './VerificationSheet';
import { SurvivalSheet } from './Survival';
import { t } from '../texts/texts';

const most = 200;

/** The files that go to a receiver, those that are to review first, with what it said and what it shows. */
export function DeliveredFiles({ delivery }: { delivery: ReceiverDelivery }) {
  const byStanding = Map.groupBy(delivery.files, (file) => file.standing);
  return (
    <div className="min-h-0 overflow-y-auto px-5 py-4">
      {delivery.files.length === 0 && (
        <p className="text-ink-2">
          {t('handingOver.thisJobHasNoFilesFor', { name: delivery.receiver.rule.name })}
        </p>
      )}
      {standings.map(([standing, title]) => {
        const files = byStanding.get(standing);
        return (
          files && (
            <section key={standing} className="mb-5" aria-label={title}>
              <h2>
                {title} <span className="font-normal text-ink-2">{files.length}</span>
              </h2>
              <ul className="mt-1 border-t border-line bg-sheet">
                {[...Map.groupBy(files.slice(0, most), (file) => file.picture)].map(([picture, mine]) => (
                  <OfPicture key={picture} delivery={delivery} files={mine} />
                ))}
              </ul>
              {files.length > most && (
                <p className="mt-1 text-ink-2">
                  {t('handingOver.andFilesMore', { files: files.length - most })}
                </p>
              )}
            </section>
          )
        );
      })}
    </div>
  );
}

/** The files of one picture: its name once, a line for each place. */
function OfPicture({ delivery, files }: { delivery: ReceiverDelivery; files: readonly ReceiverFile[] }) {
  const head = useHead();
  const picture = head.pictures.find((one) => one.picture.id === files[0]!.picture);
  return (
    <li className="grid grid-cols-[150px_minmax(0,1fr)] gap-3 max-md:grid-cols-[minmax(0,1fr)] border-b border-line px-3 py-2">
      <p className="font-semibold wrap-anywhere">
        {picture ? (picture.words ?? picture.picture.name) : files[0]!.path}
      </p>
      <ul className="grid gap-2">
        {files.map((file) => (
          <SentLine key={file.path} delivery={delivery} file={file} known={picture !== undefined} />
        ))}
      </ul>
    </li>
  );
}

function SentLine({
  delivery,
  file,
  known,
}: {
  delivery: ReceiverDelivery;
  file: ReceiverFile;
  /** True while its picture is in the job. */
  known: boolean;
}) {
  const store = useJobStore();
  const head = useHead();
  const slot = head.slots.find((one) => one.address === file.slot);
  const tries = delivery.receiver.rule.trialAddress !== null && file.shown.some((one) => !one.isSame);
  const name = slot ? `${slot.slot.name} ${file.descriptor ?? ''}` : (file.slot ?? file.path);
  return (
    <li className="flex gap-3">
      <span className="h-10 w-14 shrink-0">
        {file.id && (
          <img
            src={addresses.small(file.id)}
            alt=""
            loading="lazy"
            className="h-full w-full object-contain"
          />
        )}
      </span>
      <div className="w-52 shrink-0">
        <p className="wrap-anywhere">
          {slot && known ? (
            <Link
              href={`/job/${store.id}/framing/${file.picture}?slot=${file.slot}`}
              className="text-accent underline underline-offset-2"
            >
              {name}
            </Link>
          ) : (
            name
          )}
        </p>
        <p className="text-ink-2">
          {file.width !== null && file.height !== null && `${size(file.width, file.height)}, `}
          {weight(file.bytes)}
        </p>
      </div>
      <div className="min-w-0 flex-1">
        {file.said.map((one) => (
          <p key={one} className={file.standing === 'accepted' ? 'text-ink-2' : 'text-breaks'}>
            {sentence(one)}
          </p>
        ))}
        {file.shown.map((one, at) => (
          <Shown key={one.address} receiver={delivery.receiver.id} file={file} shown={one} at={at} />
        ))}
      </div>
      {tries && (
        <div className="shrink-0">
          <SurvivalSheet receiver={delivery.receiver} file={file} />
        </div>
      )}
    </li>
  );
}

function Shown({
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
  const poor = shown.trouble !== null || shown.likenessWord === 'rough' || shown.likenessWord === 'visible';
  const canLook = file.id !== null && !shown.isSame && shown.width !== null;
  return (
    <p className={poor && !shown.isSame ? 'text-ink' : 'text-ink-2'}>
      {shownWords(shown)} {canLook && <VerificationSheet receiver={receiver} file={file} at={at} />}
    </p>
  );
}
