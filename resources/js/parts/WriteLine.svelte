<script lang="ts">
    import { api, ask, type Shapes } from '../api/client';
    import type { Document } from '../state/document.svelte';
    import type { JsonObject } from '../state/pointer';
    import Completions from './Completions.svelte';
    import { continued, completions } from './typing';

    let { page }: { page: Document } = $props();
    let text = $state('');
    let reading = $state.raw<Shapes['TextShape'] | null>(null);
    let at = $state(0);
    let focused = $state(false);
    let input = $state<HTMLInputElement>();
    let asked = 0;

    const misread = $derived(reading?.misread[0]);
    const offers = $derived(misread && text.trim() ? completions(text, misread.position, misread.offers) : []);

    $effect(() => {
        const typed = text;
        const turn = ++asked;
        if (typed.trim() === '') {
            reading = null;
            return;
        }
        const timer = setTimeout(async () => {
            const read = await ask(api.POST('/api/text/line', { body: { text: typed, on: page.type } })).catch(() => null);
            if (turn === asked) {
                reading = read;
                at = 0;
            }
        }, 120);
        return () => clearTimeout(timer);
    });

    function take(offer: string | undefined) {
        if (!misread || offer === undefined) return;
        text = continued(text, misread.position, offer);
        input?.focus();
    }

    async function done() {
        // What was typed last may not have been read yet.
        const read = await ask(api.POST('/api/text/line', { body: { text, on: page.type } })).catch(() => null);
        reading = read;
        if (!read?.file) return;
        await page.append('/lines', read.file as JsonObject);
        text = '';
        reading = null;
    }

    function key(event: KeyboardEvent) {
        event.stopPropagation();
        const moves: Record<string, () => void> = {
            ArrowDown: () => (at = Math.min(offers.length - 1, at + 1)),
            ArrowUp: () => (at = Math.max(0, at - 1)),
            Tab: () => take(offers[at]),
            Escape: () => (text = ''),
        };
        if (event.key === 'Enter') {
            event.preventDefault();
            void done();
        } else if (moves[event.key] && (offers.length || event.key === 'Escape') && !(event.key === 'Tab' && event.shiftKey)) {
            event.preventDefault();
            moves[event.key]?.();
        }
    }
</script>

<div class="relative">
    <input
        bind:this={input}
        class="w-full bg-transparent text-[14px] outline-none placeholder:text-ink-3"
        aria-label="Write a line"
        placeholder="Write a line: “after 2 working days remind the owner’s manager”"
        autocomplete="off"
        spellcheck="false"
        role="combobox"
        aria-expanded={offers.length > 0}
        aria-controls="completions"
        bind:value={text}
        onkeydown={key}
        onfocus={() => (focused = true)}
        onblur={() => (focused = false)}
    />
    {#if focused && text.trim()}
        {#if reading?.file}
            <p class="mini" data-understood>✓ understood: <kbd>Enter</kbd> adds it</p>
        {:else if misread}
            <p class="mini" data-misread>
                {#if offers.length}<kbd>↑↓</kbd> choose · <kbd>Tab</kbd> takes it
                {:else if misread.word}<span class="text-madder">‘{misread.word}’</span> is not understood{misread.expected.length
                        ? `. It could go on with ${misread.expected.slice(0, 3).join(', ')}`
                        : ''}
                {:else}It goes on with {misread.expected.slice(0, 3).join(', ')}{/if}
            </p>
            {#if offers.length}
                <Completions id="completions" {offers} chosen={at} ontake={take} class="top-full mt-1 max-h-[220px] min-w-[260px]" />
            {/if}
        {/if}
    {/if}
</div>
