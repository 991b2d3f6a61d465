import { useQuery } from '@tanstack/react-query';
import { sideFilesQuery } from '../api/queries';
import { SelectField, TickField } from '../forms/Fields';
import { corners, isMark } from '../forms/marks';
import { type MarkRule, usualLogo } from '../domain/overlay';
import { usual } from '../domain/ruleKeys';
import { t } from '../texts/texts';

/** The logo over this picture: whether it is there, and in which corner. Its forms and measures are the rule's. */
export function LogoPart({
  mark,
  onMark,
}: {
  mark: MarkRule | undefined;
  onMark: (mark: MarkRule | undefined) => void;
}) {
  const marks = (useQuery(sideFilesQuery).data ?? []).filter(isMark);
  if (!mark && marks.length === 0) return null;
  return (
    <section
      className="mt-2 grid grid-cols-2 items-end gap-2 border-t border-line pt-2"
      aria-label={t('overlay.logo')}
    >
      <span className="pb-1">
        <TickField
          name={t('overlay.withALogo')}
          value={mark !== undefined}
          onSet={(on) => onMark(on ? usualLogo(marks[0]!.name) : undefined)}
        />
      </span>
      {mark && (
        <SelectField
          name={t('overlay.cornerThatCoversNothingImportant')}
          value={mark.at ?? usual('dress.mark.at')}
          options={corners}
          onSet={(at) => onMark({ ...mark, at })}
        />
      )}
    </section>
  );
}
