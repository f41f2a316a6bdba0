// Another performance is shown as soon as it is chosen; paper gets what the screen shows.
document.getElementById('run')?.addEventListener('change', (e) => e.target.form.submit());
document.querySelector('[data-print]')?.addEventListener('click', () => window.print());
