import { lazy } from 'react';

/**
 * Screens that are fetched when somebody goes to them, so that the first one to be seen comes soon. The others follow a moment later: going to
 * one then waits for nothing.
 */
const parts = {
  account: () => import('../accounts/MyAccountScreen'),
  guest: () => import('../accounts/GuestScreen'),
  log: () => import('../accounts/LogScreen'),
  people: () => import('../accounts/PeopleScreen'),
  destinations: () => import('../destinations/DestinationsScreen'),
  folder: () => import('../folders/FolderScreen'),
  folders: () => import('../folders/FoldersScreen'),
  framing: () => import('../framing/FramingScreen'),
  handingOver: () => import('../handing-over/HandingOverScreen'),
  live: () => import('../handing-over/LiveScreen'),
  originalPage: () => import('../handing-over/OriginalPageScreen'),
  pages: () => import('../handing-over/PagesScreen'),
  receivers: () => import('../handing-over/ReceiversScreen'),
  pageCheck: () => import('../page-check/PageCheckScreen'),
  pageChecks: () => import('../page-check/PageChecksScreen'),
  pictures: () => import('../pictures/PicturesScreen'),
  responsive: () => import('../responsive/ResponsiveScreen'),
  weighing: () => import('../weighing/WeighingScreen'),
};
export const MyAccountScreen = lazy(() => parts.account().then((it) => ({ default: it.MyAccountScreen })));
export const GuestScreen = lazy(() => parts.guest().then((it) => ({ default: it.GuestScreen })));
export const LogScreen = lazy(() => parts.log().then((it) => ({ default: it.LogScreen })));
export const PeopleScreen = lazy(() => parts.people().then((it) => ({ default: it.PeopleScreen })));
export const DestinationsScreen = lazy(() =>
  parts.destinations().then((it) => ({ default: it.DestinationsScreen })),
);
export const FolderScreen = lazy(() => parts.folder().then((it) => ({ default: it.FolderScreen })));
export const FoldersScreen = lazy(() => parts.folders().then((it) => ({ default: it.FoldersScreen })));
export const FramingScreen = lazy(() => parts.framing().then((it) => ({ default: it.FramingScreen })));
export const HandingOverScreen = lazy(() =>
  parts.handingOver().then((it) => ({ default: it.HandingOverScreen })),
);
export const LiveScreen = lazy(() => parts.live().then((it) => ({ default: it.LiveScreen })));
export const OriginalPageScreen = lazy(() =>
  parts.originalPage().then((it) => ({ default: it.OriginalPageScreen })),
);
export const PagesScreen = lazy(() => parts.pages().then((it) => ({ default: it.PagesScreen })));
export const ReceiversScreen = lazy(() => parts.receivers().then((it) => ({ default: it.ReceiversScreen })));
export const PageCheckScreen = lazy(() => parts.pageCheck().then((it) => ({ default: it.PageCheckScreen })));
export const PageChecksScreen = lazy(() =>
  parts.pageChecks().then((it) => ({ default: it.PageChecksScreen })),
);
export const PicturesScreen = lazy(() => parts.pictures().then((it) => ({ default: it.PicturesScreen })));
export const ResponsiveScreen = lazy(() =>
  parts.responsive().then((it) => ({ default: it.ResponsiveScreen })),
);
export const WeighingScreen = lazy(() => parts.weighing().then((it) => ({ default: it.WeighingScreen })));

/** Fetches all screens. */
export function fetchScreens() {
  for (const part of Object.values(parts)) void part().catch(() => undefined);
}
