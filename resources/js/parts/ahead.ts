/* Letters typed on a word before its editor has taken the keyboard; none of them is lost. */
let letters = '';

export const ahead = {
    add(key: string): void {
        letters += key === 'Enter' ? '\n' : key;
    },
    take(): string {
        const taken = letters;
        letters = '';
        return taken;
    },
};

/** A key that writes: a letter, a digit or a sign, and no shortcut. */
export function writes(event: KeyboardEvent): boolean {
    return event.key.length === 1 && event.key !== ' ' && !event.ctrlKey && !event.metaKey && !event.altKey;
}
