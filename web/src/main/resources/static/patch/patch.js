// Patch sets: looked at, edited, kept and loaded. What a button does stands at the button; here is what keys, the clipboard and
// the running show do besides.
import { baton } from '../js/baton.js';
import { does } from '../js/keys.js';
import { following } from './following.js';

const place = document.getElementById('patch');
const ASK_MS = 3000;

const body = () => place.querySelector('.patch');
const chosen = () => body().dataset.chosen;
const path = (what) => `/shows/${baton.show}/patch${what}`;
const { follow } = following(place);
const ask = (verb, what, values) =>
  htmx.ajax(verb, path(what), { source: place, target: place, swap: 'morph', values }).catch(() => {});

place.addEventListener('htmx:afterSettle', (e) => {
  if (e.detail.target !== place) return;
  follow();
  history.replaceState(null, '', path(chosen() ? `?set=${chosen()}` : ''));
  if (body().dataset.done) baton.say(body().dataset.done);
});
document.addEventListener('step', (e) => {
  e.preventDefault();
  ask('POST', `/${e.detail.step}`, { set: chosen() || 0 });
});

// What is in use is looked at anew when it changes, but not while something is on its way: the set that is looked at may be another by then.
let stale = false;
const onItsWay = () => document.querySelector('.htmx-request') !== null;
const look = () => {
  stale = onItsWay();
  if (!stale && !document.getElementById('gone')) ask('GET', '/body', { set: chosen() || 0 });
};
document.addEventListener('live', (e) => {
  if (e.detail.topic === 'patch') look();
});
document.addEventListener('htmx:afterRequest', () =>
  setTimeout(() => {
    if (stale) look();
  }),
);

// ---- loading by key: a second, deliberate act

let asking = 0;
const rest = (words) => {
  asking = 0;
  const button = document.getElementById('load');
  button?.classList.remove('asks');
  if (button) button.querySelector('span').textContent = words;
};
const load = (e) => {
  const button = document.getElementById('load');
  if (e.type !== 'keydown' || !button) return false;
  const says = button.querySelector('span');
  if (Date.now() < asking) {
    button.click();
    return true;
  }
  const before = says.textContent;
  asking = Date.now() + ASK_MS;
  button.classList.add('asks');
  says.textContent = `again: load ${body().dataset.name}`;
  setTimeout(() => rest(before), ASK_MS);
  return true;
};

// ---- on a line, and from one to the next

const onLine = () => document.activeElement.closest('#lines tr[data-mark]');
const ofLine = (act) => (e) => {
  if (e.type !== 'keydown' || onLine() !== e.target) return false;
  e.target.querySelector(`button[data-act=${act}]`).click();
  return true;
};
const beside = (by) => () => {
  const focused = document.activeElement;
  const list = [...document.querySelectorAll(focused.closest('#sets') ? '#sets a' : '#lines tr[data-mark]')];
  if (!list.includes(focused)) return false;
  const next = list[list.indexOf(focused) + by];
  next?.focus();
  if (next?.dataset.set) next.click();
  return true;
};
does({ load, changeLine: ofLine('changeLine'), deleteLine: ofLine('deleteLine'), up: beside(-1), down: beside(1) });

// ---- the clipboard

document.addEventListener('copy', (e) => {
  const line = onLine();
  if (!line) return;
  e.preventDefault();
  e.clipboardData.setData('text/plain', line.dataset.copy);
  baton.say('The line is copied.');
});
document.addEventListener('paste', (e) => {
  if (baton.typing(e) || !chosen()) return;
  e.preventDefault();
  ask('POST', `/${chosen()}/paste`, { line: e.clipboardData.getData('text/plain') });
});
follow();
