/** How the states of a rule are shown. */
export const STATUS: Record<string, { label: string; tone: string }> = {
    draft: { label: 'Draft', tone: 'harbor' },
    in_force: { label: 'In force', tone: 'fern' },
    paused: { label: 'Paused', tone: 'marigold' },
    retired: { label: 'Retired', tone: 'madder' },
};
