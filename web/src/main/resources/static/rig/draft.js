// A phrase that somebody has begun to write outlives a look at another machine: it is kept for this machine until it is gone on with or left.
import { baton } from '../js/baton.js';

const changed = (field) => {
  if (field.matches('[type=checkbox]')) return field.checked !== field.defaultChecked;
  if (field.matches('select'))
    return (
      field.selectedIndex !==
      Math.max(
        0,
        [...field.options].findIndex((o) => o.defaultSelected),
      )
    );
  return field.value !== field.defaultValue;
};
const place = () => `phrase-${document.querySelector('.phrases')?.dataset.at}`;

window.addEventListener('pagehide', () => {
  /** @type {HTMLFormElement} */
  const form = document.querySelector('.phrase-form');
  if (!form || ![...form.elements].some((field) => field.name && changed(field))) return;
  sessionStorage.setItem(
    place(),
    JSON.stringify({ id: form.dataset.id, fields: Object.fromEntries(new FormData(form)) }),
  );
});

const fill = (form, fields) => {
  for (const field of form.elements) {
    if (field.matches('[type=checkbox]')) field.checked = field.name in fields;
    else if (field.name in fields && field.name !== 'was') field.value = fields[field.name];
  }
};

/** @param {(id: string) => Promise<HTMLFormElement>} open opens the blanks of a phrase, '0' for a new one */
export const offerDraft = (open) => {
  const kept = sessionStorage.getItem(place());
  if (!kept) return;
  sessionStorage.removeItem(place());
  const { id, fields } = JSON.parse(kept);
  open(id).then((form) => {
    if (!form) return;
    fill(form, fields);
    baton.say('The phrase that you had begun to write is here again.');
  });
};
