import { explained, type Standing } from './standing';
import { t } from '../texts/texts';

const words: Record<Standing, string> = {
  meets: t('common.meets'),
  concedes: t('common.concedes'),
  breaks: t('common.breaks'),
  skipped: t('common.skipped'),
  waiting: t('common.waiting'),
  making: t('common.beingMade'),
};

const tones: Record<Standing, string> = {
  meets: 'text-meets',
  concedes: 'text-concedes',
  breaks: 'text-breaks',
  skipped: 'text-ink-2',
  waiting: 'text-ink-2',
  making: 'text-ink-2',
};

/**
 * A verdict as a measure between two stops: reaching both (meets), short of one (concedes), through it (breaks), none (left out).
 * The shapes differ without their colours. Before it is known there are the stops alone, with a short rule while a file is being made.
 */
export function VerdictMark({
  verdict,
  withWord = false,
  why,
}: {
  verdict: Standing;
  withWord?: boolean;
  /** Why it is so, in words, for the pointer that rests on it. */
  why?: readonly string[];
}) {
  return (
    <span
      title={explained(verdict, why)}
      className={`relative inline-flex items-center gap-1.5 font-semibold ${tones[verdict]}`}
    >
      <svg viewBox="0 0 22 12" width="22" height="12" aria-hidden className="shrink-0">
        <path d="M2 1v10" stroke="currentColor" strokeWidth="1.6" />
        <path d="M16 1v10" stroke="currentColor" strokeWidth="1.6" />
        {verdict === 'meets' && <path d="M2 6h14" stroke="currentColor" strokeWidth="4" />}
        {verdict === 'concedes' && <path d="M2 6h8" stroke="currentColor" strokeWidth="4" />}
        {verdict === 'breaks' && <path d="M2 6h19.5" stroke="currentColor" strokeWidth="4" />}
        {verdict === 'making' && <path d="M7 6h4" stroke="currentColor" strokeWidth="1.6" />}
        {verdict === 'skipped' && (
          <path d="M4 6h11" stroke="currentColor" strokeWidth="1.6" strokeDasharray="2 2.4" />
        )}
      </svg>
      {withWord ? words[verdict] : <span className="sr-only">{words[verdict]}</span>}
    </span>
  );
}
