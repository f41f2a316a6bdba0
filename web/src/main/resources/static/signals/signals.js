// Listeners: made of what came in, written, deleted; a dialog shows the blanks of the kind that is chosen.
import { does } from '../js/keys.js';
const dialog = document.getElementById('listener');

/** Blanks of another kind are hidden and not sent. */
function fit(form) {
  const fields = form.elements;
  form.querySelectorAll('[data-how]').forEach((e) => {
    e.hidden = !e.dataset.how.split(' ').includes(fields.how.value);
  });
  form.querySelectorAll('[data-fills]').forEach((e) => {
    e.hidden = e.dataset.fills !== fields.fills.value;
  });
  form.querySelectorAll('fieldset[data-kind]').forEach((f) => {
    f.disabled = f.hidden = f.dataset.kind !== fields.kind.value;
  });
  form.querySelectorAll('fieldset[data-does]').forEach((f) => {
    f.disabled = f.hidden = !f.dataset.does.split(' ').includes(fields.does.value);
  });
  const way = form.querySelector('fieldset[data-kind=controller] [name=way]').value;
  form.querySelectorAll('[data-from]').forEach((e) => {
    e.hidden = e.dataset.from !== fields.from.value;
  });
  const isOpen = { says: fields.says.selectedOptions[0]?.dataset.argument, written: fields.words.value.includes('?') }[
    fields.how.value
  ];
  const blank = form.querySelector('[data-blank]');
  blank.hidden = !isOpen || fields.does.value !== 'relay';
  if (!isOpen) fields.fills.value = 'nothing';
  else if (fields.fills.value === 'nothing') {
    fields.fills.value = isOpen === 'text' ? 'named' : 'scaled';
    fit(form);
  }
  form.querySelectorAll('[data-way]').forEach((e) => {
    e.hidden = e.dataset.way !== way;
  });
}

dialog.addEventListener('change', (e) => fit(e.target.form));
dialog.addEventListener('input', (e) => {
  if (e.target.name === 'words') fit(e.target.form);
});
dialog.addEventListener('htmx:afterSwap', () => fit(dialog.querySelector('form')));

/** What a key does on a listener, its button does. */
const presses = (button) => (e) => {
  if (e.type !== 'keydown' || !e.target.matches('[data-listener]')) return false;
  e.target.querySelector(`[data-${button}]`).click();
  return true;
};
does({ change: presses('edit'), remove: presses('delete') });

document.getElementById('trial').addEventListener('keydown', (e) => {
  if (e.key === 'Escape') e.target.blur();
  if (e.key !== 'Enter' || !e.ctrlKey) return;
  e.preventDefault();
  document.querySelector('#tried [data-send]')?.click();
});
