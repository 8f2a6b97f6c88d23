/** What could stand at a place of a text and begins with what was typed there already. */
export function completions(text: string, position: number, offered: string[]): string[] {
    const typed = text.slice(position).trimStart().toLowerCase().replaceAll("'", '’');
    // Signs alone are quicker typed than chosen.
    const offers = offered.map((offer) => offer.trim()).filter((offer) => offer.length > 1);
    const bare = (offer: string) => offer.toLowerCase().replace(/^(a|an|the) /, '');
    return [...new Set(offers)]
        .filter(
            (offer) => typed === '' || offer.toLowerCase().startsWith(typed) || bare(offer).startsWith(typed.replace(/^(a|an|the) /, '')),
        )
        .slice(0, 40);
}

/** The text with what was typed at a place replaced by what was chosen. */
export function continued(text: string, position: number, offer: string): string {
    const before = text.slice(0, position).trimEnd();
    const gap = before === '' || /^’/.test(offer) ? '' : ' ';
    return offer === '“…”' ? `${before}${gap}“` : `${before}${gap}${offer} `;
}
