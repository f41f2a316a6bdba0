// The dialogs of the Book: marks and notes, new numbers, the cue list as a table.
import { cues, path, row } from './sheet.js';
import { block, chosenCue, several } from './choice.js';
import { change } from './writing.js';

// ---- marks and notes

const ids = (of) => of.map((c) => c.id).join(',');
/** @type {HTMLFormElement} */
const remarks = /** @type {any} */ (document.getElementById('remarks'));
export const openRemarks = () => {
  const { mark, note, number } = row(chosenCue().id).dataset;
  const count = block().cues.length;
  const many = count > 1;
  document.getElementById('book-remarks-title').textContent = many
    ? `Mark ${count} cues`
    : `Cue ${number}: mark and note`;
  remarks.mark.value = mark;
  remarks.dataset.was = many ? '' : `${mark} ${note || ''}`.trim();
  remarks.note.value = note || '';
  remarks.note.disabled = many;
  document.getElementById('remarks-note').hidden = many;
  document.getElementById('book-remarks').showModal();
  (many ? remarks.querySelector('[name=mark]:checked') : remarks.note).focus();
};
remarks.addEventListener('submit', (e) => {
  e.preventDefault();
  const fields = { cues: ids(block().cues), mark: remarks.mark.value, was: remarks.dataset.was };
  if (!remarks.note.disabled) fields.note = remarks.note.value;
  change('remarks', fields, document.getElementById('book-remarks'));
});

// ---- numbers

/** @type {HTMLFormElement} */
const numbers = /** @type {any} */ (document.getElementById('numbers'));
const which = () =>
  ({ chosen: () => block().cues, item: () => cues().filter((c) => c.item === chosenCue()?.item), all: cues })[
    numbers.which.value
  ]();
let previews = 0;
const previewNumbers = async () => {
  const these = which();
  const turn = ++previews;
  const place = document.getElementById('numbers-preview');
  if (!these.length) {
    place.textContent = 'Choose a cue first.';
    return;
  }
  const response = await fetch(
    path(
      `numbers?${new URLSearchParams({ from: these[0].id, to: these.at(-1).id, first: numbers.first.value, step: numbers.step.value })}`,
    ),
    { headers: { 'Baton-Page': 'yes' } },
  ).catch(() => null);
  const words = await response?.text();
  if (turn !== previews) return;
  if (response) {
    place.innerHTML = words;
    place.querySelector('[data-close]')?.remove();
  }
  numbers.querySelector('.main').disabled = !response?.ok || response.headers.has('Baton-Refused');
};
const openNumbers = () => {
  const one = chosenCue() ? 'item' : 'all';
  numbers.which.value = several() ? 'chosen' : one;
  firstNumber();
  document.getElementById('book-numbers').showModal();
  numbers.first.select();
};
const firstNumber = () => {
  numbers.first.value = which()[0]?.number || '1';
  previewNumbers();
};
numbers.which.addEventListener('change', firstNumber);
numbers.addEventListener('input', (e) => {
  if (e.target !== numbers.which) previewNumbers();
});
numbers.addEventListener('submit', (e) => {
  e.preventDefault();
  change(
    'numbers',
    { cues: ids(which()), first: numbers.first.value, step: numbers.step.value },
    document.getElementById('book-numbers'),
  );
});
document.querySelector('[data-renumber]').addEventListener('click', openNumbers);

// ---- the whole list as a table

document.getElementById('book-list').addEventListener('submit', async (e) => {
  if (e.target.id !== 'take-list') return;
  e.preventDefault();
  if (
    !(await change(
      'list/take',
      Object.fromEntries(new FormData(/** @type {HTMLFormElement} */ (e.target))),
      document.getElementById('book-list'),
    ))
  )
    return;
  document.getElementById('book-list-change').replaceChildren();
});
