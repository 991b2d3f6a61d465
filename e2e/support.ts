import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync } from 'node:fs';
import { basename, join } from 'node:path';
import { type APIRequestContext, expect, type Page, test as plain } from '@playwright/test';
import type { Cell, JobHead, JobProgress, JobSummary, PageCheck } from '../client/src/api/client';

export type { Cell };

/** Open photographs of Debian's package lomiri-wallpapers-16.04; they are not in the repository. */
export const photographs = readdirSync('/usr/share/backgrounds')
  .filter((name) => name.endsWith('.jpg'))
  .toSorted()
  .map((name) => join('/usr/share/backgrounds', name));

/** Smaller copies of the photographs, for what does not depend on their size: making files of them takes a tenth of the time. */
export function smallPhotographs(first: number, end: number): string[] {
  const folder = join(import.meta.dirname, 'test-results/.small');
  mkdirSync(folder, { recursive: true });
  return photographs.slice(first, end).map((photograph) => {
    const copy = join(folder, basename(photograph));
    if (!existsSync(copy))
      execFileSync('convert', [photograph, '-resize', '640x640', '-quality', '92', copy]);
    return copy;
  });
}

async function running(request: APIRequestContext): Promise<string[]> {
  const jobs = (await (await request.get('/api/jobs')).json()) as JobSummary[];
  return jobs.filter((job) => job.run === 'running').map((job) => job.id);
}

/** What a test began in the background ends with it: the next one need not wait for it. */
export const test = plain.extend<{ endsItsJobs: void }>({
  endsItsJobs: [
    async ({ request }, use) => {
      const before = new Set(await running(request));
      await use();
      for (const job of await running(request))
        if (!before.has(job)) await request.put(`/api/jobs/${job}/run`, { data: { run: 'stopped' } });
      // So does the demo's own page, which is measured once the demo's site is built.
      const pages = (await (await request.get('/api/page-checks')).json()) as PageCheck[];
      for (const page of pages.filter((one) => one.state === 'waiting'))
        await request.post(`/api/page-checks/${page.id}/stop`);
    },
    { auto: true },
  ],
});

export interface JobHere {
  id: string;
  pictures: { id: string; name: string }[];
}

/** A job of its own for a test, made through the server. */
export async function makeJob(
  page: Page,
  name: string,
  pictures: string[],
  slots: string[],
): Promise<JobHere> {
  const library = (await (await page.request.get('/api/pictures')).json()) as {
    id: string;
    name: string;
  }[];
  const chosen = pictures.map((one) => library.find((other) => other.name === one)!);
  const answer = await page.request.post('/api/jobs', {
    data: {
      name: `${name} ${Date.now()}`,
      pictures: chosen.map((one) => one.id),
      slots: slots.map((address) => ({
        destination: address.split('/')[0],
        slot: address.split('/')[1],
        choice: null,
      })),
    },
  });
  expect(answer.ok()).toBe(true);
  const { id } = (await answer.json()) as { id: string };
  // A picture begins with what an earlier job was told about it; a test begins with nothing.
  await command(
    page,
    id,
    chosen.map((one) => ({ do: 'forget', picture: one.id })),
  );
  return { id, pictures: chosen };
}

/** Decides something about a job, as a program would. */
export async function command(page: Page, job: string, commands: object[]) {
  const answer = await page.request.post(`/api/jobs/${job}/commands`, {
    data: { commands },
  });
  expect(answer.ok(), await answer.text()).toBe(true);
}

/** Waits until every file of the job on the page is made. */
export async function allMade(page: Page, timeout = 180_000) {
  await expect(page.getByTestId('progress')).toHaveAttribute('data-left', '0', {
    timeout,
  });
}

/** Waits until everything that was decided on the page is stored. */
export async function settled(page: Page) {
  await expect(page.getByTestId('job-bar')).toHaveAttribute('data-on-their-way', '0');
}

export async function readJob(page: Page, id: string) {
  // The page shows what was decided before it is stored.
  if ((await page.getByTestId('job-bar').count()) > 0) await settled(page);
  const job = (await (await page.request.get(`/api/jobs/${id}`)).json()) as {
    head: JobHead;
    cells: (Omit<Cell, 'sequence'> & { sequence?: number })[];
    progress: JobProgress;
  };
  // When a cell was read is no part of how it stands.
  for (const cell of job.cells) delete cell.sequence;
  return {
    ...job,
    cell: (picture: string, slot: string) =>
      job.cells.find((one) => one.picture === picture && one.slot === slot)!,
  };
}

export async function figures(page: Page) {
  const value = async (name: string) =>
    Number(await page.getByRole('textbox', { name: new RegExp(`^${name}`) }).inputValue());
  return {
    x: await value('Left'),
    y: await value('Top'),
    width: await value('Width'),
    height: await value('Height'),
  };
}

/** Opens a picture of a job for framing, and waits until it can be framed. */
export async function openFraming(page: Page, job: string, picture: string, slot = '') {
  await page.goto(`/job/${job}/framing/${picture}${slot && `?slot=${slot}`}`);
  await expect(page.locator('[data-part=frame]')).toBeVisible();
  await expect(page.getByTestId('gets')).toContainText('1x');
}
