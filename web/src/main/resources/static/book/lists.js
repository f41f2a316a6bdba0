// The dialogs of the Book: marks and notes, new numbers, the cue list as a table.
(() => {
  const { cues, rows, change, path, row, several } = bookPage;

  // ---- marks and notes

  const remarks = document.getElementById('remarks');
  bookPage.openRemarks = () => {
    const at = row();
    const many = cues().length > 1;
    document.getElementById('book-remarks-title').textContent = many ? `Mark ${cues().length} cues` : `Cue ${at.dataset.number}: mark and note`;
    remarks.mark.value = at.dataset.mark;
    remarks.note.value = at.dataset.note || '';
    remarks.note.disabled = many;
    document.getElementById('remarks-note').hidden = many;
    document.getElementById('book-remarks').showModal();
    (many ? remarks.querySelector('[name=mark]:checked') : remarks.note).focus();
  };
  remarks.addEventListener('submit', (e) => {
    e.preventDefault();
    const fields = { cues: cues(), mark: remarks.mark.value };
    if (!remarks.note.disabled) fields.note = remarks.note.value;
    change('remarks', fields);
    document.getElementById('book-remarks').close();
  });

  // ---- numbers

  const numbers = document.getElementById('numbers');
  const which = () => ({ chosen: cues(), item: [...(row()?.closest('tbody').querySelectorAll('tr.cue') || [])].map((r) => r.dataset.cue), all: rows().map((r) => r.dataset.cue) })[numbers.which.value];
  let previews = 0;
  const previewNumbers = async () => {
    const these = which();
    const turn = ++previews;
    const place = document.getElementById('numbers-preview');
    if (!these.length) { place.textContent = 'Choose a cue first.'; return; }
    const response = await fetch(path(`numbers?${new URLSearchParams({ cues: these, first: numbers.first.value, step: numbers.step.value })}`)).catch(() => null);
    const words = await response?.text();
    if (turn !== previews) return;
    if (response) { place.innerHTML = words; place.querySelector('[data-close]')?.remove(); }
    numbers.querySelector('.main').disabled = !response?.ok;
  };
  const openNumbers = () => {
    numbers.which.value = several() ? 'chosen' : row() ? 'item' : 'all';
    firstNumber();
    document.getElementById('book-numbers').showModal();
    numbers.first.select();
  };
  const firstNumber = () => { numbers.first.value = rows().find((r) => r.dataset.cue === which()[0])?.dataset.number || '1'; previewNumbers(); };
  numbers.which.addEventListener('change', firstNumber);
  numbers.addEventListener('input', (e) => { if (e.target !== numbers.which) previewNumbers(); });
  numbers.addEventListener('submit', (e) => {
    e.preventDefault();
    change('numbers', { cues: which(), first: numbers.first.value, step: numbers.step.value });
    document.getElementById('book-numbers').close();
  });
  document.querySelector('[data-renumber]').addEventListener('click', openNumbers);

  // ---- the whole list as a table

  document.getElementById('book-list').addEventListener('submit', (e) => {
    if (e.target.id !== 'take-list') return;
    e.preventDefault();
    change('list/take', Object.fromEntries(new FormData(e.target)));
    document.getElementById('book-list').close();
    document.getElementById('book-list-change').replaceChildren();
  });
  document.addEventListener('click', (e) => { if (e.target.closest('[data-shuts]')) e.target.closest('dialog').close(); });
})();
