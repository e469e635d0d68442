// What a person does while machines die: brings in a list, publishes it. Counts what is lost, what is doubled, and how long nobody was answered.
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';

const { FENDRIK_WEB: web, FENDRIK_WORK: work, FENDRIK_NETWORK: network, FENDRIK_PSQL: psql, FENDRIK_DATABASE_PORT: port } = process.env;
const keywords = 20_000;
const email = 'owner@fendrik.example';
const password = 'a long password for rehearsing';
const sleep = (milliseconds) => new Promise((done) => setTimeout(done, milliseconds));
const pidOf = (name) => Number(readFileSync(`${work}/${name}.pid`, 'utf8'));
const sql = (text, database = 'fendrik') =>
  execFileSync(psql, ['-h', '127.0.0.1', '-p', port, '-U', 'fendrik', '-d', database, '-tAqc', text], {
    env: { ...process.env, PGPASSWORD: 'word' },
    encoding: 'utf8',
  }).trim();

let passed = 0;
let failed = 0;
const expect = (what, holds) => {
  if (holds) passed++;
  else {
    failed++;
    console.error(`FAIL  ${what}`);
  }
};

const cookies = new Map();
let token = '';
async function ask(method, path, body, type = 'application/json') {
  const answer = await fetch(web + path, {
    method,
    headers: {
      cookie: [...cookies].map(([name, value]) => `${name}=${value}`).join('; '),
      ...(method === 'GET' ? {} : { 'X-Fendrik-Token': token, 'Content-Type': type }),
    },
    body: body === undefined ? undefined : type === 'application/json' ? JSON.stringify(body) : body,
    signal: AbortSignal.timeout(20_000),
  });
  for (const cookie of answer.headers.getSetCookie()) {
    const [, name, value] = /^([^=]+)=([^;]*)/.exec(cookie);
    cookies.set(name, value);
  }
  const text = await answer.text();
  if (!answer.ok) throw Object.assign(new Error(`${method} ${path}: ${answer.status} ${text.slice(0, 300)}`), { status: answer.status });
  return text ? JSON.parse(text) : null;
}

/** Asks again until it is answered, as people do; what it changes is asked for under one name. */
async function untilAnswered(work, seconds = 90) {
  const until = Date.now() + seconds * 1000;
  for (;;) {
    try {
      return await work();
    } catch (error) {
      if (Date.now() > until || (error.status >= 400 && error.status < 500 && error.status !== 423)) throw error;
      await sleep(200);
    }
  }
}

const session = async () => {
  token = (await ask('GET', '/api/session')).token;
};

/** How long nobody was answered, in seconds: asked ten times a second. */
function watch(path) {
  let longest = 0;
  let since = null;
  let on = true;
  const loop = (async () => {
    while (on) {
      try {
        await ask('GET', path);
        since = null;
      } catch {
        since ??= Date.now();
        longest = Math.max(longest, (Date.now() - since) / 1000);
      }
      await sleep(100);
    }
  })();
  return async () => {
    on = false;
    await loop;
    return longest;
  };
}

const jobEnds = (account, job) =>
  untilAnswered(async () => {
    const read = await ask('GET', `/api/accounts/${account}/jobs/${job}`);
    if (['waiting', 'running'].includes(read.state)) throw new Error(`job ${job} is ${read.state}`);
    return read;
  }, 240);

await session();
await ask('POST', '/api/session', { email, password });
await session();
const account = (
  await ask('POST', '/api/accounts', { name: 'Rehearsal', currency: 'GBP', timeZone: 'Europe/London', networkId: 'ostrel', payer: 'Tarn & Fell Pianos' })
).accountId;
const status = `/api/accounts/${account}/status`;

// A list is brought in, and the server that reads it is killed.
const list = [
  'campaign,daily budget,ad group,ad group max cpc,keyword,match',
  ...Array.from({ length: keywords }, (_, n) => `Tuning,40,Group ${n % 200},0.90,piano tuner ${n},exact`),
].join('\n');
let interrupted = watch(status);
const begun = await ask('POST', `/api/accounts/${account}/intakes?fileName=list.csv`, Buffer.from(list), 'application/octet-stream');
process.kill(pidOf('first'), 'SIGKILL');
const read = await jobEnds(account, begun.job.id);
expect(`the list is read though a server died (${read.state}: ${read.message ?? ''})`, read.state === 'done');
await untilAnswered(session);
const kept = await ask('POST', `/api/accounts/${account}/intakes/${begun.intakeId ?? begun.id}/keep`, {});
const keep = await jobEnds(account, kept.id ?? kept.job?.id);
expect(`and kept (${keep.state}: ${keep.message ?? ''})`, keep.state === 'done');
const attempts = sql(`select string_agg(kind || ' ' || attempts, ', ' order by id) from job where account_id = ${account}`);
console.log(`a server killed while a list was read: ${(await interrupted()).toFixed(1)} s without an answer (attempts: ${attempts})`);
expect('every keyword is here once', sql(`select count(*) from keyword where account_id = ${account}`) === String(keywords));

// It is published, and the primary database is killed with what looks after it.
interrupted = watch(status);
const publish = await untilAnswered(() => ask('POST', `/api/accounts/${account}/publishes`, {}));
await sleep(1500);
const primary = ['one', 'two'].find((each) => {
  try {
    const [main] = readFileSync(`${work}/${each}/data/postmaster.pid`, 'utf8').split('\n');
    return main && execFileSync(psql.replace(/psql$/, 'pg_controldata'), [`${work}/${each}/data`], { encoding: 'utf8' }).includes('in production');
  } catch {
    return false;
  }
});
const main = Number(readFileSync(`${work}/${primary}/data/postmaster.pid`, 'utf8').split('\n')[0]);
const sentBefore = sql(`select coalesce(max(sent_up_to), 0) from publish where account_id = ${account}`);
execFileSync('pkill', ['-9', '-f', `patroni ${work}/${primary}.yml`]);
execFileSync('pkill', ['-9', '-P', String(main)]);
process.kill(main, 'SIGKILL');
const killed = Date.now();
let outcome = await jobEnds(account, publish.id);
const went = await untilAnswered(() => ask('GET', `/api/accounts/${account}/publishes`));
if (went[0].state === 'interrupted') {
  await untilAnswered(session);
  const more = await untilAnswered(() => ask('POST', `/api/accounts/${account}/publishes/${went[0].id}/continue`, {}));
  outcome = await jobEnds(account, more.id);
}
console.log(
  `the primary database killed after ${sentBefore} items were sent: ${(await interrupted()).toFixed(1)} s without an answer, the publish over ${((Date.now() - killed) / 1000).toFixed(1)} s later`,
);
expect(`the publish comes to its end (${outcome.state}: ${outcome.message ?? ''})`, outcome.state === 'done');
expect(`it was killed in the middle of it (${sentBefore} sent)`, Number(sentBefore) > 0 && Number(sentBefore) < keywords);
expect('another database is the primary', sql('select pg_is_in_recovery()') === 'f');
const items = await (await fetch(`${network}/v1/accounts/fendrik-${account}/items`, { headers: { 'X-Network-Key': 'key' } })).json();
const there = items.filter((item) => item.kind === 3);
expect(`every keyword is on the network once (${there.length})`, new Set(there.map((item) => item.item.text)).size === keywords && there.length === keywords);
expect('every keyword is still here once', sql(`select count(*) from keyword where account_id = ${account} and not removed`) === String(keywords));
const after = await untilAnswered(() => ask('GET', status));
expect(`nothing is left to publish (${after.changes})`, after.changes === 0);
console.log(`${passed} passed, ${failed} failed`);
process.exitCode = failed === 0 ? 0 : 1;
