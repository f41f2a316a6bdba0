// Firing from a line (a guarded phrase wants a second press within three seconds), and undo by key.
(() => {
  const ARMED_MILLIS = 3000;
  document.addEventListener('click', (e) => {
    const button = e.target.closest('[data-fire]');
    if (!button) return;
    const line = button.closest('.phrase');
    if (button.dataset.guarded === 'true' && !button.classList.contains('armed')) {
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
