import { renderToStaticMarkup } from 'react-dom/server';
import { expect, test } from 'vitest';
import type { PublicationView } from '../api/client';
import { Publication } from './Publication';

const nothing = () => undefined;

const shown = (view: Partial<PublicationView>, changes = 0, more: object = {}) =>
  renderToStaticMarkup(
    <Publication
      publication={{ key: null, at: null, oldAnswersDays: 30, places: [], ...view } as PublicationView}
      changes={changes}
      fixed={false}
      said={null}
      failed={false}
      busy={false}
      onFixed={nothing}
      onPublish={nothing}
      onUnpublish={nothing}
      onCopyAll={nothing}
      {...more}
    />,
  );

const live = { key: 'abc', at: '2026-11-30T09:00:00Z' };
const mainButton = (markup: string) =>
  /<button[^>]*>(?:(?!<\/button>).)*<\/button>(?!.*<button)/s.exec(markup)![0];

test('a job that is not live offers to publish it, and nothing to unpublish', () => {
  const markup = shown({});
  expect(mainButton(markup)).not.toContain('disabled=""');
  expect(markup).not.toContain('/live/');
  expect(markup.match(/<button/g)).toHaveLength(1);
});

test('a job that is live as it stands has nothing to publish', () => {
  const markup = shown(live);
  expect(markup).toContain('/live/abc/');
  expect(mainButton(markup)).toContain('disabled=""');
  expect(markup.match(/<button/g)).toHaveLength(3);
});

test('what changed since is counted on the button', () => {
  expect(mainButton(shown(live, 1))).toMatch(/1 /);
  expect(mainButton(shown(live, 12))).toMatch(/12 /);
  expect(mainButton(shown(live, 12))).not.toContain('disabled=""');
});

test('what was fetched is added up over all places', () => {
  const place = (fetches: number, bytes: number, unchanged: number) => ({ fetches, bytes, unchanged });
  const places = [place(3, 1_000_000, 10), place(4, 500_000, 5)] as unknown as PublicationView['places'];
  const said = /data-testid="fetches">([^<]*)/.exec(shown({ ...live, places }))![1]!;
  expect(said).toMatch(/7 /);
  expect(said).toMatch(/1\.5 MB/);
  expect(said).toMatch(/15 /);
});

test('what went wrong is an alert, what went well is told quietly', () => {
  expect(shown(live, 0, { said: 'Copied.', failed: false })).toMatch(/role="status"[^>]*>Copied\./);
  expect(shown(live, 0, { said: 'Not copied.', failed: true })).toMatch(/role="alert"[^>]*>Not copied\./);
});
