// Changes of the book. While one is being kept, keys wait their turn, so that nobody can type faster than it is kept.
import { book, path } from './sheet.js';

const going = new Set();
const waiting = [];
/** @type {(taken: boolean) => void} */
let told = () => {};

/** Whether what comes now must wait. */
export const busy = () => going.size > 0 || waiting.length > 0;
/** Whether the book is being written, or drawn where the next key goes. */
export const writing = () => going.size > 0;

/** Does something when all that was begun is done. */
export const later = (act) => {
  if (busy()) waiting.push(act);
  else act();
};

// One that fails is told by the browser; the others do not wait for it.
const drain = () => {
  while (!going.size && waiting.length) {
    try {
      waiting.shift()();
    } catch (failed) {
      reportError(failed);
    }
  }
};

/** Keys wait until this is done. */
export const during = async (promise) => {
  going.add(promise);
  try {
    return await promise;
  } finally {
    going.delete(promise);
    setTimeout(drain);
  }
};

/**
 * Posts a change; answers whether it was taken.
 * @param {HTMLElement} dialog that is shut then, before the page says what was done; what is refused stays in it to be mended
 */
export const change = (rest, values = {}, dialog = null) =>
  new Promise((resolve) => {
    told = (taken) => {
      if (taken) dialog?.close();
      resolve(taken);
    };
    // With a source of its own: requests of one source wait for each other, and of those that wait only the last is sent.
    htmx.ajax('POST', path(rest), { source: book, target: '#book', swap: 'leaves settle:0ms', values }).catch(() => {});
  });

document.addEventListener('htmx:beforeRequest', (e) => {
  if (e.detail.target === book) going.add(e.detail.xhr);
});
for (const end of ['htmx:afterSettle', 'htmx:responseError', 'refused', 'htmx:sendError', 'htmx:timeout']) {
  document.addEventListener(end, (e) => {
    if (!going.delete(e.detail.xhr)) return;
    const taken = end === 'htmx:afterSettle';
    told(taken);
    if (taken) document.dispatchEvent(new CustomEvent('written'));
    setTimeout(drain);
  });
}
