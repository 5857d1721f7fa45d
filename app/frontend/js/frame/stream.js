// A worker that all pages of this browser share: it keeps one stream of events, because a browser opens only a few
// connections to a server, and hands each page what happens on its branch.

const NEWS = ['hello', 'revision', 'run'];

const pages = new Map();
const heads = new Map();
let source = null;
let branches = '';

const wanted = () => [...new Set(pages.values())].sort().join();

/** Tells every page of a branch. */
function tell(event, news) {
  for (const [port, branch] of pages) {
    if (branch === news.branch) {
      port.postMessage({ event, news });
    }
  }
}

function take(event, data) {
  const news = JSON.parse(data);
  if (news.number) {
    heads.set(news.branch, news.number);
  }
  tell(event, news);
}

/** Opens the stream again where pages of other branches have come or gone, or where it was ended. */
function tune() {
  if (wanted() === branches && source && source.readyState !== EventSource.CLOSED) {
    return;
  }
  branches = wanted();
  source?.close();
  source = null;
  if (branches) {
    const of = branches.split(',').map((branch) => `of=${encodeURIComponent(branch.replace('/p/', ''))}`);
    source = new EventSource(`/events?${of.join('&')}`);
    NEWS.forEach((event) => source.addEventListener(event, ({ data }) => take(event, data)));
    // Somebody has more browsers open than the server tells: this one is told again when a page is looked at.
    source.addEventListener('enough', () => source.close());
  }
}

self.onconnect = ({ ports: [port] }) => {
  port.onmessage = ({ data }) => {
    if (data.listen) {
      const known = pages.get(port) === data.listen;
      pages.set(port, data.listen);
      tune();
      if (!known && heads.has(data.listen)) {
        port.postMessage({ event: 'hello', news: { branch: data.listen, number: heads.get(data.listen) } });
      }
    } else {
      pages.delete(port);
      tune();
    }
  };
};
