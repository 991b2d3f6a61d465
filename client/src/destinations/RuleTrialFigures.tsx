import { Button } from '../design/Button';
import { count, sentence, weight } from '../design/figures';
import { likenessWords } from '../design/likeness';
import { VerdictMark } from '../design/VerdictMark';
import { t } from '../texts/texts';
import type { RuleTrial } from './useRuleTrial';

/** What the file of a rule weighs, whether it meets the rule, and on which picture that was tried. */
export function RuleTrialFigures({ of: { picture, trial, working, fault, another } }: { of: RuleTrial }) {
  if (!picture) return <p className="text-small text-surround-line">{t('destinations.addAPictureToSee')}</p>;
  const file = trial?.file;
  const name = picture.name.replace(/\.[^.]+$/, '');
  return (
    <div
      className={`grid w-full grid-cols-[minmax(0,1fr)_auto] items-start gap-3 bg-sheet px-3 py-2 ${working ? 'text-ink-2' : ''}`}
      data-testid="rule-trial"
      aria-busy={working}
    >
      <div className="min-w-0" aria-live="polite">
        <p className="flex items-baseline gap-2">
          {trial && <VerdictMark verdict={trial.verdict} withWord />}
          <span className="wrap-anywhere">
            {file
              ? t('destinations.fileOfTrial', {
                  type: file.formatLabel,
                  quality: file.quality ?? '',
                  width: count(file.width),
                  height: count(file.height),
                  bytes: weight(file.bytes),
                })
              : (fault ?? (working ? t('destinations.makingTheFile') : ''))}
          </span>
        </p>
        <p className="text-small text-ink-2">
          {[file?.likenessWord ? likenessWords[file.likenessWord] : null, name].filter(Boolean).join(' · ')}
        </p>
        {trial?.reasons.map((reason) => (
          <p key={reason.code} className="text-small text-ink-2">
            {sentence(reason.message)}
          </p>
        ))}
      </div>
      {another && (
        <span className="flex gap-1">
          <Button
            className="h-7! px-2!"
            aria-label={t('destinations.previousPicture')}
            onClick={() => another(-1)}
          >
            ‹
          </Button>
          <Button
            className="h-7! px-2!"
            aria-label={t('destinations.nextPicture')}
            onClick={() => another(1)}
          >
            ›
          </Button>
        </span>
      )}
    </div>
  );
}
