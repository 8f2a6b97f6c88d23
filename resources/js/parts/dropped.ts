/** What lets something be dropped on an element: it is told while something hovers over it, and what was let go of. */
export function dropped(hovers: (is: boolean) => void, take: (event: DragEvent) => void) {
    return {
        ondragover(event: DragEvent) {
            event.preventDefault();
            hovers(true);
        },
        ondragleave: () => hovers(false),
        ondrop(event: DragEvent) {
            event.preventDefault();
            hovers(false);
            take(event);
        },
    };
}
