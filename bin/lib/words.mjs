/*
 * Which texts of the screens are words that somebody reads. What stands in the markup always is; of scripts and attributes it is
 * what looks like a sentence: it begins with a capital, or has several words. A single word without one is marked by `say`.
 */
const whole = (...some) => new RegExp(`^(${some.join('|')})$`, 's');

export const SPOKEN_ATTRIBUTES = whole('title', 'placeholder', 'aria-label', 'alt', 'label', 'go', 'what', 'says', 'takes', 'loses');
const SILENT_ATTRIBUTES = whole(
    ...['class', 'style', 'href', 'src', 'id', 'for', 'name', 'type', 'role', 'rel', 'd', 'method', 'value', 'list', 'color', 'size'],
    ...['transform', 'viewBox', 'points', 'scope', 'tag', 'key', 'triggeredBy', 'autocomplete', 'inputmode', 'data-.*'],
    'aria-(controls|live|describedby|current|autocomplete)',
);
const SILENT_CALLS = whole(
    ...['fetch', 'querySelector(All)?', 'closest', 'matches', 'cookie', 'api.*', 'request.*', 'document.*', 'Intl', 'Error', 'String'],
    ...['Number', 'RegExp', 'addEventListener'],
);
// Names of keys, of tags and of a calendar's parts are compared with, never shown.
const NAMES = whole(
    ...['Escape', 'Enter', 'Tab', 'Home', 'End', 'Delete', 'Backspace', 'Arrow(Up|Down|Left|Right)', 'Page(Up|Down)'],
    ...['Content-Type', 'UTC', 'Sept?', 'FREQ=DAILY', 'X?-?XSRF-TOKEN=?'],
);
// Examples of what a program reads.
const CODE = whole(
    ...['https?:.*', 'whsec_.*', 'INV-.*', 'T-0042', 'customer\\.name', 'hours \\* .*', 'Authorization', 'name,email.*', 'days\\(.*'],
    ...['curl .*', ' *-H .*', 'least\\(.*', 'most\\(.*', 'cost > .*', '(select|input),? .*', 'input, textarea.*'],
);
const STYLES = [
    /(^|\s)(!?[a-z]+(-[a-z0-9]+)*-(\d|\[|\()|[a-z-]+:[a-z]|\[)/,
    /(^|\s)(grid\b|figures\b|font-|text-|border|rounded)/,
    /^max-width|^\(prefers-|^main\b|^tr\.on/,
];

export function saysSomething({ msgStr, details }) {
    const text = msgStr.join('\n');
    const attribute = details.attribute ?? '';
    if (!/\p{L}/u.test(text)) return false;
    if (['script', 'style', 'path', 'code', 'pre'].includes(details.element ?? '')) return false;
    if (details.scope === 'markup') return 'message';
    if (SILENT_ATTRIBUTES.test(attribute) || SILENT_CALLS.test(details.call ?? '')) return false;
    if (details.scope === 'attribute' && SPOKEN_ATTRIBUTES.test(attribute)) return CODE.test(text) ? false : 'message';
    if (NAMES.test(text) || CODE.test(text) || STYLES.some((style) => style.test(text))) return false;
    return looksLikeWords(text) ? 'message' : false;
}

/** A # stands for what is filled in. */
function looksLikeWords(text) {
    if (/^\p{Lu}[^#]*\p{Ll}/u.test(text)) return true;
    const isAddress = /^[/[.$]|^[a-z]+\[|\/#|=/.test(text);
    return !isAddress && /\p{L}[\p{L}’.,;:!?…”)]* [#“‘(+·\p{L}]|#[,;:]? \p{L}|#.*[.…!?]$/u.test(text);
}
