// The Desk's keys, buttons and clocks. Orders go straight to the performer; the page follows by events.
import './lamps.js';
import { baton } from '../js/baton.js';
import { does, meaning, table as keys } from '../js/keys.js';
import { codeAt, here, last, until, whenMoved } from '../js/music.js';

// Stop all is held, the others are given at once.
const ORDERS = Object.keys(keys).filter((action) => keys[action].deed && action !== 'stop');
const HOLD_MILLIS = 600;
const bar = document.querySelector('.bar');
const path = (order) => `/shows/${baton.show}/desk/${order}`;

const labels = () => {
  const page = document.querySelector('.open-page');
  if (!page || !bar) return;
  for (const which of ['go', 'next', 'back'])
    bar.querySelector(`[data-number=${which}]`).textContent = page.dataset[which];
  bar.querySelector('.go').classList.toggle('idle', !page.dataset.go);
  bar.querySelector('.go').classList.toggle('asks', (page.dataset.words || '').startsWith('press'));
  bar.querySelector('[data-words]').textContent = page.dataset.words || '';
};

// Stop all is held, so that a sleeve on the key does not end the show.
let holding = null;
let heldBy = '';
const hold = () => {
  if (holding) return;
  bar.querySelector('.stop').classList.add('holding');
  holding = setTimeout(() => {
    baton.order('stop');
    release();
  }, HOLD_MILLIS);
};
const release = () => {
  clearTimeout(holding);
  holding = null;
  bar.querySelector('.stop').classList.remove('holding');
};

document.addEventListener('keydown', (e) => {
  // It works over an open sheet too, wherever no text is typed.
  if (
    !bar ||
    e.repeat ||
    meaning(e) !== 'stop' ||
    baton.pressedIn(e, 'input:not([type=checkbox], [type=radio]), textarea, select, [contenteditable], .listening')
  )
    return;
  e.preventDefault();
  heldBy = e.code;
  hold();
});
document.addEventListener('keyup', (e) => {
  if (holding && e.code === heldBy) release();
});
const stop = bar?.querySelector('.stop');
stop?.addEventListener('pointerdown', hold);
['pointerup', 'pointerleave', 'pointercancel'].forEach((end) => stop?.addEventListener(end, release));

const once = (act) => (e) => {
  if (!bar) return false;
  if (!e.repeat) act();
  // A button gives the focus back, or the next Enter would press it as well as GO.
  if (e.type === 'click') e.target.closest('button')?.blur();
  return true;
};
does(Object.fromEntries(ORDERS.map((order) => [order, once(() => baton.order(order))])));

// A cue's number that is typed beside its field (a page just drawn, a focus lost) ends with Enter, and that Enter is no GO.
const JUMP_MILLIS = 4000;
let jumping = 0;
const number = document.getElementById('jump-number');
does({
  jump: once(() => {
    jumping = Date.now();
    number.focus();
  }),
});
document.addEventListener(
  'keydown',
  (e) => {
    if (!jumping || meaning(e) === 'jump') return;
    const typing = document.activeElement === number;
    const beside = !typing && !baton.typing(e) && Date.now() - jumping < JUMP_MILLIS;
    if (/^[\d.bar ]$/i.test(e.key)) {
      if (typing || beside) jumping = Date.now();
      if (beside) e.preventDefault();
      return;
    }
    jumping = 0;
    if (e.key !== 'Enter' || !beside) return;
    e.preventDefault();
    baton.refuse('The field for a cue’s number was not there, so nothing was done: press / and type it again.');
  },
  true,
);
document.addEventListener(
  'pointerdown',
  () => {
    jumping = 0;
  },
  true,
);

const jump = document.getElementById('jump');
jump?.addEventListener('submit', async (e) => {
  e.preventDefault();
  const field = number;
  const inBar = field.value.match(/^\s*b(?:ar)?\s*(\d+)\s*$/i);
  if (inBar) {
    field.value = '';
    field.blur();
    document.dispatchEvent(new CustomEvent('from-bar', { detail: inBar[1] }));
    return;
  }
  if (await baton.post(path('jump'), { number: field.value })) {
    field.value = '';
    field.blur();
  } else field.select();
});
jump?.addEventListener('keydown', (e) => {
  if (e.key === 'Escape') {
    e.target.value = '';
    e.target.blur();
  }
});

const two = (n) => String(n).padStart(2, '0');
const clocks = () => {
  const now = new Date(baton.now());
  document.querySelectorAll('[data-clock]').forEach((e) => {
    e.textContent = `${two(now.getHours())}:${two(now.getMinutes())}`;
  });
  document.querySelectorAll('[data-at]').forEach((e) => {
    const at = new Date(Number(e.dataset.at));
    e.textContent = `${two(at.getHours())}:${two(at.getMinutes())}`;
  });
  document.querySelectorAll('[data-since]').forEach((e) => {
    const s = Math.max(0, Math.floor((now.getTime() - Number(e.dataset.since)) / 1000));
    e.textContent =
      s < 3600
        ? `${Math.floor(s / 60)}:${two(s % 60)}`
        : `${Math.floor(s / 3600)}:${two(Math.floor(s / 60) % 60)}:${two(s % 60)}`;
  });
  document.querySelectorAll('[data-until]').forEach((e) => {
    e.textContent = `${Math.max(0, (Number(e.dataset.until) - now.getTime()) / 1000).toFixed(1)} s`;
  });
};

// Where the music is, and how far off what comes by itself.
const place = () => {
  const music = here();
  const table = music?.table;
  document.querySelectorAll('[data-music]').forEach((e) => {
    e.hidden = !table || (e.querySelector('[data-left]') ? !table.end : !table.beats.length);
  });
  const code = document.querySelector('[data-code]');
  if (code) code.textContent = (music && codeAt(music)) || '';
  if (!music) return;
  const { ms } = music;
  const beat = last(table.beats, ms, (b) => b[0]);
  const where = document.querySelector('[data-bar]');
  if (where) where.textContent = beat ? `${beat[1]}:${beat[2]}` : '';
  const section = document.querySelector('[data-section]');
  if (section)
    section.textContent = `${last(table.sections, ms, (b) => b.at)?.name || 'bar and beat'}${music.paused ? ', paused' : ''}${music.pace === 1000 ? '' : `, tempo ${music.pace / 10} %`}`;
  document.querySelectorAll('[data-pos]').forEach((e) => {
    const { bars, seconds } = until(music, Number(e.dataset.pos));
    const left = `${seconds.toFixed(1)} s`;
    e.textContent = bars > 0 ? `${bars} ${bars === 1 ? 'bar' : 'bars'}, ${left}` : left;
  });
  const left = document.querySelector('[data-left]');
  // While a vamp goes round, what is left begins behind it.
  const vamps = music.vampTo > 0 && ms >= music.vampFrom;
  const s = Math.round((table.end - (vamps ? music.vampTo : ms)) / music.pace);
  if (left) left.textContent = `${s < 0 ? '+' : ''}${Math.floor(Math.abs(s) / 60)}:${two(Math.abs(s) % 60)}`;
  const words = vamps ? 'after GO' : 'remaining';
  if (left) left.nextElementSibling.textContent = s < 0 ? 'over' : words;
};
whenMoved(place);
setInterval(place, 50);

// Another show was put on the desk: what stands here, an open sheet too, belongs to none until this one is there again.
document.addEventListener('live', (e) => {
  if (e.detail.topic !== 'desk') return;
  const left = !e.detail.data.trim();
  document.body.classList.toggle('left-the-desk', left);
  if (left) document.querySelectorAll('dialog[open]').forEach((dialog) => dialog.close());
});

// A machine that is lost, or says that it did something else, stands at the top and is read aloud; so is the cue that was given last.
const away = document.getElementById('away');
const given = document.getElementById('given');
const machineTrouble = (machine) =>
  `${machine.dataset.device} ${machine.dataset.reached === 'false' ? 'is not reached' : machine.querySelector('.behind b')?.textContent}`;
let before = null;
const announce = () => {
  if (!away) return;
  const words = [...document.querySelectorAll('#lamps li.bad')].map(machineTrouble).join('; ');
  if (away.textContent !== words) away.textContent = words;
  const cue = document.querySelector('.open-page [data-since] + small b')?.textContent || '';
  if (before !== null && cue !== before) given.textContent = cue ? `Cue ${cue} given` : '';
  before = cue;
};
document.addEventListener('live', () => {
  labels();
  clocks();
  place();
  announce();
});
announce();
labels();
clocks();
setInterval(clocks, 100);
