import { addresses, type RewrittenPage } from '../api/client';
import { Key } from '../design/Button';
import { Choice } from '../design/Choice';
import { Divider, useDivider } from '../design/Divider';
import { count } from '../design/figures';
import { useElementSize } from '../design/useElementSize';
import { DividerLabel } from '../design/DividerLabel';
import { t } from '../texts/texts';

/** What is looked at: the page before and after with a divider, or where both differ. */
export type Seen = 'both' | 'difference';

type Side = 'before' | 'after' | 'difference';

const margin = 20;

/** The page as it was and as it is on a screen, one over the other. */
export function RewriteStage({
  job,
  page,
  viewport,
  onViewport,
  seen,
  onSeen,
  version,
}: {
  job: string;
  page: RewrittenPage;
  viewport: number;
  onViewport: (viewport: number) => void;
  seen: Seen;
  onSeen: (seen: Seen) => void;
  version: string;
}) {
  const [room, size] = useElementSize<HTMLDivElement>();
  const [share, setShare] = useDivider();
  const viewports = [...new Set(page.screens.map((one) => one.viewport))];
  const width = size ? Math.min(viewport, size.width - 2 * margin) : 0;
  const left = size ? (size.width - width) / 2 : 0;
  const divider = left + width * share;
  const shot = (side: Side) => addresses.mendedShot(job, viewport, side, version);
  return (
    <section className="grid min-h-0 grid-rows-[auto_minmax(0,1fr)]">
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-line bg-sheet-2 px-5 py-2">
        <Choice
          label={t('handingOver.screen')}
          chosen={viewport}
          onChoose={onViewport}
          options={viewports.map((one) => [one, t('handingOver.px', { width: count(one) })] as const)}
        />
        <Choice
          label={t('handingOver.view')}
          chosen={seen}
          onChoose={onSeen}
          options={[
            ['both', t('handingOver.beforeAndAfter')],
            ['difference', t('handingOver.differences')],
          ]}
        />
        <Key>X</Key>
      </div>
      <div ref={room} className="relative min-h-0 overflow-hidden" data-testid="mended-page">
        {width > 0 && (
          <>
            <div className="absolute inset-0 overflow-y-auto [scrollbar-gutter:stable_both-edges]">
              <div className="relative mx-auto my-5 outline outline-line" style={{ width }}>
                <Shots shot={shot} seen={seen} viewport={viewport} share={share} />
              </div>
            </div>
            {seen === 'both' && (
              <>
                <Divider share={share} onShare={setShare} from={left} to={left + width} />
                <DividerLabel side="left" text={t('handingOver.before')} at={divider} shown={divider > 80} />
                <DividerLabel
                  side="right"
                  text={t('handingOver.after')}
                  at={size!.width - divider}
                  shown={size!.width - divider > 80}
                />
              </>
            )}
          </>
        )}
      </div>
    </section>
  );
}

function Shots({
  shot,
  seen,
  viewport,
  share,
}: {
  /** The address of a picture of the page. */
  shot: (side: Side) => string;
  seen: Seen;
  viewport: number;
  share: number;
}) {
  return seen === 'difference' ? (
    <img
      key={viewport}
      src={shot('difference')}
      alt={t('handingOver.differencesBetweenThePageBeforeAnd')}
      className="block w-full"
    />
  ) : (
    <>
      <img key={viewport} src={shot('after')} alt={t('handingOver.thePageAfter')} className="block w-full" />
      <img
        key={`before ${viewport}`}
        src={shot('before')}
        alt={t('handingOver.thePageBefore')}
        className="absolute top-0 left-0 w-full"
        style={{ clipPath: `inset(0 ${(1 - share) * 100}% 0 0)` }}
      />
    </>
  );
}
