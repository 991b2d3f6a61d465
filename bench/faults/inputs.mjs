// What strangers send: damaged files of every type, senders that never end, a body that is too large, readers that miss what they are told.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import net from 'node:net';
import { join } from 'node:path';
import { finished, jobOf, numbers, samples, Server, wait } from './server.mjs';

const convert = (...words) => spawnSync('convert', words);

/** One sound file of each type, small, with what such files carry: a profile, XMP, text, several frames. */
function sound(folder) {
  const icc = ['/usr/share/color/icc/colord/AdobeRGB1998.icc', '/usr/share/color/icc/colord/SwappedRedAndGreen.icc'].find(existsSync);
  const from = join(folder, 'sound.png');
  convert('demo/pictures/' + 'IMG_2102.jpg', '-resize', '220x220', from);
  const profile = icc ? ['-profile', icc] : [];
  const at = (name) => join(folder, `sound.${name}`);
  convert(from, ...profile, '-quality', '88', at('jpeg'));
  spawnSync('exiftool', ['-overwrite_original', '-XMP:Title=Storm glass', '-XMP:Rights=Skerry Weatherworks', '-EXIF:Orientation#=6', at('jpeg')]);
  convert(from, ...profile, at('png'));
  convert(from, '-quality', '80', at('webp'));
  convert(from, '-quality', '60', at('avif'));
  convert(from, from, '-delay', '10', at('gif'));
  convert(from, ...profile, '-compress', 'LZW', at('tiff'));
  writeFileSync(
    at('svg'),
    '<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" viewBox="0 0 200 120"><defs><linearGradient id="a"><stop offset="0" stop-color="#a83"/><stop offset="1" stop-color="#246"/></linearGradient><filter id="f"><feGaussianBlur stdDeviation="2"/></filter></defs><style>.b{fill:url(#a)}</style><rect class="b" width="200" height="120"/><g filter="url(#f)"><use xlink:href="#p"/></g><path id="p" d="M10 10 L90 60 Q50 90 10 100 Z"/><text x="20" y="60" font-size="20">Glass</text></svg>',
  );
  return ['jpeg', 'png', 'webp', 'avif', 'gif', 'tiff', 'svg'].filter((name) => existsSync(at(name))).map((name) => ({ name, bytes: readFileSync(at(name)) }));
}

const hostileText = [
  '<!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;&a;&a;"><!ENTITY c "&b;&b;&b;&b;&b;&b;&b;&b;&b;&b;">]><svg xmlns="http://www.w3.org/2000/svg"><text>&c;</text></svg>',
  '<!DOCTYPE svg [<!ENTITY x SYSTEM "file:///etc/passwd">]><svg xmlns="http://www.w3.org/2000/svg" width="10" height="10"><text>&x;</text></svg>',
  '<svg xmlns="http://www.w3.org/2000/svg" width="1e9" height="1e9"/>',
  '<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><image href="http://127.0.0.1:9/x.png" width="9" height="9"/></svg>',
  '<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><use href="#u" id="u"/></svg>',
  '<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><script>while(1);</script></svg>',
];

/** One damage: bytes turned, cut off, repeated, put in, or set to what numbers overflow at. */
function damaged(bytes, random) {
  const copy = Buffer.from(bytes);
  const at = () => random.whole(copy.length);
  switch (random.whole(7)) {
    case 0:
      for (let i = 1 + random.whole(20); i > 0; i--) copy[at()] = random.whole(256);
      return copy;
    case 1:
      return copy.subarray(0, 1 + at());
    case 2: {
      const [from, length] = [at(), 1 + random.whole(4000)];
      return Buffer.concat([copy.subarray(0, from), copy.subarray(from, from + length), copy.subarray(from)]);
    }
    case 3: {
      const from = at();
      return Buffer.concat([copy.subarray(0, from), copy.subarray(from + 1 + random.whole(2000))]);
    }
    case 4: {
      // Most of what says how large something is stands at the beginning.
      const from = random.whole(Math.min(copy.length, 400));
      copy.fill(random.pick([0, 255, 127, 128]), from, from + random.pick([1, 2, 4, 8]));
      return copy;
    }
    case 5: {
      const from = at();
      return Buffer.concat([copy.subarray(0, from), Buffer.alloc(1 + random.whole(3000), random.whole(256)), copy.subarray(from)]);
    }
    default:
      for (let i = 0; i < 3; i++) copy[random.whole(Math.min(copy.length, 64))] ^= 1 << random.whole(8);
      return copy;
  }
}

export async function damagedInputs({ folder, port, seed, times }) {
  const random = numbers(seed);
  const types = sound(folder);
  const server = await new Server(join(folder, 'damaged'), port).start();
  const told = { read: 0, refused: 0, wrong: [] };
  const each = Math.ceil(times / types.length);
  const began = performance.now();
  const queue = types.flatMap((type) => Array.from({ length: each }, () => type));
  const send = async () => {
    for (let type = queue.pop(); type; type = queue.pop()) {
      const bytes = type.name === 'svg' && random.next() < 0.05 ? Buffer.from(random.pick(hostileText)) : damaged(type.bytes, random);
      const answer = await server.ask('POST', `/api/pictures?name=damaged.${type.name}`, bytes);
      if (answer?.ok) told.read++;
      else if (answer && answer.status < 500 && answer.json?.detail) told.refused++;
      else {
        const path = join('data/mutations', `server-${told.wrong.length}.${type.name}`);
        mkdirSync('data/mutations', { recursive: true });
        writeFileSync(path, bytes);
        told.wrong.push(`${answer === null ? 'no answer' : answer.status} for ${path}`);
      }
    }
  };
  await Promise.all(Array.from({ length: 4 }, send));
  const seconds = (performance.now() - began) / 1000;
  const sent = each * types.length;
  // The server works on: a sound picture is added, and what was accepted can be shown.
  const after = await server.ask('POST', '/api/pictures?name=sound.jpg', readFileSync(samples(folder, 1, 600)[0]));
  const page = await server.ask('GET', '/api/pictures/page?from=0&count=60');
  let shown = 0;
  for (const one of page.json.pictures) {
    const preview = await fetch(`${server.base}/api/pictures/${one.id}/preview/480`);
    await preview.arrayBuffer();
    if (preview.status < 500) shown++;
  }
  await server.stop();
  return {
    did: `${sent} damaged files of ${types.length} types through the server (SVG with entities and references, ICC, XMP and EXIF among them), ${Math.round(sent / seconds)} a second`,
    came: `${told.read} read, ${told.refused} refused with a sentence, ${told.wrong.length} otherwise; ${shown} of ${page.json.pictures.length} accepted ones shown or refused; the next sound picture: ${after?.status}`,
    ok: told.wrong.length === 0 && after?.ok === true && shown === page.json.pictures.length,
    why: told.wrong.slice(0, 5).join('; '),
  };
}

export async function slowSenders({ folder, port, times }) {
  const server = await new Server(join(folder, 'slow-senders'), port).start();
  const path = samples(folder, 1, 600)[0];
  const ends = [];
  const began = performance.now();
  const senders = Array.from({ length: times }, () => {
    const socket = net.connect(port, '127.0.0.1');
    socket.on('error', () => undefined);
    socket.write(`POST /api/pictures?name=slow.jpg HTTP/1.1\r\nHost: 127.0.0.1:${port}\r\nContent-Type: image/jpeg\r\nContent-Length: 500000\r\n\r\n`);
    const drip = setInterval(() => socket.write('x'), 1000);
    let said = '';
    socket.on('data', (text) => (said += text));
    socket.on('close', () => {
      clearInterval(drip);
      ends.push({ after: performance.now() - began, said: said.slice(9, 12) });
    });
    return socket;
  });
  const times_ = [];
  let added = 0;
  while (performance.now() - began < 8000) {
    const at = performance.now();
    if ((await server.ask('GET', '/api/jobs'))?.ok) times_.push(performance.now() - at);
    if ((await server.add(path, 'quick.jpg'))?.ok) added++;
  }
  while (ends.length < times && performance.now() - began < 60_000) await wait(200);
  senders.forEach((socket) => socket.destroy());
  await server.stop();
  const p95 = times_.toSorted((a, b) => a - b)[Math.floor(times_.length * 0.95)];
  const last = Math.max(...ends.map((one) => one.after)) / 1000;
  const refused = ends.filter((one) => one.said === '408').length;
  return {
    did: `${times} senders that send one byte a second, all at once`,
    came: `all others were answered meanwhile (list of jobs ${Math.round(p95)} ms at the 95th, ${added} pictures added in 8 s); ${ends.length} of them were given up, ${refused} with status 408, the last after ${last.toFixed(0)} s`,
    ok: ends.length === times && times_.length > 0 && added > 0,
    why: '',
  };
}

export async function hugeBody({ folder, port }) {
  const server = await new Server(join(folder, 'huge'), port).start();
  const before = server.memory();
  const size = 2 * 1024 ** 3;
  const said = await new Promise((done) => {
    const socket = net.connect(port, '127.0.0.1');
    let text = '';
    let sent = 0;
    const block = Buffer.alloc(1 << 20, 0xff);
    // It begins as a picture does.
    readFileSync(samples(folder, 1, 600)[0]).copy(block, 0, 0, 4000);
    // Without its length said before: nothing tells beforehand that it is too large.
    socket.write(`POST /api/pictures?name=huge.jpg HTTP/1.1\r\nHost: 127.0.0.1:${port}\r\nContent-Type: image/jpeg\r\nTransfer-Encoding: chunked\r\n\r\n`);
    const send = () => {
      while (sent < size && !socket.destroyed) {
        sent += block.length;
        const chunk = Buffer.concat([Buffer.from(`${block.length.toString(16)}\r\n`), block, Buffer.from('\r\n')]);
        if (!socket.write(chunk)) {
          socket.once('drain', send);
          return;
        }
      }
    };
    socket.on('data', (data) => (text += data));
    socket.on('error', () => undefined);
    socket.on('close', () => done({ status: text.slice(9, 12), sent }));
    send();
  });
  const after = server.memory();
  const others = await server.ask('GET', '/api/jobs');
  const left = spawnSync('du', ['-sm', join(folder, 'huge')], { encoding: 'utf8' }).stdout.split('\t')[0];
  await server.stop();
  return {
    did: 'a request of 2 GB, its length not said before',
    came: `status ${said.status || 'none'}, ${Math.round(said.sent / 1e6)} MB of it sent and thrown away; memory of the server ${Math.round(before)} MB before and ${Math.round(after)} MB after, ${left} MB on the disk`,
    ok: said.status === '413' && after - before < 150 && Number(left) < 20 && others?.ok === true,
    why: '',
  };
}

export async function missedEvents({ folder, port, times }) {
  const server = await new Server(join(folder, 'missed'), port).start();
  const ids = [];
  for (const [at, path] of samples(folder, 4, 500).entries()) ids.push((await server.add(path, `sample ${at}.jpg`)).json.picture.id);
  const job = await jobOf(server, ids, 4);
  await finished(server, job);
  // One that listens and never reads: what it is told heaps up nowhere without end.
  const deaf = net.connect(port, '127.0.0.1');
  deaf.on('error', () => undefined);
  deaf.write(`GET /api/jobs/${job}/events HTTP/1.1\r\nHost: 127.0.0.1:${port}\r\n\r\n`);
  deaf.pause();
  await wait(300);
  const before = server.memory();
  for (let i = 0; i < times; i++) await server.ask('POST', `/api/jobs/${job}/commands`, { commands: [{ do: 'give-words', picture: ids[i % 4], keywords: `words ${i}` }] });
  const after = server.memory();
  // Whoever comes back is told where the job stands, and reads it.
  const stream = await fetch(`${server.base}/api/jobs/${job}/events`);
  const reader = stream.body.pipeThrough(new TextDecoderStream()).getReader();
  const first = JSON.parse((await reader.read()).value.split('data: ')[1].split('\n')[0]);
  await reader.cancel();
  const { json } = await server.ask('GET', `/api/jobs/${job}`);
  const last = json.head.pictures.map((one) => one.decisions.keywords);
  deaf.destroy();
  await server.stop();
  const right = ids.every((id) => {
    const at = json.head.pictures.find((one) => one.picture.id === id).decisions.keywords;
    return at === `words ${times - 4 + ids.indexOf(id)}`;
  });
  return {
    did: `${times} events missed by one who listens and never reads, and by one who was away`,
    came: `memory of the server ${Math.round(before)} MB before, ${Math.round(after)} MB after; who comes back is told number ${first.sequence}, the job read is at ${json.head.sequence}, and has the last words of each picture: ${right ? 'yes' : last.join(', ')}`,
    ok: right && first.sequence === json.head.sequence && after - before < 100,
    why: '',
  };
}
