import assert from 'node:assert/strict';
import { test } from 'node:test';

class Stream {
  static opened = [];
  static CLOSED = 2;
  readyState = 1;
  handlers = {};

  constructor(url) {
    this.url = url;
    Stream.opened.push(this);
  }

  addEventListener(event, handle) {
    this.handlers[event] = handle;
  }

  send(event, data) {
    this.handlers[event]({ data: JSON.stringify(data) });
  }

  close() {
    this.readyState = Stream.CLOSED;
  }
}

globalThis.self = {};
globalThis.EventSource = Stream;
await import('../js/frame/stream.js');

const page = () => {
  const port = { got: [], postMessage: (message) => port.got.push(message) };
  globalThis.self.onconnect({ ports: [port] });
  return {
    got: port.got,
    says: (data) => port.onmessage({ data }),
  };
};
const open = () => Stream.opened.filter(({ readyState }) => readyState !== Stream.CLOSED);

test('pages of one browser share one stream, and each hears of its own branch', () => {
  const one = page();
  const two = page();
  const other = page();
  one.says({ listen: '/p/a/main' });
  two.says({ listen: '/p/a/main' });
  assert.equal(Stream.opened.length, 1);
  assert.equal(open()[0].url, '/events?of=a%2Fmain');
  open()[0].send('hello', { branch: '/p/a/main', number: 3 });
  other.says({ listen: '/p/b/main' });
  assert.equal(open().length, 1);
  assert.equal(open()[0].url, '/events?of=a%2Fmain&of=b%2Fmain');
  open()[0].send('revision', { branch: '/p/b/main', number: 7, author: 'odo' });
  assert.deepEqual(one.got, two.got);
  assert.deepEqual(
    one.got.map(({ event, news }) => [event, news.number]),
    [['hello', 3]],
  );
  assert.deepEqual(
    other.got.map(({ event, news }) => [event, news.number]),
    [['revision', 7]],
  );
  [one, two, other].forEach((each) => each.says({ leave: true }));
  assert.equal(open().length, 0);
});

test('a page that comes later is told at once what is newest', () => {
  const one = page();
  one.says({ listen: '/p/c/main' });
  open()[0].send('hello', { branch: '/p/c/main', number: 3 });
  open()[0].send('revision', { branch: '/p/c/main', number: 4 });
  const late = page();
  late.says({ listen: '/p/c/main' });
  assert.deepEqual(late.got, [{ event: 'hello', news: { branch: '/p/c/main', number: 4 } }]);
});

test('a stream that the server has ended is opened again when a page is looked at', () => {
  const one = page();
  one.says({ listen: '/p/d/main' });
  const before = Stream.opened.length;
  open().forEach((stream) => stream.close());
  one.says({ listen: '/p/d/main' });
  assert.equal(Stream.opened.length, before + 1);
});
