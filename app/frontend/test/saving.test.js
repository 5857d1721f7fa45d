import assert from 'node:assert/strict';
import { beforeEach, test } from 'node:test';
import { answerWith, later, openPage } from './page.js';

openPage();
const { postEdit } = await import('../js/frame/server.js');
const { refusal, save } = await import('../js/frame/saving.js');

let posted;

beforeEach(() => {
  openPage();
  posted = [];
});

const bodyOf = (options) => JSON.parse(options.body);
const notice = () => document.getElementById('saved').textContent;

test('a second edit waits for the first and builds on its revision', async () => {
  document.getElementById('revision').dataset.number = '40';
  const slow = later();
  answerWith((address, options) => {
    posted.push(bodyOf(options).base);
    return posted.length === 1 ? slow.promise : { body: { saved: true, revision: 'r42' } };
  });
  const first = postEdit('/a', (base) => ({ base }));
  const second = postEdit('/a', (base) => ({ base }));
  await new Promise((resolve) => setTimeout(resolve));
  assert.deepEqual(posted, [40]);
  slow.resolve({ body: { saved: true, revision: 'r41' } });
  await Promise.all([first, second]);
  assert.deepEqual(posted, [40, 41]);
});

test('an edit builds on what the page shows, where others saved in between', async () => {
  document.getElementById('revision').dataset.number = '60';
  answerWith((address, options) => {
    posted.push(bodyOf(options).base);
    return { body: { saved: true, revision: 'r63' } };
  });
  await postEdit('/a', (base) => ({ base }));
  await postEdit('/a', (base) => ({ base }));
  assert.deepEqual(posted, [60, 60]);
});

test('what was saved is told with its revision and an offer to undo', async () => {
  answerWith((address) =>
    address.endsWith('/links') ? { body: { saved: true, revision: 'r6', message: 'linked' } } : { body: '' },
  );
  assert.equal(await save('/links', { kind: 'derive' }), true);
  assert.equal(notice(), 'linked · r6Undo');
  assert.equal(document.querySelector('#saved button').dataset.turn, 'undo');
});

test('a refusal is told, without an offer to undo', async () => {
  answerWith(() => ({ status: 422, body: { saved: false, message: 'the rules allow no such link' } }));
  assert.equal(await save('/links', {}), false);
  assert.equal(notice(), 'the rules allow no such link');
  assert.equal(document.querySelector('#saved button'), null);
});

test('a dialog gets the sentence that refuses it and stays open', async () => {
  answerWith(() => ({ status: 422, body: { saved: false, message: 'give it a name' } }));
  assert.equal(await refusal('/views', {}), 'give it a name');
  assert.equal(document.getElementById('saved').hidden, true);
});

test('a lost connection and an ended session lose nothing and say so', async () => {
  globalThis.fetch = () => Promise.reject(new TypeError('offline'));
  assert.match((await postEdit('/a', () => ({}))).body.message, /cannot be reached; what you typed is still here/);
  answerWith(() => ({ status: 401 }));
  assert.match((await postEdit('/a', () => ({}))).body.message, /Sign in in another tab/);
});
