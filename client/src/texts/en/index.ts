import { accounts } from './accounts';
import { app } from './app';
import { bench } from './bench';
import { common } from './common';
import { destinations } from './destinations';
import { folders } from './folders';
import { framing } from './framing';
import { handingOver } from './handing-over';
import { jobs } from './jobs';
import { responsive } from './responsive';
import { overlay } from './overlay';
import { pageCheck } from './page-check';
import { pictures } from './pictures';
import { weighing } from './weighing';

/** All texts in English, by screen. Another language is a second object of this shape. */
export const en = {
  accounts,
  app,
  bench,
  common,
  destinations,
  folders,
  framing,
  handingOver,
  jobs,
  responsive,
  overlay,
  pageCheck,
  pictures,
  weighing,
} as const;
