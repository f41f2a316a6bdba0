// The Desk's keys, buttons and clocks. Orders go straight to the performer; the page follows by events.
import { baton } from '../js/baton.js';
const first = { go: 'Enter', back: 'Backspace', next: 'ArrowDown', previous: 'ArrowUp', stop: 's', jump: '/', hold: 'h', pause: 'p', catch: 'c', places: 'l', up: 'u', on: 'g', section: 'v', now: 'n', release: 'r', earlier: ',', later: '.', tonight: 'a', take: 'e', note: 'm', write: 'w', faster: '+', slower: '-', from: 'f', toNext: 'j', listen: 'd' };
const words = { go: 'GO', back: 'Standby back', next: 'Standby on', previous: 'Standby back (second key)', stop: 'Stop all (held)', jump: 'Jump to a cue', hold: 'Hold: the band has stopped', pause: 'Pause, or go on playing', catch: 'Catch-up: make the machines right', places: 'Places of machines that only step', up: 'Bring up machines that were away', on: 'Go on where it stopped', section: 'Go on from the section’s start', now: 'Go on where the band is now, after an interruption', release: 'Leave the vamp', earlier: 'The music 20 ms earlier', later: 'The music 20 ms later', tonight: 'Who takes part tonight', take: 'Take over the edits that wait', note: 'A note at this moment', write: 'Write down where each GO comes', faster: 'Tempo up by 1 %', slower: 'Tempo down by 1 %', from: 'Play from a section, a bar or a cue', toNext: 'Cue to cue: to just before the next cue', listen: 'Listeners off, or on again' };
const orders = { go: 'go', back: 'back', previous: 'back', next: 'next', hold: 'hold', pause: 'pause', release: 'release', earlier: 'earlier', later: 'later', faster: 'faster', slower: 'slower' };
const HOLD_MILLIS = 600;
const keys = { ...first, ...JSON.parse(localStorage.getItem('baton-desk-keys') || '{}') };
const bar = document.querySelector('.bar');
const path = (order) => `/shows/${baton.show}/desk/${order}`;
const printed = (key) => key.replace(/^Arrow/, '').replace(/^ $/, 'Space').replace(/^[a-z]$/, (c) => c.toUpperCase());

const labels = () => {
  const page = document.querySelector('.open-page');
  if (!page || !bar) return;
  for (const which of ['go', 'next', 'back']) bar.querySelector(`[data-number=${which}]`).textContent = page.dataset[which];
  bar.querySelector('.go').classList.toggle('idle', !page.dataset.go);
  bar.querySelector('.go').classList.toggle('asks', (page.dataset.words || '').startsWith('press'));
  bar.querySelector('[data-words]').textContent = page.dataset.words || '';
  document.querySelectorAll('.bar [data-key], .open-page [data-key]').forEach((k) => { k.textContent = printed(keys[k.dataset.key]); });
};

// Stop all is held, so that a sleeve on the key does not end the show.
let holding = null;
const hold = () => {
  if (holding) return;
  bar.querySelector('.stop').classList.add('holding');
  holding = setTimeout(() => { baton.order('stop'); release(); }, HOLD_MILLIS);
};
const release = () => {
  clearTimeout(holding);
  holding = null;
  bar.querySelector('.stop').classList.remove('holding');
};

const doIt = (action) => {
  if (action === 'jump') document.getElementById('jump-number').focus();
  else if (orders[action]) baton.order(orders[action]);
  else document.dispatchEvent(new CustomEvent('desk-key', { detail: action }));
};

document.addEventListener('keydown', (e) => {
  if (!bar || e.ctrlKey || e.metaKey || e.altKey) return;
  const action = Object.keys(keys).find((a) => keys[a].toLowerCase() === e.key.toLowerCase());
  // Stop all works over an open sheet too, wherever no text is typed.
  const text = baton.pressedIn(e, 'input:not([type=checkbox], [type=radio]), textarea, select, [contenteditable], .listening');
  if (!action || (action === 'stop' ? text : baton.typing(e))) return;
  e.preventDefault();
  if (e.repeat) return;
  if (action === 'stop') hold(); else doIt(action);
});
document.addEventListener('keyup', (e) => { if (holding && e.key.toLowerCase() === keys.stop.toLowerCase()) release(); });

bar?.querySelectorAll('button[data-do]').forEach((button) => {
  const action = button.dataset.do;
  if (action === 'stop') {
    button.addEventListener('pointerdown', hold);
    ['pointerup', 'pointerleave', 'pointercancel'].forEach((end) => button.addEventListener(end, release));
  } else {
    // The button gives the focus back, or the next Enter would press it as well as GO.
    button.addEventListener('click', () => { doIt(action); button.blur(); });
  }
});

const jump = document.getElementById('jump');
jump?.addEventListener('submit', async (e) => {
  e.preventDefault();
  const field = jump.querySelector('input');
  const inBar = field.value.match(/^\s*b(?:ar)?\s*(\d+)\s*$/i);
  if (inBar) { field.value = ''; field.blur(); document.dispatchEvent(new CustomEvent('desk-key', { detail: `bar ${inBar[1]}` })); return; }
  if (await baton.post(path('jump'), { number: field.value })) { field.value = ''; field.blur(); } else field.select();
});
jump?.addEventListener('keydown', (e) => { if (e.key === 'Escape') { e.target.value = ''; e.target.blur(); } });

const two = (n) => String(n).padStart(2, '0');
const clocks = () => {
  const now = new Date();
  document.querySelectorAll('[data-clock]').forEach((e) => { e.textContent = `${two(now.getHours())}:${two(now.getMinutes())}`; });
  document.querySelectorAll('[data-at]').forEach((e) => { const at = new Date(Number(e.dataset.at)); e.textContent = `${two(at.getHours())}:${two(at.getMinutes())}`; });
  document.querySelectorAll('[data-since]').forEach((e) => {
    const s = Math.max(0, Math.floor((now - e.dataset.since) / 1000));
    e.textContent = s < 3600 ? `${Math.floor(s / 60)}:${two(s % 60)}` : `${Math.floor(s / 3600)}:${two(Math.floor(s / 60) % 60)}:${two(s % 60)}`;
  });
  document.querySelectorAll('[data-until]').forEach((e) => { e.textContent = `${Math.max(0, (e.dataset.until - now) / 1000).toFixed(1)} s`; });
};

// Where the music is: the performer tells the position at every change, the item's beats are asked for once.
let music = null; // { item, at, since, paused, table }
const playing = document.getElementById('playing');
const hear = async () => {
  let state = {};
  try { state = JSON.parse(playing.textContent || '{}'); } catch { return; }
  if (!state.item) { music = null; place(); return; }
  const now = { ...state, since: performance.now(), table: music?.plan === state.plan ? music.table : null };
  music = now;
  if (now.table) { place(); return; }
  const response = await fetch(`/shows/${baton.show}/desk/beats?item=${state.item}`).catch(() => null);
  if (response?.ok) { now.table = await response.json(); place(); }
};
const last = (list, ms, time) => { let low = -1; for (let high = list.length - 1; low < high;) { const m = (low + high + 1) >> 1; if (time(list[m]) <= ms) low = m; else high = m - 1; } return list[low]; };
const place = () => {
  const table = music?.table;
  const ms = music ? music.at + (music.paused ? 0 : (performance.now() - music.since) * music.pace / 1000) : 0;
  document.querySelectorAll('[data-music]').forEach((e) => { e.hidden = !table || (e.querySelector('[data-left]') ? !table.end : !table.beats.length); });
  if (!table) return;
  const beat = last(table.beats, ms, (b) => b[0]);
  const where = document.querySelector('[data-bar]');
  if (where) where.textContent = beat ? `${beat[1]}:${beat[2]}` : '';
  const section = document.querySelector('[data-section]');
  if (section) section.textContent = `${last(table.sections, ms, (b) => b.at)?.name || 'bar and beat'}${music.paused ? ', paused' : ''}${music.pace === 1000 ? '' : `, tempo ${music.pace / 10} %`}`;
  document.querySelectorAll('[data-pos]').forEach((e) => {
    const due = last(table.beats, Number(e.dataset.pos), (b) => b[0]);
    const bars = due && beat ? due[1] - beat[1] : 0;
    const seconds = Math.max(0, (e.dataset.pos - ms) / music.pace).toFixed(1);
    e.textContent = bars > 0 ? `${bars} ${bars === 1 ? 'bar' : 'bars'}, ${seconds} s` : `${seconds} s`;
  });
  const left = document.querySelector('[data-left]');
  const s = Math.round((table.end - ms) / music.pace);
  if (left) left.textContent = `${s < 0 ? '+' : ''}${Math.floor(Math.abs(s) / 60)}:${two(Math.abs(s) % 60)}`;
  if (left) left.nextElementSibling.textContent = s < 0 ? 'over' : 'left of it';
};
if (playing) new MutationObserver(hear).observe(playing, { childList: true, characterData: true, subtree: true });
setInterval(place, 50);

// Rebinding: choose a line, press a key.
const list = document.querySelector('.keys-list');
const drawKeys = () => {
  list.replaceChildren(...Object.keys(words).map((action) => {
    const row = document.createElement('tr');
    const button = Object.assign(document.createElement('button'), { type: 'button', className: 'firm', textContent: printed(keys[action]) });
    button.addEventListener('click', () => listen(button, action));
    const name = document.createElement('td');
    name.textContent = words[action];
    const cell = document.createElement('td');
    cell.append(button);
    row.append(name, cell);
    return row;
  }));
  labels();
};
const listen = (button, action) => {
  button.textContent = 'press a key';
  button.classList.add('listening');
  button.addEventListener('keydown', (e) => {
    e.preventDefault();
    e.stopPropagation();
    const owner = Object.keys(keys).find((a) => a !== action && keys[a].toLowerCase() === e.key.toLowerCase());
    if (e.key !== 'Escape' && owner) { button.textContent = `taken by ${words[owner]}`; return; }
    if (e.key !== 'Escape') { keys[action] = e.key; localStorage.setItem('baton-desk-keys', JSON.stringify(keys)); }
    drawKeys();
  }, { once: true });
};
document.querySelector('[data-keys-reset]')?.addEventListener('click', () => {
  Object.assign(keys, first);
  localStorage.removeItem('baton-desk-keys');
  drawKeys();
});

document.addEventListener('live', () => { labels(); clocks(); place(); });
if (list) drawKeys();
labels();
clocks();
setInterval(clocks, 100);
