/* What the page of a slip does where there is script: questions come up as they are needed, and what is typed is kept. */
const form = document.querySelector<HTMLFormElement>('form[data-slip]');

function answer(place: string): string {
    const data = form ? new FormData(form) : new FormData();
    const value = data.get(`answers[${place}]`);
    return typeof value === 'string' ? value : '';
}

function showWhatIsAsked(): void {
    for (const question of form?.querySelectorAll<HTMLElement>('[data-about]') ?? []) {
        question.hidden = answer(question.dataset.about ?? '') !== question.dataset.is;
    }
}

let waiting: number | undefined;
let sent = false;

function keep(): void {
    if (!form || sent || !/^\/slip\/[\w-]{43}$/.test(location.pathname)) return;
    const answers: Record<string, string> = {};
    for (const [name, value] of new FormData(form)) {
        const place = /^answers\[(\d+)\]/.exec(name)?.[1];
        if (place !== undefined && typeof value === 'string') answers[place] = value;
    }
    const told = form.querySelector('[data-kept]');
    fetch(`${location.pathname}/draft`, {
        method: 'POST',
        keepalive: true,
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ answers }),
    })
        .then((kept) => {
            if (told && kept.ok) told.textContent = form.dataset.keptSaid ?? '';
        })
        .catch(() => {
            if (told) told.textContent = form.dataset.notKept ?? '';
        });
}

form?.addEventListener('input', () => {
    showWhatIsAsked();
    window.clearTimeout(waiting);
    waiting = window.setTimeout(keep, 800);
});
form?.addEventListener('submit', () => {
    sent = true;
    window.clearTimeout(waiting);
    for (const button of form.querySelectorAll('button')) button.disabled = true;
});
// Back by the browser's own button, the page would keep its button dead.
window.addEventListener('pageshow', () => {
    sent = false;
    for (const button of form?.querySelectorAll('button') ?? []) button.disabled = false;
});
showWhatIsAsked();
