// The wall sheet's one button.
document.addEventListener('click', (e) => { if (e.target.closest('[data-print]')) window.print(); });
