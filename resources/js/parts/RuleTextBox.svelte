<script lang="ts">
    import { api, ask } from '../api/client';
    import { caretAt } from './caret';
    import Completions from './Completions.svelte';
    import { completions, continued } from './typing';
    import Area from './fields/Area.svelte';

    /** A whole rule as text. What is typed at the end of a row is completed from what could stand there. */
    type Props = { text: string; readonly?: boolean; label: string; on?: string };
    let { text = $bindable(''), readonly = false, label, on }: Props = $props();
    let box = $state<HTMLTextAreaElement>();
    let offers = $state.raw<string[]>([]);
    let from = 0; // where in the row the offers stand
    let chosen = $state(0);
    let place = $state({ left: 0, top: 0 });
    let asked = 0;
    let timer = 0;

    /** Takes the caret to a word. */
    export function select(start: number, end: number) {
        box?.focus();
        box?.setSelectionRange(start, end);
    }

    /** The row the caret stands at the end of; null when it stands elsewhere. */
    function row(): { start: number; typed: string } | null {
        if (!box || box.selectionStart !== box.selectionEnd) return null;
        const at = box.selectionStart;
        const start = box.value.lastIndexOf('\n', at - 1) + 1;
        const rest = box.value.slice(at).split('\n', 1)[0] ?? '';
        return rest.trim() === '' ? { start, typed: box.value.slice(start, at) } : null;
    }

    function typed() {
        offers = [];
        clearTimeout(timer);
        const turn = ++asked;
        timer = window.setTimeout(async () => {
            const here = row();
            if (!here || here.typed.trim() === '' || !box) return;
            const before = box.value.slice(0, box.selectionStart);
            const read = await ask(api.POST('/api/text/rule', { body: { text: before, on } })).catch(() => null);
            const wrong = read?.misread.find((one) => one.line === before.split('\n').length);
            if (turn !== asked || !wrong || !box) return;
            offers = completions(here.typed, wrong.position, wrong.offers);
            from = wrong.position;
            chosen = 0;
            const caret = caretAt(box);
            place = { left: Math.min(caret.left, box.clientWidth - 240), top: caret.top + caret.line + 4 };
        }, 120);
    }

    function close() {
        asked++;
        offers = [];
    }

    function take(offer: string | undefined) {
        const here = row();
        if (!here || offer === undefined || !box) return;
        const at = box.selectionStart;
        const next = continued(here.typed, from, offer);
        box.setRangeText(next, here.start, at, 'end');
        text = box.value;
        box.focus();
        typed();
    }

    function step(by: number) {
        chosen = Math.max(0, Math.min(offers.length - 1, chosen + by));
    }

    function key(event: KeyboardEvent) {
        if (!offers.length || event.ctrlKey || event.metaKey || event.altKey || event.shiftKey) return;
        const does: Record<string, () => void> = {
            ArrowDown: () => step(1),
            ArrowUp: () => step(-1),
            Tab: () => take(offers[chosen]),
            Escape: close,
        };
        const act = does[event.key];
        if (!act) {
            if (/^(Arrow|Home|End|Page|Enter)/.test(event.key)) close();
            return;
        }
        event.preventDefault();
        event.stopPropagation();
        act();
    }
</script>

<div class="relative">
    <Area
        bind:elementRef={box}
        class="figures h-[350px] resize-y text-[12.5px] leading-relaxed"
        aria-label={label}
        aria-autocomplete="list"
        aria-controls={offers.length ? 'text-completions' : undefined}
        aria-activedescendant={offers.length ? `text-completions-${chosen}` : undefined}
        spellcheck="false"
        {readonly}
        bind:value={text}
        oninput={typed}
        onkeydown={key}
        onclick={close}
        onscroll={close}
        onblur={close}
    />
    {#if offers.length}
        <Completions
            id="text-completions"
            {offers}
            {chosen}
            ontake={take}
            class="max-h-[168px] min-w-[220px]"
            style="left: {place.left}px; top: {place.top}px"
        />
    {/if}
</div>
