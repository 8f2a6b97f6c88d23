/** The languages that the screens are in, and how each is named for dates, figures and months. */
const TAGS = { en: 'en-GB', de: 'de-DE' };

export type LanguageCode = keyof typeof TAGS;

const isKnown = (code: string): code is LanguageCode => code in TAGS;

/** All of them, each named in its own words. */
export function languages(): { code: LanguageCode; name: string }[] {
    return Object.keys(TAGS)
        .filter(isKnown)
        .map((code) => ({ code, name: new Intl.DisplayNames([code], { type: 'language' }).of(code) ?? code }));
}

/** The language of the person: the server says it with the page, and another one begins with a new page. */
class Language {
    readonly code = typeof document !== 'undefined' && isKnown(document.documentElement.lang) ? document.documentElement.lang : 'en';
    tag = $state(TAGS[this.code]);
}

export const language = new Language();
