import { say } from '../../state/words';
/** The kinds of value a field can hold, as somebody who makes one chooses them. */
export const KINDS: Record<string, { label: string; says: string }> = {
    text: { label: 'Text', says: 'one line' },
    long_text: { label: 'Long text', says: 'as many lines as it takes' },
    number: { label: 'Number', says: 'hours, pieces, metres' },
    money: { label: 'Money', says: 'an amount in a currency' },
    percent: { label: 'Percent', says: 'a share' },
    date: { label: 'Date', says: 'a day; rules can wait for it' },
    date_time: { label: 'Date and time', says: 'a moment' },
    tick: { label: 'Tick box', says: 'yes or no' },
    choice: { label: 'Choice', says: 'one of a list, such as a stage' },
    choices: { label: 'Several choices', says: 'any of a list' },
    tags: { label: 'Tags', says: 'words people make up' },
    person: { label: 'Person', says: 'somebody of the company' },
    reference: { label: 'Reference', says: 'another record' },
    email: { label: 'E-mail', says: 'an address to write to' },
    phone: { label: 'Phone', says: 'a number to ring' },
    link: { label: 'Link', says: 'a page somewhere' },
};

export const TONES = ['', 'iris', 'fern', 'marigold', 'madder', 'harbor'] as const;

export type ChoiceGiven = { value?: string; label: string; tone: string; closes: boolean; isRetired: boolean };

/** As the server takes choices: those that are retired come last by themselves. */
export function asGiven(choices: ChoiceGiven[]): Record<string, unknown>[] {
    return choices
        .filter((choice) => choice.label.trim() !== '')
        .map(({ value, label, tone, closes, isRetired }) => ({
            ...(value ? { value } : {}),
            label: label.trim(),
            tone: tone || null,
            closes,
            retired: isRetired,
        }));
}

/** What people call a colour; the name of the tone is ours. */
export function toneName(tone: string): string {
    const names: Record<string, string> = {
        fern: say('green'),
        madder: say('red'),
        marigold: say('amber'),
        harbor: say('blue'),
        iris: say('violet'),
    };
    return names[tone] ?? say('no colour');
}
