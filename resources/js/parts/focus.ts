/** Takes the keyboard, wherever it was; what the browser calls autofocus does so only where nothing else has it. */
export function takesFocus(node: HTMLElement): void {
    node.focus();
}
