import { type ChildProcess, spawn } from 'node:child_process';
import { mkdirSync, readFileSync } from 'node:fs';
import { expect } from '@playwright/test';
import { smallPhotographs, test } from './support';

// The server is killed while it works: nothing is lost, what stands is not made again, and the open page goes on.

const port = 5497;
const base = `http://127.0.0.1:${port}`;

async function start(data: string): Promise<ChildProcess> {
  const server = spawn(
    'dotnet',
    ['../artifacts/program/pantomet.dll', 'serve', '--data', data, '--port', String(port)],
    {
      stdio: 'ignore',
    },
  );
  await expect
    .poll(async () => (await fetch(`${base}/healthz`).catch(() => null))?.status, { timeout: 60_000 })
    .toBe(200);
  return server;
}

interface Read {
  cells: { files: { id: string; made: boolean }[] }[];
  progress: { files: number; done: number };
}

test('a server that is killed in the middle goes on where it was', async ({ page }, info) => {
  test.setTimeout(240_000);
  const data = info.outputPath('data');
  mkdirSync(data, { recursive: true });
  let server = await start(data);
  try {
    const ids: string[] = [];
    for (const file of smallPhotographs(0, 4)) {
      const answer = await fetch(`${base}/api/pictures?name=${encodeURIComponent(file.split('/').at(-1)!)}`, {
        method: 'POST',
        body: readFileSync(file),
      });
      ids.push(((await answer.json()) as { picture: { id: string } }).picture.id);
    }
    const destinations = (await (await fetch(`${base}/api/destinations`)).json()) as {
      key: string;
      slots: { key: string }[];
    }[];
    const slots = destinations
      .flatMap((one) =>
        one.slots.map((slot) => ({
          destination: one.key,
          slot: slot.key,
          choice: null,
        })),
      )
      .slice(0, 6);
    const made = await fetch(`${base}/api/jobs`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ name: 'Killed', pictures: ids, slots }),
    });
    const { id } = (await made.json()) as { id: string };
    const read = async () => (await (await fetch(`${base}/api/jobs/${id}`)).json()) as Read;
    await page.goto(`${base}/job/${id}`);
    await expect.poll(async () => (await read()).progress.done, { timeout: 60_000 }).toBeGreaterThan(4);
    const before = await read();
    expect(before.progress.done).toBeLessThan(before.progress.files);
    const gone = new Promise((done) => server.once('exit', done));
    server.kill('SIGKILL');
    await gone;
    await expect(page.getByText('Pantomet does not answer.')).toBeVisible({
      timeout: 20_000,
    });

    server = await start(data);
    await expect(page.getByTestId('progress')).toHaveAttribute('data-left', '0', { timeout: 150_000 });
    await expect(page.getByText('Pantomet does not answer.')).toBeHidden();
    // What could not be fetched meanwhile is fetched again.
    await expect
      .poll(() =>
        page.evaluate(
          () => [...document.images].filter((one) => one.complete && one.naturalWidth === 0).length,
        ),
      )
      .toBe(0);
    const after = await read();
    expect(after.progress.done).toBe(after.progress.files);
    const ready = (job: Read) =>
      job.cells.flatMap((cell) => cell.files.filter((file) => file.made).map((file) => file.id));
    expect(ready(after)).toEqual(expect.arrayContaining(ready(before)));
  } finally {
    server.kill('SIGTERM');
  }
});
