// Talking to the server: one way to post, with the token that proves the page is ours.

const meta = (name) => document.querySelector(`meta[name="${name}"]`)?.content ?? '';

/** The address of the branch this page belongs to. */
export const branch = () => meta('pyrite-branch');

/** The revision that is being read where that is not the newest, else empty. */
export const past = () => meta('pyrite-at');

/** An address of this branch, at the revision that is being read. */
export const at = (path) => {
  const address = `${branch()}/${path}`;
  return past() ? `${address}${path.includes('?') ? '&' : '?'}at=${past()}` : address;
};

/** The revision this page was made from. */
export const revision = () => Number(document.getElementById('revision')?.dataset.number ?? 0);

export const person = () => meta('pyrite-person');

// The revisions this page made. Where they follow on what it shows without a gap, they are nobody else's changes.
const own = new Set();
let turn = Promise.resolve();

function known() {
  let number = revision();
  while (own.has(number + 1)) {
    number++;
  }
  return number;
}

/** The revision that an edit begun now builds on, once the edits already on their way have arrived. */
export const base = () => turn.then(known);

/**
 * Posts an edit when those before it have arrived, so that the second of two quick ones does not find the first in its way.
 *
 * @param make the data, from the revision the edit builds on
 */
export function postEdit(address, make) {
  const answer = turn.then(() => post(address, make(known())));
  turn = answer.catch(() => {});
  return answer;
}

const send = (address, data) =>
  fetch(address, {
    method: 'POST',
    headers: {
      ...(data instanceof FormData ? {} : { 'Content-Type': 'application/json' }),
      'X-Requested-With': 'fetch',
      [meta('csrf-header')]: meta('csrf-token'),
    },
    body: data === undefined || data instanceof FormData ? data : JSON.stringify(data),
  });

/** The newest revision there is, for whoever edits again what others have overtaken. */
export async function newestRevision() {
  const response = await fetch(location.href, { headers: { 'X-Requested-With': 'fetch' } });
  const fresh = new DOMParser().parseFromString(await response.text(), 'text/html');
  return Number(fresh.getElementById('revision')?.dataset.number ?? revision());
}

/** Takes the token of the session that is there now; whether it is another one than this page was made with. */
async function tokenIsNew() {
  const response = await fetch(location.href, { headers: { 'X-Requested-With': 'fetch' } });
  const fresh = new DOMParser()
    .parseFromString(await response.text(), 'text/html')
    .querySelector('meta[name="csrf-token"]')?.content;
  const before = meta('csrf-token');
  if (response.ok && fresh) {
    document.querySelector('meta[name="csrf-token"]').content = fresh;
  }
  return response.ok && fresh !== undefined && fresh !== before;
}

/**
 * Posts JSON, or a form with its files, and returns { status, body }. If the session has ended, the message says so and
 * nothing typed is lost: after signing in again in another tab the same page goes on.
 */
export async function post(address, data) {
  let response;
  try {
    response = await send(address, data);
    if (response.status === 403 && (await tokenIsNew())) {
      response = await send(address, data);
    }
  } catch {
    return { status: 0, body: { message: 'The server cannot be reached; what you typed is still here. Try again.' } };
  }
  if (response.status === 401) {
    return { status: 401, body: { message: 'Your session has ended. Sign in in another tab, then save again.' } };
  }
  if (response.status === 403) {
    return { status: 403, body: { message: 'Your role may read this, not change it.' } };
  }
  if (response.status === 413) {
    return {
      status: 413,
      body: {
        message:
          'That is more than the server accepts at once. What you typed is still here; save it in smaller parts.',
      },
    };
  }
  const text = await response.text();
  const body = text && response.headers.get('Content-Type')?.includes('json') ? JSON.parse(text) : {};
  if (body.saved && body.revision) {
    own.add(Number(body.revision.slice(1)));
  }
  return {
    status: response.status,
    body: { message: body.detail ?? `The server answered ${response.status}.`, ...body },
  };
}
