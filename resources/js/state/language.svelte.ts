/** How languages that the screens are in are named for dates, figures and months. */
const TAGS: Record<string, string> = { en: 'en-GB', de: 'de-DE' };

/** The language of the person: the server says it with the page, and another one begins with a new page. */
class Language {
    readonly code = typeof document !== 'undefined' && document.documentElement.lang in TAGS ? document.documentElement.lang : 'en';
    tag = $state(TAGS[this.code] ?? 'en-GB');
}

export const language = new Language();
