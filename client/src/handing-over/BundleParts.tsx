import { Link } from 'wouter';
import { type HandOverFile, type JobPicture } from '../api/client';
import { Button } from '../design/Button';
import { sentence, weight } from '../design/figures';
import { VerdictMark } from '../design/VerdictMark';
import { useHead, useJobStore } from '../jobs/useJob';
import { t } from '../texts/texts';

/** Pictures that have only a camera's number: asked once, for all. */
export function Asks({ pictures }: { pictures: readonly JobPicture[] }) {
  const store = useJobStore();
  const head = useHead();
  return (
    <section
      className="mb-5 border-l-4 border-concedes bg-sheet px-4 py-3"
      aria-label={t('handingOver.keywordsAreMissing')}
    >
      <h2>{t('handingOver.picturesHaveOnlyACamerasNumber', { count: pictures.length })}</h2>
      <p className="mt-0.5 text-ink-2">
        {t('handingOver.enterKeywordsBelowOrNumberThe', { name: head.name, name2: head.name })}
      </p>
      <Button needs="edit" kind="main" className="mt-2" onClick={() => void store.name({ numbered: true })}>
        {t('handingOver.numberThemUnderTheJobsName')}
      </Button>
    </section>
  );
}

export function NotGoing({
  title,
  files,
  pictures,
  act,
}: {
  title: string;
  files: readonly HandOverFile[];
  pictures: ReadonlyMap<string, JobPicture>;
  act?: (file: HandOverFile) => void;
}) {
  const store = useJobStore();
  const head = useHead();
  if (files.length === 0) return null;
  const slots = new Map(head.slots.map((slot) => [slot.address, slot]));
  return (
    <section className="mb-5" aria-label={title}>
      <h2>{title}</h2>
      <ul className="mt-1 border-t border-line bg-sheet">
        {files.slice(0, 200).map((file) => {
          const picture = pictures.get(file.picture);
          return (
            <li
              key={`${file.picture}${file.slot}${file.id}${file.descriptor}`}
              className="flex items-center gap-3 border-b border-line px-3 py-1.5 max-md:flex-wrap"
            >
              <VerdictMark verdict={file.verdict} />
              <span className="w-56 shrink-0 wrap-anywhere max-md:w-auto max-md:flex-1">
                <Link
                  href={`/job/${store.id}/framing/${file.picture}?slot=${file.slot}`}
                  className="text-accent underline underline-offset-2"
                >
                  {picture?.words ?? picture?.picture.name}
                </Link>
                , {slots.get(file.slot)?.slot.name} {file.descriptor}
              </span>
              <span className="min-w-0 flex-1 max-md:basis-full">
                {file.reasons
                  .filter((reason) => reason.code !== 'suggested')
                  .map((reason) => sentence(reason.message))
                  .join(' ')}
              </span>
              {act && <Button onClick={() => act(file)}>{t('handingOver.allowAnyway')}</Button>}
            </li>
          );
        })}
      </ul>
      {files.length > 200 && (
        <p className="mt-1 text-ink-2">
          {t('handingOver.andFilesMoreTheReportLists', { files: files.length - 200 })}
        </p>
      )}
    </section>
  );
}

/** Where a file lies in the bundle, or will lie once it is made. */
const pathOf = (file: HandOverFile) => file.path ?? file.expectedPath!;

/** The bundle as it will lie on a disk: a folder for each destination, files that are still to be made as well. */
export function Folders({ files }: { files: readonly HandOverFile[] }) {
  const going = files.filter((file) => file.state === 'goes' || file.expectedPath != null);
  const byFolder = Map.groupBy(going, (file) => pathOf(file).split('/')[0]!);
  if (byFolder.size === 0) return null;
  return (
    <section className="mb-5" aria-label={t('handingOver.folders')}>
      <h2>{t('handingOver.folders')}</h2>
      <div className="mt-1 border-t border-line bg-sheet">
        {[...byFolder].map(([folder, mine], i) => (
          <details key={folder} open={i === 0 || going.length <= 60} className="border-b border-line">
            <summary className="flex cursor-pointer flex-wrap items-center gap-x-4 px-3 py-1.5 hover:bg-sheet-2">
              <span className="w-64 shrink-0 wrap-anywhere font-medium">{folder}/</span>
              <span className="w-20 text-ink-2">{t('common.files', { count: mine.length })}</span>
              <span className="text-ink-2">
                {weight(mine.reduce((sum, file) => sum + (file.bytes ?? 0), 0))}
              </span>
            </summary>
            <ul className="px-3 pb-2">
              {mine.map((file) => (
                <li
                  key={pathOf(file)}
                  className={`flex flex-wrap gap-x-4 py-0.5 pl-4 ${file.path ? '' : 'text-ink-2'}`}
                >
                  <span className="min-w-0 flex-1 wrap-anywhere">
                    {pathOf(file).slice(folder.length + 1)}
                  </span>
                  <span className="w-28 text-right text-ink-2">
                    {file.width} × {file.height}
                  </span>
                  <span className="w-20 text-right text-ink-2">
                    {file.bytes == null ? t('handingOver.toBeMade') : weight(file.bytes)}
                  </span>
                </li>
              ))}
            </ul>
          </details>
        ))}
      </div>
    </section>
  );
}
