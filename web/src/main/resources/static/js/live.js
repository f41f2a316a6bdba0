import { baton } from './baton.js';
import { Line } from './line.js';
import { morph } from './morph.js';

// Keeps what a page shows up to date over the browser's one line, and gives orders over it. An element with data-live gets
// the drawings of that topic; with data-live-text their text alone; with data-live-event they are only told to scripts.
const show = Number(document.body.dataset.show || 0);
const waiting = new Map();
let count = 0;
let post;
let told = '';
let there = true;

const parts = () => [...new Set([...document.querySelectorAll('[data-live]')].map((e) => e.dataset.live))].sort();
const subscribe = () => {
  const topics = parts();
  if (topics.join() === told) return;
  told = topics.join();
  post({ show, topics });
};

const receive = (message) => {
  if ('line' in message) line(message.line);
  else if ('clock' in message) baton.behind = message.clock;
  else if (message.order) answered(message);
  else if (message.gone && message.show === show) document.body.classList.add('show-gone');
  else if (message.topic && message.show === show) drawn(message);
};

// A page that nobody sees keeps the newest drawing of each kind, and draws it when it is looked at: of thirty tabs one works.
const unseen = new Map();
const drawn = (drawing) => {
  if (document.hidden) unseen.set(drawing.topic, drawing);
  else draw(drawing);
};
document.addEventListener('visibilitychange', () => {
  if (document.hidden) return;
  const all = [...unseen.values()];
  unseen.clear();
  all.forEach(draw);
});

const draw = ({ topic, data }) => {
  document.querySelectorAll(`[data-live="${topic}"]`).forEach((element) => {
    if ('liveEvent' in element.dataset) return;
    if ('liveText' in element.dataset) element.textContent = data;
    else morph(element, data);
  });
  document.dispatchEvent(new CustomEvent('live', { detail: { topic, data } }));
};

const line = (now) => {
  there = now;
  document.body.classList.toggle('line-gone', !now);
  document.dispatchEvent(new CustomEvent('line', { detail: { there: now } }));
};

const answered = ({ order, words, unsent }) => {
  const own = order % 100000;
  waiting.get(own)?.(unsent ? null : words);
  waiting.delete(own);
};

/** Answers with why it was not done, an empty text when it was, or null when nobody knows. */
const order = (what) =>
  new Promise((done) => {
    const number = ++count;
    waiting.set(number, done);
    setTimeout(() => {
      if (waiting.delete(number)) done(null);
    }, 1500);
    post({ order: number, show, what });
  });

if (window.SharedWorker) {
  const worker = new SharedWorker(new URL('./line.js', import.meta.url), { name: 'Under Baton', type: 'module' });
  worker.port.onmessage = (e) => receive(e.data);
  post = (said) => worker.port.postMessage(said);
  window.addEventListener('pagehide', () => {
    told = '';
    post({ gone: true });
  });
  window.addEventListener('pageshow', (e) => {
    if (e.persisted) subscribe();
  });
} else {
  const own = new Line(`${location.protocol === 'https:' ? 'wss' : 'ws'}://${location.host}/live`, (page, message) =>
    receive(message),
  );
  post = (said) => own.take('1', said.order ? { ...said, order: 100000 + said.order } : { ...said, page: '1' });
}

/** Gives an order over the line; tells why when it was not done. */
baton.order = async (what) => {
  const words = there ? await order(what) : null;
  if (words === '') {
    baton.clear();
    return true;
  }
  if (words === null) baton.tell(null);
  else baton.refuse(words);
  return false;
};

/** To be called when what follows the line in a page is another now. */
export const follow = subscribe;
document.addEventListener('htmx:afterSettle', subscribe);
subscribe();
