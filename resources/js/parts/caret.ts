/** Where the caret of a text box stands on the screen, in pixels from the box's upper left corner: a copy of the box is measured. */
export function caretAt(box: HTMLTextAreaElement): { left: number; top: number; line: number } {
    const style = getComputedStyle(box);
    const copy = document.createElement('div');
    for (const name of ['font', 'letterSpacing', 'padding', 'border', 'boxSizing', 'lineHeight', 'tabSize'] as const)
        copy.style[name] = style[name];
    Object.assign(copy.style, {
        position: 'absolute',
        visibility: 'hidden',
        whiteSpace: 'pre-wrap',
        overflowWrap: 'break-word',
        width: `${box.clientWidth}px`,
    });
    const mark = document.createElement('span');
    mark.textContent = '\u200b';
    copy.append(box.value.slice(0, box.selectionStart), mark);
    document.body.append(copy);
    const found = { left: mark.offsetLeft - box.scrollLeft, top: mark.offsetTop - box.scrollTop, line: mark.offsetHeight };
    copy.remove();
    return found;
}
