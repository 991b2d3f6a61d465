import { addresses, type Cell, type Trial } from '../api/client';
import { Button, Key, MainLink } from '../design/Button';
import { t } from '../texts/texts';

/** The file's name, whether it is delivered, and the way to download it. */
export function FileDownload({
  cell,
  variant,
  working,
}: {
  cell: Cell | undefined;
  variant: Trial | null;
  working: boolean;
}) {
  const file = variant?.file ?? null;
  return (
    <section
      className="sticky bottom-0 mt-auto border-t border-line bg-sheet px-5 py-3"
      aria-label={t('weighing.handOver')}
    >
      {file && variant?.verdict === 'breaks' && (
        <p className="mb-2">
          {cell?.files.some((one) => one.id === file.id && one.allowed)
            ? t('weighing.theFileBreaksALimitAnd')
            : t('weighing.theFileBreaksALimitIt')}
        </p>
      )}
      {file && (
        <p className="mb-2 break-all text-ink-2" data-testid="file-name">
          {file.name}
        </p>
      )}
      {file && !working ? (
        <MainLink
          data-download
          href={addresses.download(file.id, file.name)}
          download={file.name}
          className="w-full"
        >
          {t('weighing.downloadThisFile')} <Key>D</Key>
        </MainLink>
      ) : (
        <Button kind="main" disabled className="w-full">
          {t('weighing.downloadThisFile')}
        </Button>
      )}
    </section>
  );
}
