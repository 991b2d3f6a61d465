import { SelectField, TextField } from './Fields';
import { formOf, type Rule, sizeForms, sizeWords, typed } from './rule';
import { RuleSelect, RuleText, Wide } from './RuleFields';
import { usePlace } from './slotForm';
import { t } from '../texts/texts';

/** How large the file is, how the picture lies in it, and for which screens. */
export function SizeFields() {
  return (
    <>
      <SizeForm />
      <Wide columns={2}>
        <RuleSelect
          name={t('destinations.fit')}
          place="fit"
          options={[
            ['crop', t('destinations.cropToFill')],
            ['whole', t('destinations.showWholeWithoutMargins')],
            ['mat', t('destinations.showWholeBackgroundFilled')],
          ]}
        />
      </Wide>
      <Wide columns={4}>
        <RuleSelect
          name={t('destinations.ifThePictureIsTooSmall')}
          place="whenTooSmall"
          options={[
            ['cap', t('destinations.deliverTheLargestTrueSize')],
            ['skip', 'skip'],
            ['break', t('destinations.refuse')],
          ]}
        />
      </Wide>
      <Densities />
    </>
  );
}

/** The densities of the files; on a ladder they are those of the screens, and stand with it. */
function Densities() {
  const { value } = usePlace('responsive');
  return value === undefined ? (
    <RuleText
      name={t('destinations.densities')}
      place="densities"
      hint="1, 2"
      show={densitiesText}
      read={densitiesTyped}
    />
  ) : null;
}

function SizeForm() {
  const { value, set, fault } = usePlace('size');
  const size = (value as Rule | undefined) ?? {};
  const form = formOf(size);
  const inBox = sizeForms[form]!.keys[0] === 'within';
  const [figures, put] = inBox
    ? [(size.within as Rule | undefined) ?? {}, (next: Rule) => set({ within: next })]
    : [size, set];
  return (
    <>
      <Wide columns={2}>
        <SelectField
          name={t('destinations.sizeGivenAs')}
          value={String(form)}
          options={sizeForms.map((one, i) => [String(i), one.name] as const)}
          onSet={(next) => set(sizeForms[Number(next)]!.first)}
          fault={fault}
        />
      </Wide>
      {(inBox ? ['width', 'height'] : sizeForms[form]!.keys).map((key) => (
        <TextField
          key={key}
          name={sizeWords[key]!}
          unit={/width|height|Side/.test(key) ? 'px' : undefined}
          value={String(figures[key] ?? '')}
          onSet={(text) =>
            put({ ...figures, [key]: key === 'ratio' && text.includes(':') ? text : typed(text) })
          }
        />
      ))}
    </>
  );
}

export function densitiesText(value: unknown): string {
  const list = (value as unknown[] | undefined) ?? [];
  return list.length > 0 ? list.join(', ') : '1';
}

/** An empty last figure stays: another one is about to be typed. */
export function densitiesTyped(text: string): unknown {
  if (text.trim() === '1') return undefined;
  return text
    .split(/[,;]\s*|\s+/)
    .filter((one, i, all) => one !== '' || i === all.length - 1)
    .map((one) => typed(one) ?? '');
}
