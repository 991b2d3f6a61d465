import type { ComponentProps } from 'react';
import type { UseFormReturn } from 'react-hook-form';
import type { FolderRule } from '../api/client';
import { trim } from '../design/figures';
import { t } from '../texts/texts';
import { figure } from './figure';

/** The settings as they are typed. */
export interface Draft {
  side: string;
  weight: string;
  likeness: string;
  share: string;
}

/** The settings as the server takes them. */
export function ruleOf(draft: Draft): FolderRule {
  const [side, kilobytes] = [figure(draft.side), figure(draft.weight)];
  return {
    maxSide: side === null ? null : Math.round(side),
    maxBytes: kilobytes === null ? null : Math.round(kilobytes * 1000),
    likeness: figure(draft.likeness),
    atLeast: (figure(draft.share) ?? 10) / 100,
  };
}

/** The settings of a rule, for their fields. */
export const draftOf = (rule: FolderRule): Draft => ({
  side: rule.maxSide?.toString() ?? '',
  weight: rule.maxBytes === null || rule.maxBytes === undefined ? '' : trim(rule.maxBytes / 1000, 1),
  likeness: rule.likeness?.toString() ?? '',
  share: trim((rule.atLeast ?? 0.1) * 100, 1),
});

/** How large, heavy and alike the pictures of a folder are made. */
export function FolderSettings({ form, disabled }: { form: UseFormReturn<Draft>; disabled: boolean }) {
  return (
    <form id="rule" className="border-b border-line px-5 py-4" onSubmit={(event) => event.preventDefault()}>
      <h2>{t('folders.settings')}</h2>
      <div className="mt-2 grid grid-cols-[1fr_84px_34px] items-center gap-x-2 gap-y-1.5">
        <Field
          label={t('folders.longerSideAtMost')}
          unit="px"
          placeholder={t('folders.all')}
          {...form.register('side')}
          disabled={disabled}
        />
        <Field
          label={t('folders.weightAtMost')}
          unit="kB"
          placeholder={t('folders.any')}
          {...form.register('weight')}
          disabled={disabled}
        />
        <Field
          label={t('folders.likenessAtLeast')}
          unit=""
          placeholder="0.995"
          {...form.register('likeness')}
          disabled={disabled}
        />
        <Field
          label={t('folders.replaceOnlyIfItSaves')}
          unit="%"
          {...form.register('share')}
          disabled={disabled}
        />
      </div>
      <p className="mt-2 text-ink-2">
        {t('folders.namesAndTypesStayTheSame')} {t('folders.withoutALikeness')}
      </p>
    </form>
  );
}

function Field({ label, unit, ...input }: { label: string; unit: string } & ComponentProps<'input'>) {
  return (
    <label className="contents">
      <span>{label}</span>
      <input
        {...input}
        inputMode="decimal"
        className="h-8 w-full rounded-md border border-line bg-sheet px-2 text-right hover:border-ink-2 disabled:opacity-60"
      />
      <span className="text-ink-2">{unit}</span>
    </label>
  );
}
