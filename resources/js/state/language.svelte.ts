/** The language of the person, as the browser's own formats name it. */
class Language {
    tag = $state('en-GB');
}

export const language = new Language();
