// How fast the bench feels, measured in the browser on the demo and 100 generated pictures in 40 slots: docs/benchmarks.md.
// Usage: node speed.mjs [base]; it starts a server of its own unless an address is given.
import { spawn } from 'node:child_process';
import { mkdtempSync, readdirSync, statSync, readFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';

const root = new URL('..', import.meta.url).pathname;
const port = 5496;
const base = `http://127.0.0.1:${port}`;
const data = mkdtempSync(join(tmpdir(), 'pantomet-speed-'));
const server = spawn(
  'dotnet',
  [join(root, 'artifacts/program/pantomet.dll'), 'serve', '--data', data, '--port', String(port)],
  { stdio: 'ignore' },
);
const json = async (path, method = 'GET', body) => {
  const answer = await fetch(base + path, {
    method,
    headers: { 'Content-Type': 'application/json' },
    body: body === undefined ? undefined : JSON.stringify(body),
  });
  if (!answer.ok) throw new Error(`${method} ${path}: ${answer.status} ${await answer.text()}`);
  return answer.status === 204 ? null : answer.json();
};
const until = async (what, most = 600_000) => {
  for (const end = Date.now() + most; Date.now() < end;) {
    if (await what().catch(() => false)) return;
    await new Promise((done) => setTimeout(done, 300));
  }
  throw new Error('waited too long');
};
const round = (value, digits = 0) => Number(value.toFixed(digits));
// What other guests of the same host took from this machine's cores meanwhile, as a share; figures taken while it is high say little.
const stolen = () => {
  const times = readFileSync('/proc/stat', 'utf8').split('\n')[0].trim().split(/\s+/).slice(1).map(Number);
  return { steal: times[7], all: times.reduce((sum, one) => sum + one, 0) };
};
const stolenSince = (before) =>
  round(((stolen().steal - before.steal) / (stolen().all - before.all)) * 100, 1);
const percentile = (values, share) =>
  values.toSorted((a, b) => a - b)[Math.floor(values.length * share)] ?? 0;

try {
  await until(async () => (await fetch(`${base}/healthz`)).ok);
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium-headless-shell',
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
  });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(base);

  // The demo's pictures, and 100 generated in the browser: gradients with noise and shapes, landscape and portrait mixed.
  const upload = async (name, bytes) =>
    (
      await (
        await fetch(`${base}/api/pictures?name=${encodeURIComponent(name)}`, { method: 'POST', body: bytes })
      ).json()
    ).picture;
  const folder = join(root, 'demo/pictures');
  const demo = [];
  for (const name of readdirSync(folder).filter((one) => /jpe?g$/i.test(one)))
    demo.push(await upload(name, readFileSync(join(folder, name))));
  const generated = [];
  for (let i = 0; i < 100; i++) {
    const bytes = await page.evaluate(async (i) => {
      const [w, h] = i % 3 === 0 ? [1200, 1600] : [1800, 1200];
      const canvas = new OffscreenCanvas(w, h);
      const context = canvas.getContext('2d');
      const ground = context.createLinearGradient(0, 0, w, h);
      ground.addColorStop(0, `hsl(${i * 37} 40% 30%)`);
      ground.addColorStop(1, `hsl(${i * 37 + 90} 50% 70%)`);
      context.fillStyle = ground;
      context.fillRect(0, 0, w, h);
      let state = i + 1;
      const random = () => (state = (state * 48271) % 2147483647) / 2147483647;
      for (let n = 0; n < 400; n++) {
        context.fillStyle = `hsl(${random() * 360} 50% 50% / 0.35)`;
        context.beginPath();
        context.arc(random() * w, random() * h, random() * 90, 0, 7);
        context.fill();
      }
      return [
        ...new Uint8Array(
          await (await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.9 })).arrayBuffer(),
        ),
      ];
    }, i);
    generated.push(await upload(`sheet ${String(i).padStart(3, '0')}.jpg`, new Uint8Array(bytes)));
  }

  // 40 slots of many shapes.
  const shapes = ['2:1', '3:2', '1:1', '4:5', '16:9', '2:3', '5:4', '1.91:1'];
  const slots = Array.from({ length: 40 }, (_, i) => ({
    key: `slot-${i}`,
    name: `Slot ${i}`,
    size: { ratio: shapes[i % shapes.length], width: 300 + (i % 5) * 260 },
    limits: { maxBytes: '300 kB' },
  }));
  const book = (chosen) => ({ schema: 'pantomet-rules/1', destinations: chosen });
  await json('/api/destinations/import', 'POST', book([{ key: 'wall', name: 'Wall', slots }]));
  const places = (count) =>
    slots.slice(0, count).map((slot) => ({ destination: 'wall', slot: slot.key, choice: null }));
  const made = await json('/api/jobs', 'POST', {
    name: 'A hundred by forty',
    pictures: [...demo, ...generated].slice(0, 100).map((one) => one.id),
    slots: places(40),
  });

  const steal = {};
  let mark = stolen();
  const part = (name) => {
    steal[name] = stolenSince(mark);
    mark = stolen();
  };

  // A. First paint of the bench after the server's answer, with 4 000 cells.
  const paints = [];
  for (let i = 0; i < 5; i++) {
    await page.goto('about:blank');
    await page.goto(`${base}/job/${made.id}`);
    await page.waitForSelector('[role=gridcell]');
    paints.push(
      await page.evaluate(async (id) => {
        await new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)));
        const answer = performance
          .getEntriesByType('resource')
          .find((one) => one.name.endsWith(`/api/jobs/${id}`));
        return performance.now() - answer.responseStart;
      }, made.id),
    );
  }
  part('firstPaint');
  await json(`/api/jobs/${made.id}/run`, 'PUT', { run: 'stopped' });

  // B. Scrolled from end to end: long tasks.
  const scroll = await page.evaluate(async () => {
    const tasks = [];
    new PerformanceObserver((list) => tasks.push(...list.getEntries().map((one) => one.duration))).observe({
      type: 'longtask',
    });
    const bench = document.querySelector('[data-testid=bench]');
    const frames = [];
    let last = performance.now();
    const steps = 240;
    for (let i = 1; i <= steps; i++) {
      const way = i <= steps / 2 ? i / (steps / 2) : 2 - i / (steps / 2);
      bench.scrollTop = (bench.scrollHeight - bench.clientHeight) * way;
      bench.scrollLeft = (bench.scrollWidth - bench.clientWidth) * way;
      await new Promise((done) => requestAnimationFrame(done));
      frames.push(performance.now() - last);
      last = performance.now();
    }
    await new Promise((done) => setTimeout(done, 300));
    return { tasks, frames, cells: document.querySelectorAll('[role=gridcell]').length };
  });

  part('scrolling');

  // C. Dragging a frame with 12 slots shown: script in each frame, from the browser's own trace.
  const twelve = await json('/api/jobs', 'POST', {
    name: 'Twelve slots',
    pictures: [demo[0].id],
    slots: places(12),
  });
  await page.goto(`${base}/job/${twelve.id}/framing/${demo[0].id}?slot=wall/slot-2`);
  await page.waitForSelector('[data-part=frame]');
  await until(async () => {
    const { progress } = await json(`/api/jobs/${twelve.id}`);
    return progress.done === progress.files;
  });
  await page.keyboard.press('+');
  await page.keyboard.press('+');
  await page.waitForTimeout(2500);
  const box = await page.locator('[data-part=frame]').boundingBox();
  const client = await page.context().newCDPSession(page);
  const events = [];
  client.on('Tracing.dataCollected', ({ value }) => events.push(...value));
  await client.send('Tracing.start', {
    categories: 'devtools.timeline,blink.user_timing',
    transferMode: 'ReportEvents',
  });
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  for (let i = 0; i < 120; i++)
    await page.mouse.move(
      box.x + box.width / 2 + 60 * Math.sin(i / 9),
      box.y + box.height / 2 + 20 * Math.cos(i / 7),
    );
  await page.mouse.up();
  const ended = new Promise((done) => client.once('Tracing.tracingComplete', done));
  await client.send('Tracing.end');
  await ended;
  // Script in each sixtieth of a second in which a move arrived.
  const script = new Map();
  for (const one of events.filter(
    (each) => /^(EventDispatch|FireAnimationFrame|RunMicrotasks|FunctionCall)$/.test(each.name) && each.dur,
  )) {
    // Nested calls are counted once, with the outermost.
    if (
      events.some(
        (outer) =>
          outer !== one &&
          outer.tid === one.tid &&
          outer.dur &&
          /^(EventDispatch|FireAnimationFrame|RunMicrotasks|FunctionCall)$/.test(outer.name) &&
          outer.ts <= one.ts &&
          outer.ts + outer.dur >= one.ts + one.dur,
      )
    )
      continue;
    const at = Math.floor(one.ts / 16_667);
    script.set(at, (script.get(at) ?? 0) + one.dur / 1000);
  }

  part('dragging');

  // D. The true weight of a 1 500 px variant after a frame is let go: from the pointer's end to the weight drawn on the page.
  const wide = await json(
    '/api/destinations/import',
    'POST',
    book([
      {
        key: 'wide',
        name: 'Wide',
        slots: [{ key: 'opening', size: { ratio: '2:1', width: 1500 }, limits: { maxBytes: '300 kB' } }],
      },
    ]),
  );
  if (!wide) throw new Error();
  const weigh = [[], []];
  for (const picture of demo.slice(0, 4)) {
    const job = await json('/api/jobs', 'POST', {
      name: 'Weight',
      pictures: [picture.id],
      slots: [{ destination: 'wide', slot: 'opening', choice: null }],
    });
    await until(async () => (await json(`/api/jobs/${job.id}`)).progress.done === 1);
    await page.goto(`${base}/job/${job.id}/framing/${picture.id}`);
    await page.waitForSelector('[data-part=frame]');
    await page.keyboard.press('+');
    for (let i = 0; i < 8; i++) {
      await page.waitForTimeout(1200);
      await page.evaluate(() => {
        window.told = new Promise((done) => {
          addEventListener(
            'pointerup',
            () => {
              const start = performance.now();
              // From when on the page shows what it shows in the end. While a frame is held no older weight is shown.
              let [text, since] = ['', start];
              const look = () => {
                const now = document.querySelector('[data-weight]')?.textContent ?? '';
                if (now !== text) [text, since] = [now, performance.now()];
                if (performance.now() - start < 1500) return requestAnimationFrame(look);
                done(/B$/.test(text) ? since - start : Infinity);
              };
              look();
            },
            { once: true, capture: true },
          );
        });
      });
      const box = await page.locator('[data-part=frame]').boundingBox();
      const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
      await page.mouse.move(x, y);
      await page.mouse.down();
      // Never to a place where it was before: that weight would be known.
      const away = (i % 4 < 2 ? -1 : 1) * (4 + 3 * i);
      for (let n = 1; n <= 10; n++) await page.mouse.move(x + (away * n) / 10, y - (away * n) / 10);
      // A hand that has found its place rests on it before it lets go; one that throws the frame does not.
      if (i % 2) await page.waitForTimeout(250);
      await page.mouse.up();
      weigh[i % 2].push(await page.evaluate(() => window.told));
    }
  }

  part('weight');

  const scripts = readdirSync(join(root, 'client/dist/assets')).filter((one) => one.endsWith('.js'));
  const packed = (some) =>
    some.reduce((sum, one) => sum + gzipSync(readFileSync(join(root, 'client/dist/assets', one))).length, 0);
  // What the page asks for before anything is drawn; the screens follow while nothing is done.
  const index = readFileSync(join(root, 'client/dist/index.html'), 'utf8');
  const first = scripts.filter((one) => index.includes(one));
  console.log(
    JSON.stringify(
      {
        cells: 4000,
        firstPaintMs: { median: round(percentile(paints, 0.5)), most: round(Math.max(...paints)) },
        scrolling: {
          longTasks: scroll.tasks.length,
          longest: round(Math.max(0, ...scroll.tasks)),
          frameMs95: round(percentile(scroll.frames, 0.95), 1),
          cellsInThePage: scroll.cells,
        },
        dragging: {
          frames: script.size,
          scriptMs95: round(percentile([...script.values()], 0.95), 2),
          most: round(Math.max(...script.values()), 2),
        },
        weightAfterLettingGoMs: Object.fromEntries(
          weigh.map((all, rested) => [
            rested ? 'rested250' : 'atOnce',
            {
              median: round(percentile(all, 0.5)),
              p90: round(percentile(all, 0.9)),
              all: all.map((one) => round(one)),
            },
          ]),
        ),
        scriptKbCompressed: { first: round(packed(first) / 1000, 1), all: round(packed(scripts) / 1000, 1) },
        stolenPercent: steal,
        sizes: scripts.map((one) => statSync(join(root, 'client/dist/assets', one)).size),
      },
      null,
      1,
    ),
  );
  await browser.close();
} finally {
  server.kill('SIGTERM');
}
