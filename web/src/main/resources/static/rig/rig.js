// Firing from a line (a guarded phrase wants a second press within three seconds), and undo by key.
(() => {
  const ARMED_MILLIS = 3000;
  document.addEventListener('click', (e) => {
    const button = e.target.closest('[data-fire]');
    if (!button) return;
    const line = button.closest('.phrase');
    if (line.querySelector('[name=guarded]').checked && !button.classList.contains('armed')) {
      button.classList.add('armed');
      button.textContent = 'fire?';
      setTimeout(() => { button.classList.remove('armed'); button.textContent = 'fire'; }, ARMED_MILLIS);
      return;
    }
    button.classList.remove('armed');
    button.textContent = 'fire';
    baton.post(`${line.getAttribute('hx-post')}/fire`).then((done) => {
      if (done) baton.say(`Fired: ${line.querySelector('[name=name]').value}`);
    });
  });
  // A place typed anew is looked at before it is applied.
  document.addEventListener('change', (e) => {
    const field = e.target.closest('[data-place]');
    if (!field) return;
    e.stopPropagation();
    const line = field.closest('.phrase');
    const path = line.getAttribute('hx-post').replace(/phrases\/\d+$/, 'list/move');
    htmx.ajax('POST', path, { source: field, target: '#preview', swap: 'innerHTML', values: { phrase: line.dataset.phrase, place: field.value } })
      .catch(() => {});
  }, true);
  document.addEventListener('click', (e) => {
    if (e.target.closest('[data-leave-preview]')) location.reload();
  });

  // The list of machines is drawn anew by events; which one is open, only this page knows.
  const mark = () => {
    const chosen = document.querySelector('.rig').dataset.chosen;
    document.querySelectorAll('.machine-list a').forEach((a) => {
      if (new URL(a.href).searchParams.get('device') === chosen) a.setAttribute('aria-current', 'true');
    });
  };
  document.addEventListener('htmx:afterSwap', mark);
  mark();

  document.addEventListener('keydown', (e) => {
    if (e.ctrlKey && e.key.toLowerCase() === 'z' && !baton.typing(e)) {
      e.preventDefault();
      document.querySelector('form[action*="/rig/undo"]').requestSubmit();
    }
  });
})();
