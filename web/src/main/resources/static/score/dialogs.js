// The dialogs of the Score: its words, a section, and what is kept for other songs.
import { all, beatAt, change, paper, sheet } from './sheet.js';
import { chosen, mark } from './mark.js';
import { writing } from './writer.js';

let wordsWere = '';

// The keys are the score's again at once, not a moment later when the browser says that the dialog is closed.
const shut = (dialog) => {
  document.getElementById(dialog).close();
  paper.focus({ preventScroll: true });
};

export const section = (bar) => {
  /** @type {HTMLFormElement & { name: HTMLInputElement }} */
  const form = /** @type {any} */ (document.getElementById('section'));
  const letters = all('.letter').map((l) => l.dataset.letter);
  const known = sheet.querySelector(`.letter[data-bar="${bar}"]`);
  const names = known ? known.querySelector('.sect').textContent.split(' = ') : ['', ''];
  form.bar.value = bar;
  form.was.value = known?.dataset.was || 'none';
  document.getElementById('section-bar').textContent = bar;
  form.letter.value = known?.dataset.letter || [...'ABCDEFGHJKLMNOPQRSTUVWXYZ'].find((l) => !letters.includes(l)) || '';
  [form.name.value, form.as.value] = [names[0], names[1] || ''];
  document.getElementById('score-section').showModal();
  form.letter.select();
};
export const sectionHere = () => section(beatAt(mark.tick).bar);

/** A form of a dialog: what it changes, and the dialog is shut when that was taken. */
const posts = (form, dialog, rest, fields) => {
  document.getElementById(form).addEventListener('submit', async (e) => {
    e.preventDefault();
    e.target.classList.add('sent');
    if (await change(rest, fields(e.target))) shut(dialog);
  });
  document.getElementById(`leave-${form}`).addEventListener('click', () => shut(dialog));
};
posts('words', 'score-words', 'text', (f) => ({ score: f.score.value, was: wordsWere }));
posts('section', 'score-section', 'section', (f) => ({
  bar: f.bar.value,
  was: f.was.value,
  letter: f.letter.value,
  name: f.elements.name.value,
  as: f.as.value,
}));

document.addEventListener('drawn', () => {
  // What somebody is writing there is theirs.
  if (document.getElementById('score-words').open) return;
  wordsWere = document.getElementById('score-text').textContent;
  document.querySelector('#words textarea').value = wordsWere;
});

// ---- snippets

const snippets = document.getElementById('score-snippets');
const list = document.getElementById('score-snippets-body');
const nameChosen = () => {
  const place = list.querySelector('[data-chosen]');
  const several = chosen.size ? `the ${chosen.size} chosen cues` : 'the cues that you choose';
  if (place) place.textContent = chosen.size === 1 ? 'the chosen cue' : several;
};
list.addEventListener('htmx:afterSwap', nameChosen);
document.addEventListener('htmx:configRequest', (e) => {
  if (e.detail.elt.id === 'keep-snippet') e.detail.parameters.cues = [...chosen].join(',');
});
snippets.addEventListener('click', (e) => {
  const row = e.target.closest('[data-drop]')?.closest('tr');
  if (!row) return;
  shut('score-snippets');
  change('drop', { snippet: row.dataset.snippet, tick: mark.tick });
});

document.querySelectorAll('dialog').forEach((d) =>
  d.addEventListener('close', () =>
    setTimeout(() => {
      if (!writing()) paper.focus({ preventScroll: true });
    }),
  ),
);
