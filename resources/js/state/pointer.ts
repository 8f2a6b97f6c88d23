/** JSON as rule files hold it. */
export type Json = string | number | boolean | null | Json[] | { [key: string]: Json };
export type JsonObject = { [key: string]: Json };

function steps(pointer: string): string[] {
    return pointer
        .split('/')
        .slice(1)
        .map((step) => step.replaceAll('~1', '/').replaceAll('~0', '~'));
}

/** What stands at a JSON Pointer (RFC 6901); undefined where nothing does. */
export function at(root: object, pointer: string): Json | undefined {
    let here: Json | undefined = root as JsonObject;
    for (const step of steps(pointer)) {
        if (here === null || typeof here !== 'object') return undefined;
        here = Array.isArray(here) ? here[Number(step)] : here[step];
    }
    return here;
}

/** Puts a value at a pointer, making the objects and lists on the way; undefined removes it. */
export function put(root: object, pointer: string, value: Json | undefined): void {
    const path = steps(pointer);
    const last = path.pop();
    if (last === undefined) return;
    let here: Json = root as JsonObject;
    for (const [index, step] of path.entries()) {
        const next: Json = /^\d+$/.test(path[index + 1] ?? last) ? [] : {};
        if (Array.isArray(here)) here = here[Number(step)] ??= next;
        else here = (here as JsonObject)[step] ??= next;
    }
    if (Array.isArray(here)) {
        if (value === undefined) here.splice(Number(last), 1);
        else here[Number(last)] = value;
    } else if (value === undefined) delete (here as JsonObject)[last];
    else (here as JsonObject)[last] = value;
}

/** The place that holds a place, and the last step to it. */
export function split(pointer: string): [parent: string, last: string] {
    const cut = pointer.lastIndexOf('/');
    return [pointer.slice(0, cut), pointer.slice(cut + 1)];
}
