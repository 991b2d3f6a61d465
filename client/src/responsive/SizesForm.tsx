import { TextField, TickField } from '../forms/Fields';
import { type Rule, typed, without } from '../forms/rule';
import { densitiesText, densitiesTyped } from '../forms/SizeFields';
import { t } from '../texts/texts';

/** How wide the page shows the picture, and how closely the files follow; tried at once, set when asked. */
export function SizesForm({
  rule,
  onSet,
  fault,
}: {
  rule: Rule;
  onSet: (rule: Rule) => void;
  fault: string | null;
}) {
  const put = (key: string, value: unknown) => {
    const next = { ...rule, [key]: value };
    if (value === undefined) delete next[key];
    onSet(next);
  };
  const agreed = rule.files !== undefined;
  const span = (rule.viewports as unknown[] | undefined) ?? [320, 1920];
  const rest = without(rule, 'waste', 'files');
  return (
    <section
      className="grid grid-cols-4 gap-x-2.5 gap-y-1.5 border-b border-line px-5 py-3"
      aria-label={t('responsive.sizes')}
    >
      <label className="col-span-4 block">
        <span className="block text-small text-ink-2">{t('responsive.displayWidthSizes')}</span>
        <textarea
          className={`h-12 w-full resize-none rounded-md border bg-sheet px-2 py-1 ${fault ? 'border-breaks' : 'border-line'}`}
          value={String(rule.sizes ?? '')}
          aria-invalid={fault !== null}
          spellCheck={false}
          onChange={(event) => put('sizes', event.target.value)}
        />
      </label>
      {fault && (
        <p role="alert" className="col-span-4 text-small text-breaks">
          {fault}
        </p>
      )}
      {[0, 1].map((i) => (
        <TextField
          key={i}
          name={i === 0 ? t('responsive.fromPx') : t('responsive.toPx')}
          value={String(span[i] ?? '')}
          onSet={(text) =>
            put(
              'viewports',
              [0, 1].map((at) => (at === i ? (typed(text) ?? '') : span[at])),
            )
          }
        />
      ))}
      <TextField
        name={t('responsive.screens')}
        hint={t('responsive.pixelDensitiesForExample12')}
        value={rule.densities === undefined ? '1, 2, 3' : densitiesText(rule.densities)}
        onSet={(text) => put('densities', densitiesTyped(text) ?? [1])}
      />
      {agreed ? (
        <TextField
          name={t('responsive.files')}
          value={String(rule.files ?? '')}
          onSet={(text) => put('files', typed(text) ?? '')}
        />
      ) : (
        <TextField
          name={t('responsive.surplusPixels')}
          hint={t('responsive.theShareOfPixelsThatMay')}
          value={String(rule.waste ?? 0.5)}
          onSet={(text) => put('waste', typed(text) ?? '')}
        />
      )}
      <span className="col-span-4">
        <TickField
          name={t('responsive.setTheNumberOfFilesInstead')}
          value={agreed}
          onSet={(on) => onSet(on ? { ...rest, files: 4 } : rest)}
        />
      </span>
    </section>
  );
}
