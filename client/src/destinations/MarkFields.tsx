import { useMutation, useQuery } from '@tanstack/react-query';
import { addresses, api, type Picture, reasonOf, Refusal, type SideFile, take } from '../api/client';
import { sideFilesQuery } from '../api/queries';
import { useAddSideFile } from '../api/useAddSideFile';
import { FileButton } from '../design/FileButton';
import { Field, TickField } from '../forms/Fields';
import { corners, isMark } from '../forms/marks';
import { RuleSelect, RuleText, Wide } from '../forms/RuleFields';
import { usePlace } from '../forms/slotForm';
import { usualLogo } from '../domain/overlay';
import { t } from '../texts/texts';

/** The logo in a corner: its forms, its corner and its measures. */
export function MarkFields() {
  const mark = usePlace('dress.mark');
  const marks = (useQuery(sideFilesQuery).data ?? []).filter(isMark);
  return (
    <>
      <Wide columns={4}>
        <TickField
          name={t('destinations.withALogo')}
          value={mark.value !== undefined}
          onSet={(on) => mark.set(on ? usualLogo(marks[0]?.name ?? 'mark.svg') : undefined)}
        />
      </Wide>
      {mark.value !== undefined && (
        <>
          <FormField name={t('destinations.logo')} place="dress.mark.file" marks={marks} />
          <FormField
            name={t('destinations.lightVersionForDarkBackgrounds')}
            place="dress.mark.onDark"
            marks={marks}
            none="none"
          />
          <AddMark />
          <RuleSelect name={t('destinations.corner')} place="dress.mark.at" options={corners} />
          <RuleText name={t('destinations.share')} place="dress.mark.share" />
          <RuleText name={t('destinations.margin')} place="dress.mark.margin" />
          <RuleText
            name={t('destinations.opacity')}
            place="dress.mark.opacity"

            placeholder="1"
          />
        </>
      )}
    </>
  );
}

function FormField({
  name,
  place,
  marks,
  none,
}: {
  name: string;
  place: string;
  marks: readonly SideFile[];
  none?: string;
}) {
  const { value, set, fault } = usePlace(place);
  const known = marks.some((one) => one.name === value);
  return (
    <Wide columns={2}>
      <Field
        name={name}
        fault={fault ?? (value && !known ? t('destinations.thisFileWasNotAddedYet') : undefined)}
      >
        <span className="flex items-center gap-1.5">
          <select
            className="h-7 w-full min-w-0 rounded-md border border-line bg-sheet px-1"
            value={String(value ?? '')}
            onChange={(event) => set(event.target.value || undefined)}
          >
            {none && <option value="">{none}</option>}
            {value !== undefined && !known && <option>{String(value)}</option>}
            {marks.map((one) => (
              <option key={one.name}>{one.name}</option>
            ))}
          </select>
          {known && (
            <img
              src={addresses.sideFile(marks.find((one) => one.name === value)!)}
              alt=""
              className={`h-7 w-10 shrink-0 object-contain ${none ? 'bg-neutral-700' : 'bg-white'}`}
            />
          )}
        </span>
      </Field>
    </Wide>
  );
}

/** Takes a mark in: a file from the disk, or a drawing or PNG of the library. */
function AddMark() {
  const library = useQuery({
    queryKey: ['pictures', 'all'],
    queryFn: ({ signal }) => take(api.GET('/api/pictures', { signal })),
  });
  const drawn = (library.data ?? []).filter((one) => /\.(svg|png)$/i.test(one.name));
  const add = useAddSideFile();
  const ofLibrary = useMutation({
    mutationFn: async (picture: Picture) => {
      const answer = await fetch(addresses.original(picture.id));
      if (!answer.ok) throw new Refusal(await reasonOf(answer));
      await add.mutateAsync({ name: picture.name, content: await answer.blob() });
    },
  });
  const fault = ofLibrary.error ?? add.error;
  return (
    <Wide columns={4}>
      <span className="flex items-center gap-1.5">
        <FileButton
          name={t('destinations.uploadALogo')}
          accept=".svg,.png"
          onFile={(file) => add.mutate({ name: file.name, content: file })}
        />
        {drawn.length > 0 && (
          <select
            aria-label={t('destinations.addALogoFromTheLibrary')}
            className="h-7 min-w-0 flex-1 rounded-md border border-line bg-sheet px-1"
            value=""
            onChange={(event) => {
              const picked = drawn.find((one) => one.id === event.target.value);
              if (picked) ofLibrary.mutate(picked);
            }}
          >
            <option value="">{t('destinations.addFromTheLibrary')}</option>
            {drawn.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </select>
        )}
      </span>
      {fault && (
        <p role="alert" className="mt-1 text-small text-breaks">
          {fault.message}
        </p>
      )}
    </Wide>
  );
}
