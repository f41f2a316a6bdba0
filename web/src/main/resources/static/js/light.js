// Sets the light before anything is drawn. Desk and Room begin in running blues, the others in worklight.
(() => {
  const root = document.documentElement;
  const key = () => `baton-light-${root.dataset.lightOf || 'work'}`;
  const apply = (light) => {
    root.dataset.bsTheme = light === 'blues' ? 'dark' : 'light';
  };
  apply(localStorage.getItem(key()) || root.dataset.lightOf);
  // Paper is white, whatever the light.
  window.addEventListener('beforeprint', () => apply('work'));
  window.addEventListener('afterprint', () => apply(localStorage.getItem(key()) || root.dataset.lightOf));
  // The button names the light that it would turn to.
  const name = () =>
    document.querySelectorAll('[data-light]').forEach((b) => {
      const words = root.dataset.bsTheme === 'dark' ? 'worklight' : 'running blues';
      if (b.textContent !== words) b.textContent = words;
    });
  document.addEventListener('DOMContentLoaded', name);
  document.addEventListener('htmx:afterSettle', name);
  // What is drawn anew comes with the name that it had at the server.
  document.addEventListener('live', name);
  document.addEventListener('click', (e) => {
    if (!e.target.closest('[data-light]')) return;
    const next = root.dataset.bsTheme === 'dark' ? 'work' : 'blues';
    localStorage.setItem(key(), next);
    apply(next);
    name();
  });
})();
