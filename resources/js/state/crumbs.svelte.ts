type Crumb = { label: string; to?: string };

/** Where the person is, as the date line shows it; each screen says it. */
class Crumbs {
    parts = $state.raw<Crumb[]>([]);

    set(...parts: Crumb[]): void {
        this.parts = parts;
        document.title = [...parts.map((part) => part.label).reverse(), 'Vivid Ledger'].join(' · ');
    }
}

export const crumbs = new Crumbs();
