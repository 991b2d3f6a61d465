import { count } from '../design/figures';
import { TickField } from './Fields';
import { type Rule, weightText, without } from './rule';
import { RulePair, RuleText, RuleTick, Wide } from './RuleFields';
import { densitiesText, densitiesTyped } from './SizeFields';
import { usePlace, useSlotFormHere } from './slotForm';

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
        <TickField
          name="Responsive widths, from which the browser takes by its window and screen"
          value={ladder}
          onSet={turn}
        />
      </Wide>
      {ladder && <LadderFields rule={value as Rule} />}
      <RuleText
        name="Group"
        place="group"
        hint="Slots of one group are one picture on the page"
        placeholder="none"
      />
      <Wide columns={3}>
        <RuleText
          name="Shown when"
          place="media"
          hint="Each slot of a group but the last says when it is the one that is shown"
          placeholder="(min-width: 60em)"
        />
      </Wide>
      <RuleText name="As data up to" place="inline" placeholder="2 kB" show={weightText} />
      <span className="col-span-3 self-end pb-1">
        <RuleTick name="The page begins with it: loaded first" place="first" />
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
          name="How wide it is shown (sizes)"
          place="responsive.sizes"
          hint="As it stands in the page's markup: conditions with a width each, the last without a condition"
          placeholder="(min-width: 60em) 655px, 100vw"
          read={(text) => text || undefined}
        />
      </Wide>
      <RulePair
        name="Viewports"
        place="responsive.viewports"
        placeholders={['320', '1920']}
        names={['Windows from', 'to, px']}
      />
      <RuleText
        name="Screens"
        place="responsive.densities"
        hint="Their densities: 1, 2, 3"
        placeholder="1, 2, 3"
        show={(value) => (value === undefined ? '' : densitiesText(value))}
        read={densitiesTyped}
      />
      {agreed ? (
        <RuleText name="Number of files" place="responsive.files" />
      ) : (
        <RuleText
          name="Surplus pixels at most"
          place="responsive.waste"
          hint="A share of the pixels, 0 to 1"
          placeholder="0.5"
        />
      )}
      <Wide columns={4}>
        <AgreedFiles agreed={agreed} />
      </Wide>
      {widths && check?.slot?.responsive && (
        <p className="col-span-4 text-ink-2" data-testid="ladder-widths">
          {widths.length} {widths.length === 1 ? 'file' : 'files'}:{' '}
          {widths.map((width) => count(Number(width.slice(0, -1)))).join(', ')} px wide
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
      name="Agree on a number of files instead of surplus pixels"
      value={agreed}
      onSet={(on) => set(on ? { ...rest, files: 4 } : rest)}
    />
  );
}
