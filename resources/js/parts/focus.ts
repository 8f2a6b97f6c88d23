import { tick } from 'svelte';

/**
 * Takes the keyboard, wherever it was; what the browser calls autofocus does so only where nothing else has it. A number is replaced by
 * what is typed: nobody sets the caret first.
 */
export function takesFocus(node: HTMLElement): void {
    node.focus();
    if (!(node instanceof HTMLInputElement) || (node.type !== 'number' && node.inputMode !== 'decimal')) return;
    // Its value may come a moment later than itself.
    void tick().then(() => node === document.activeElement && node.select());
}

/** What a dialog gives the keyboard to when it opens: a dialog gives it to its first button as soon as it is shown, and that is later. */
export function comesFirst(node: HTMLElement, first = true): void {
    if (first) void tick().then(() => node.focus());
}
