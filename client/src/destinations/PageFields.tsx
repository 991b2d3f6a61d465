import { count } from '../design/figures';
import { TickField } from '../forms/Fields';
import { type Rule, weightText, without } from '../forms/rule';
import { RulePair, RuleText, RuleTick, Wide } from '../forms/RuleFields';
import { densitiesText, densitiesTyped } from '../forms/SizeFields';
import { usePlace, useSlotFormHere } from '../forms/slotForm';
import { t } from '../texts/texts';

/** How a page shows the slot: one file for each density, or a ladder of widths; alone, or as one of a group. */
export function PageFields() {
  const { value, set } = usePlace('responsive');
  const { form } = useSlotFormHere();
  const ladder = value !== undefined;
  const turn = (on: boolean) => {
    form.setValue('rule', without(form.getValues().rule, 'densities'), { shouldDirty: true });
    set(on ? { sizes: '100vw' } : undefined);
  };
  return (
    <>
      <Wide columns={4}>
        <TickField name={t('destinations.responsiveWidthsTheBrowserLoadsThe')} value={ladder} onSet={turn} />
      </Wide>
      {ladder && <LadderFields rule={value as Rule} />}
      <RuleText
        name={t('destinations.group')}
        place="group"

        placeholder={t('destinations.none')}
      />
      <Wide columns={3}>
        <RuleText
          name={t('destinations.shownWhenMediaQuery')}
          place="media"

          placeholder="(min-width: 60em)"
        />
      </Wide>
      <RuleText
        name={t('destinations.inlineAsDataUpTo')}
        place="inline"
        placeholder="2 kB"
        show={weightText}
      />
      <span className="col-span-3 self-end pb-1">
        <RuleTick name={t('destinations.visibleFirstLoadAtOnce')} place="first" />
      </span>
    </>
  );
}

function LadderFields({ rule }: { rule: Rule }) {
  const { check } = useSlotFormHere();
  const agreed = rule.files !== undefined;
  const widths = check?.slot?.descriptors;
  return (
    <>
      <Wide columns={4}>
        <RuleText
          name={t('destinations.displayWidthSizes')}
          place="responsive.sizes"

          placeholder="(min-width: 60em) 655px, 100vw"
          read={(text) => text || undefined}
        />
      </Wide>
      <RulePair
        name={t('destinations.viewports')}
        place="responsive.viewports"

        names={[t('destinations.windowWidthFrom'), t('destinations.toPx')]}
      />
      <RuleText
        name={t('destinations.screens')}
        place="responsive.densities"

        show={(value) => (value === undefined ? '' : densitiesText(value))}
        read={densitiesTyped}
      />
      {agreed ? (
        <RuleText name={t('destinations.numberOfFiles')} place="responsive.files" />
      ) : (
        <RuleText
          name={t('destinations.surplusPixelsAtMost')}
          place="responsive.waste"

          placeholder="0.5"
        />
      )}
      <Wide columns={4}>
        <AgreedFiles agreed={agreed} />
      </Wide>
      {widths && check?.slot?.responsive && (
        <p className="col-span-4 text-ink-2" data-testid="ladder-widths">
          {t('destinations.filesWidthsPxWide', {
            count: widths.length,
            widths: widths.map((width) => count(Number(width.slice(0, -1)))).join(', '),
          })}
        </p>
      )}
    </>
  );
}

/** Either a waste or a number of files is agreed, never both. */
function AgreedFiles({ agreed }: { agreed: boolean }) {
  const { value, set } = usePlace('responsive');
  const rest = without((value as Rule | undefined) ?? {}, 'waste', 'files');
  return (
    <TickField
      name={t('destinations.setTheNumberOfFilesInstead')}
      value={agreed}
      onSet={(on) => set(on ? { ...rest, files: 4 } : rest)}
    />
  );
}
