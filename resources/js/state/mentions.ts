import { session } from './session.svelte';

/** A person named in a text by "@" and their handle, as the server finds it. */
const NAMED = /(?<![\w.@])@([a-z0-9]+(?:[._-][a-z0-9]+)*)/g;

export type Piece = { text: string; isPerson: boolean };

/** The text in pieces: what is said, and people by their names. */
export function pieces(text: string): Piece[] {
    const found: Piece[] = [];
    let from = 0;
    for (const match of text.matchAll(NAMED)) {
        const person = session.people.find((one) => one.handle === match[1]);
        if (!person) continue;
        found.push({ text: text.slice(from, match.index), isPerson: false }, { text: person.name, isPerson: true });
        from = match.index + match[0].length;
    }
    return [...found, { text: text.slice(from), isPerson: false }].filter((piece) => piece.text !== '');
}

/** What has been typed of a name in front of the caret; null where nobody is being named. */
export function namedSoFar(text: string, caret: number): string | null {
    return /(?:^|[\s(])@([\w.\- ]{0,30})$/.exec(text.slice(0, caret))?.[1] ?? null;
}

/** People whose name or handle, or a word of either, begins with what was typed. */
export function peopleNamed(typed: string): { handle: string; name: string }[] {
    const wanted = typed.toLowerCase();
    return session.people
        .filter((person) => person.active && person.id !== session.me?.id)
        .filter(({ name, handle }) => {
            const words = [name, handle, ...name.split(' '), ...handle.split('.')];
            return words.some((word) => word.toLowerCase().startsWith(wanted));
        })
        .slice(0, 6);
}
