<script lang="ts">
    import { untrack } from 'svelte';
    import type { Resources } from '../api/client';
    import type { JsonObject } from '../state/pointer';
    import Completions from './Completions.svelte';
    import { continued, completions } from './typing';

    /** A box in which something is said as one talks. What can mean several things is asked about, never chosen. */
    type Props = {
        label: string;
        placeholder: string;
        read: (text: string) => Promise<Resources['TextResource'] | null>;
        take: (file: JsonObject, said: string) => Promise<void>;
        takes?: string;
        class?: string;
        /** Whether it takes the keyboard as soon as it is there. */
        first?: boolean;
    };
    let { label, placeholder, read, take, takes = 'adds it', class: looks = 'text-[14px]', first = false }: Props = $props();
    let text = $state('');
    let reading = $state.raw<Resources['TextResource'] | null>(null);
    let at = $state(0);
    let focused = $state(false);
    let input = $state<HTMLTextAreaElement>();
    let asked = 0;

    const uid = $props.id();
    const misread = $derived(reading?.misread[0]);
    const meanings = $derived(reading?.meanings ?? []);
    const offers = $derived.by(() => {
        if (!misread || !text.trim()) return [];
        return misread.meant ? [misread.meant] : completions(text, misread.position, misread.offers);
    });
    const choices = $derived(meanings.length ? meanings.map((one) => one.text.trim()) : offers);

    $effect(() => {
        if (first) input?.focus();
    });
    $effect(() => {
        const typed = text;
        const turn = ++asked;
        if (typed.trim() === '') {
            reading = null;
            return;
        }
        const timer = setTimeout(async () => {
            const found = await untrack(() => read(typed)).catch(() => null);
            if (turn === asked) {
                reading = found;
                at = 0;
            }
        }, 120);
        return () => clearTimeout(timer);
    });

    /** What is offered stands in the place of what was not understood; what is nearly spelt right, in the place of its words. */
    function put(offer: string | undefined) {
        if (!misread || offer === undefined) return;
        const words = offer.split(' ').length + (/^(the|an?)\s/i.test(text.slice(misread.position)) ? 1 : 0);
        const behind = misread.meant ? text.slice(misread.position).split(/\s+/).slice(words).join(' ') : '';
        text = continued(text, misread.position, offer) + behind;
        input?.focus();
    }

    function choose(index: number) {
        const meaning = meanings[index];
        if (meaning) void keep(meaning.file as JsonObject);
        else put(offers[index]);
    }

    async function keep(file: JsonObject) {
        await take(file, text.trim());
        text = '';
        reading = null;
    }

    async function done() {
        if (meanings.length) return choose(at);
        // What was typed last may not have been read yet.
        const found = await read(text).catch(() => null);
        reading = found;
        if (found?.file) await keep(found.file as JsonObject);
    }

    function key(event: KeyboardEvent) {
        // What holds for the whole page holds here too.
        if (event.ctrlKey || event.metaKey) return;
        event.stopPropagation();
        const moves: Record<string, () => void> = {
            ArrowDown: () => (at = Math.min(choices.length - 1, at + 1)),
            ArrowUp: () => (at = Math.max(0, at - 1)),
            Tab: () => choose(at),
            // Nothing that was written is lost: it is marked, and the next letter takes its place.
            Escape: () => input?.select(),
        };
        if (event.key === 'Enter') {
            event.preventDefault();
            void done();
        } else if (moves[event.key] && (choices.length || event.key === 'Escape') && !(event.key === 'Tab' && event.shiftKey)) {
            event.preventDefault();
            moves[event.key]?.();
        }
    }
</script>

<div class="relative">
    <!-- A long sentence is seen whole: it goes on in a second row. -->
    <textarea
        rows="1"
        bind:this={input}
        class="field-sizing-content w-full resize-none bg-transparent outline-none placeholder:text-ink-3 {looks}"
        aria-label={label}
        {placeholder}
        autocomplete="off"
        spellcheck="false"
        aria-autocomplete="list"
        aria-controls={choices.length > 0 ? `said-${uid}` : undefined}
        aria-activedescendant={choices.length > 0 ? `said-${uid}-${at}` : undefined}
        bind:value={text}
        onkeydown={key}
        onfocus={() => (focused = true)}
        onblur={() => (focused = false)}></textarea>
    {#if focused && text.trim()}
        {#if reading?.file}
            <p class="mini" data-understood>✓ understood: <kbd>Enter</kbd> {takes}</p>
        {:else if meanings.length}
            <p class="mini" data-meanings>That can mean {meanings.length} things: <kbd>↑↓</kbd> <kbd>Enter</kbd> takes the one you mean</p>
        {:else if misread}
            <p class="mini" data-misread>
                {#if misread.meant || !offers.length}{misread.message}{/if}
                {#if offers.length}{#if !misread.meant}<kbd>↑↓</kbd> choose ·
                    {/if}<kbd>Tab</kbd> takes it{/if}
            </p>
        {/if}
        {#if choices.length}
            <Completions
                id="said-{uid}"
                offers={choices}
                chosen={at}
                ontake={(one) => choose(choices.indexOf(one))}
                class="top-full mt-1 max-h-[220px] min-w-[260px]"
            />
        {/if}
    {/if}
</div>
