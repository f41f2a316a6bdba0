// The phrasebook by keyboard: choose, change, fire, duplicate, delete; and what belongs to it: lists, families, learning.
import { baton } from '../js/baton.js';
import { does, meaning, named } from '../js/keys.js';
import { offerDraft } from './draft.js';
import './kinds.js';
import { choose, leaveSeveral, pressed } from './several.js';
const ARMED_MILLIS = 3000;
const at = () => document.querySelector('.phrases').dataset.at;
const entries = () => [...document.querySelectorAll('.entry')];
const draw = (verb, path, target = '#phrases', values = {}) =>
  htmx
    .ajax(verb, `${at()}${path}`, {
      source: document.querySelector(target),
      target,
      swap: target === '#phrases' ? 'morph' : 'innerHTML',
      values,
    })
    .catch(() => {});

// ---- firing: a guarded phrase wants a second press within three seconds, by the rule of the engine; the key shows it

const fire = (entry) => {
  const button = entry.querySelector('[data-fire]');
  const again = button.classList.contains('armed');
  button.classList.remove('armed');
  button.textContent = 'fire';
  if (entry.dataset.guarded === 'true' && !again) {
    button.classList.add('armed');
    button.textContent = 'fire?';
    setTimeout(() => {
      button.classList.remove('armed');
      button.textContent = 'fire';
    }, ARMED_MILLIS);
  }
  const amount = entry.querySelector('.amount')?.value || '';
  baton.post(`${at()}/phrases/${entry.dataset.phrase}/fire`, { amount }).then((done) => {
    if (done) baton.say(`Fired: ${entry.dataset.name}${amount ? ` → ${amount}` : ''}`);
  });
};

// ---- its answer is learnt: it is fired once, and what the machine says then is written into the blank

const hearAnswer = (form) => {
  const button = form.querySelector('[data-hear-answer]');
  button.disabled = true;
  baton.say(form.querySelector('[name=unit]').value ? 'Listening: move it at the machine.' : 'Fired; listening.');
  return baton
    .post(`${at()}/learn/answer`, { phrase: form.dataset.id })
    .then((done) => done?.text())
    .then((words) => {
      button.disabled = false;
      if (words === undefined) return;
      form.querySelector('[name=answer]').value = words;
      form.querySelector('[name=answer]').focus();
      baton.say(`It says: ${words}`);
    });
};

// ---- writing: the blanks open in the place of the entry

let back = 0;
const write = (entry) => {
  back = entry.dataset.phrase;
  return baton
    .ask(`${at()}/phrases/${back}`)
    .then((response) => response?.text())
    .then((html) => {
      if (html === undefined) return;
      leave();
      entry.hidden = true;
      entry.insertAdjacentHTML('afterend', html);
      const blanks = entry.nextElementSibling;
      htmx.process(blanks);
      blanks.querySelector('[name=name]').focus();
      blanks.scrollIntoView({ block: 'nearest' });
    });
};
const writeNew = () => {
  leave();
  return draw('GET', '/phrases/0', '#new-phrase');
};
const leave = () => {
  document.querySelectorAll('.blanks').forEach((b) => b.remove());
  entries().forEach((e) => {
    e.hidden = false;
  });
  baton.clear();
};
const toEntry = (id) => document.querySelector(`.entry[data-phrase="${id}"]`)?.focus();
const remove = (id, used, name) => {
  if (used > 0 && !window.confirm(`Delete “${name}”? ${used} cues call it and will lose it. Undo brings it back.`))
    return;
  const all = entries();
  const next = all[all.findIndex((e) => e.dataset.phrase === `${id}`) + 1];
  draw('POST', `/phrases/${id}/delete`).then(() => next && toEntry(next.dataset.phrase));
};

document.addEventListener('click', (e) => {
  const entry = e.target.closest('.entry');
  if (e.target.closest('[data-fire]')) fire(entry);
  else if (entry && !e.target.closest('.amount') && !pressed(entry, e)) write(entry);
  const box = e.target.closest('[data-box]')?.dataset;
  if (box) draw('GET', box.box, box.into);
  if (e.target.closest('[data-leave]')) {
    leave();
    toEntry(back);
  }
  if (e.target.closest('[data-leave-box]')) e.target.closest('form').remove();
  // What was pasted stays in its box.
  if (e.target.closest('[data-leave-preview]')) {
    document.querySelector('#preview').replaceChildren();
    document.querySelector('[commandfor=paste][command=show-modal]')?.focus();
  }
  const keep = e.target.closest('[data-keep]')?.dataset.keep;
  if (keep) {
    const said = document.querySelector('.question [name=keep]');
    said.value = keep;
    said.form.requestSubmit();
  }
  const form = e.target.closest('.phrase-form');
  if (e.target.closest('[data-copy]')) draw('POST', `/phrases/${form.dataset.id}/copy`);
  if (e.target.closest('[data-delete]'))
    remove(form.dataset.id, Number(form.dataset.used), form.querySelector('[name=name]').value);
  if (e.target.closest('[data-hear-answer]')) hearAnswer(form);
  const found = e.target.closest('[data-take]')?.dataset;
  if (found) {
    const prose = document.querySelector('.prose');
    for (const [field, value] of [
      ['name', found.name],
      ['host', found.host],
      ['port', found.port],
      ['department', found.department],
    ])
      prose.querySelector(`[name=${field}]`).value = value;
    prose.querySelector('.main').focus();
  }
});

// After a change the place is kept: on the phrase that was written, or at the blanks for the next new one.
document.addEventListener('htmx:afterSettle', (e) => {
  if (!e.detail.requestConfig) return;
  if (e.detail.target.id === 'new-phrase') {
    back = 0;
    document.querySelector('#new-phrase [name=name]').focus();
  }
  if (e.detail.target.id !== 'phrases' || e.detail.requestConfig.verb !== 'post') return;
  const form = e.detail.elt.closest?.('.phrase-form') || null;
  if (/\/phrases$/.test(e.detail.requestConfig.path)) writeNew();
  else if (form || back) toEntry(back);
  const { kept } = document.querySelector('.phrases').dataset;
  if (kept) baton.say(kept);
});

// ---- keys

const toFirstAmount = (entry) => {
  const amount = entry.querySelector('.amount');
  if (amount && !amount.value) amount.focus();
  else fire(entry);
};
const beside = (by) => (entry) => {
  const all = entries();
  all[Math.max(0, Math.min(all.length - 1, all.indexOf(entry) + by))].focus();
};
const ON_AN_ENTRY = {
  down: beside(1),
  up: beside(-1),
  first: beside(-Infinity),
  last: beside(Infinity),
  duplicate: (entry) => draw('POST', `/phrases/${entry.dataset.phrase}/copy`),
  change: write,
  fire: toFirstAmount,
  choose,
  remove: (entry) => remove(entry.dataset.phrase, Number(entry.dataset.used), entry.dataset.name),
};
document.addEventListener('keydown', (e) => {
  const name = named(e);
  const entry = e.target.closest('.entry');
  let act;
  if (name === 'Escape' && document.querySelector('.blanks'))
    act = () => {
      leave();
      toEntry(back);
    };
  else if (name === 'Escape') {
    leaveSeveral();
    return;
  } else if (e.target.closest('.amount')) act = name === 'Enter' && fire;
  else if (baton.typing(e)) return;
  else if (e.target === entry) act = ON_AN_ENTRY[meaning(e)];
  if (!act) return;
  e.preventDefault();
  act(entry);
});

does({
  phrase: () => {
    writeNew();
  },
});

// ---- the machine's own list: a place typed anew is looked at before it is applied

document.addEventListener(
  'change',
  (e) => {
    const field = e.target.closest('[data-place]');
    if (field) {
      e.stopPropagation();
      draw('POST', '/list/move', '#preview', { phrase: field.closest('form').dataset.id, place: field.value });
    }
    const family = e.target.closest('.families [type=radio]');
    if (family) {
      /** @type {HTMLTextAreaElement} */
      const names = family.closest('form').querySelector('[name=names]');
      names.placeholder = family.dataset.examples;
      names.disabled = !family.dataset.examples;
      const first = family.closest('form').querySelector('[data-first]');
      first.hidden = !family.dataset.counted;
      first.querySelector('[data-counted]').textContent = family.dataset.counted;
    }
  },
  true,
);

// ---- learning: what came since learning began is ticked, unless somebody took the tick away

const unticked = new Set();
document.addEventListener('change', (e) => {
  const row = e.target.closest('[data-entry]');
  if (row) unticked[e.target.checked ? 'delete' : 'add'](row.dataset.entry);
});
const tick = () => {
  const since = Number(document.querySelector('.learn')?.dataset.since);
  document.querySelectorAll('[data-entry]').forEach((row) => {
    row.querySelector('input').checked = Number(row.dataset.entry) > since && !unticked.has(row.dataset.entry);
  });
};
document.addEventListener('live', (e) => {
  if (e.detail.topic === 'arrivals') tick();
  if (e.detail.topic === 'machines') mark();
});

// The list of machines is drawn anew by events; which one is open, only this page knows.
const mark = () => {
  const chosen = document.querySelector('.rig').dataset.chosen;
  document.querySelectorAll('.machine-list a').forEach((a) => {
    if (new URL(a.href).searchParams.get('device') === chosen) a.setAttribute('aria-current', 'true');
  });
};
offerDraft(async (id) => {
  const entry = document.querySelector(`.entry[data-phrase="${CSS.escape(id)}"]`);
  if (id === '0') await writeNew();
  else if (entry) await write(entry);
  return /** @type {HTMLFormElement} */ (document.querySelector('.phrase-form'));
});
document.addEventListener('htmx:afterSwap', mark);
mark();
