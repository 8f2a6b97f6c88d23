/* The page that says that there is no connection: it goes on by itself when it is back. */
document.getElementById('again').addEventListener('click', () => location.reload());
addEventListener('online', () => location.reload());
