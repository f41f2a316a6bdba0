// A phrase by the kind of its message and its numbers, and its effect by a sentence: both write the words, which stay beside them.

const SAID = {
  note: (f) => `note ${f.note}${f.at && ` at ${f.at}`}${f.for && ` for ${f.for} ms`}`,
  control: (f) => `control ${f.number} to ${f.to || '?'}`,
  program: (f) => `${f.bank && `bank ${f.bank} `}program ${f.program}`,
  bend: (f) => `bend ${f.bend}`,
  pressure: (f) => `pressure ${f.pressure}`,
  show: (f) => `show control go ${f.cue}${f.list && ` list ${f.list}`} to ${f.device || 127}`,
  machine: (f) => `machine control ${f.command}${f.command === 'locate' ? ` ${f.clock || '00:00:00:00'}` : ''} to 127`,
};

/** Those that go out on a channel. */
const PLAYED = ['note', 'control', 'program', 'bend', 'pressure'];

/** What stands before the message that is being made, by its form. */
const before = new WeakMap();

const parts = (box) =>
  Object.fromEntries([...box.querySelectorAll('[data-part]')].map((field) => [field.dataset.part, field.value.trim()]));

const write = (form) => {
  const kind = form.querySelector('[data-of-kind]').value;
  if (!kind) return;
  const channel = form.querySelector('[data-channel]')?.value.trim();
  const own = !channel || channel === form.querySelector('[data-channel]').placeholder || !PLAYED.includes(kind);
  const said = SAID[kind](parts(form.querySelector(`[data-kind="${kind}"]`))).replace(
    /( for \d+ ms)?$/,
    (length) => (own ? '' : ` on channel ${channel}`) + length,
  );
  form.says.value = (before.get(form) || '') + said;
  if (said.includes('?') && !form.elements.unit.value) form.elements.unit.value = 'per cent';
  // What a cue adds an amount to moves a level, unless somebody has said otherwise.
  if (said.includes('?') && form.effect.value === 'holds') {
    form.effect.value = 'levels';
    showEffect(form);
  }
};

const choose = (form) => {
  const kind = form.querySelector('[data-of-kind]').value;
  form.querySelectorAll('[data-kind]').forEach((box) => {
    box.hidden = box.dataset.kind !== kind;
  });
  form.querySelector('[data-more]').hidden = !kind;
  form.querySelector('[data-elsewhere]').hidden = !PLAYED.includes(kind);
};

document.addEventListener('input', (e) => {
  /** @type {HTMLFormElement} */
  const form = e.target.closest('.phrase-form');
  if (form && e.target.matches('[data-part], [data-channel]')) write(form);
  if (form && e.target === form.effect) showEffect(form);
});
document.addEventListener('change', (e) => {
  /** @type {HTMLFormElement} */
  const form = e.target.closest('.phrase-form');
  if (!form) return;
  if (e.target.matches('[data-of-kind]')) {
    choose(form);
    form.querySelector('[data-kind]:not([hidden]) [data-part]')?.focus();
  }
  if (e.target.matches('[data-part]')) write(form);
  if (e.target.matches('[data-effects]')) {
    form.effect.value = e.target.value;
    form.effect.focus();
  }
  if (e.target === form.effect) showEffect(form);
});
document.addEventListener('click', (e) => {
  /** @type {HTMLFormElement} */
  const form = e.target.closest('[data-another]')?.closest('.phrase-form');
  if (!form) return;
  before.set(form, `${form.says.value}; after ${form.querySelector('[data-gap]').value || 0} ms `);
  form.querySelectorAll('[data-part]').forEach((field) => {
    if (field.matches('input')) field.value = '';
  });
  form.querySelector('[data-kind]:not([hidden]) [data-part]')?.focus();
});

/** The sentence that begins as the words do. */
const showEffect = (form) => {
  const words = form.effect.value.trim();
  const select = form.querySelector('[data-effects]');
  const [kind] = words.split(' ');
  const fit =
    [...select.options].find((o) => o.value === words) ||
    [...select.options].find((o) => o.value.split(' ')[0] === kind);
  if (fit) select.value = fit.value;
  // What a scene takes along can be told; what is kept is seen in any case.
  const scene = form.querySelector('[data-of-scene]');
  scene.hidden = !/takes along .*levels/i.test(words) && !form.elements.leaves.value;
};
document.addEventListener('htmx:afterProcessNode', (e) => {
  if (e.target.matches?.('.phrase-form')) showEffect(e.target);
});
