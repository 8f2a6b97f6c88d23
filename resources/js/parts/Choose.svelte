<script lang="ts">
    import { onMount, tick, untrack } from 'svelte';
    import { ahead } from './ahead';
    import type { Option } from './options';

    type Props = {
        title: string;
        options: Option[];
        chosen?: string[];
        many?: boolean;
        /** Asked with what was typed when the options themselves come from the server. */
        onsearch?: (typed: string) => void;
        onchoose: (keys: string[]) => void;
        onclose: () => void;
    };
    let { title, options, chosen = [], many = false, onsearch, onchoose, onclose }: Props = $props();
    const uid = $props.id();

    let typed = $state('');
    let ticked = $state<string[]>(untrack(() => [...chosen]));
    let list = $state<HTMLDivElement>();
    let input = $state<HTMLInputElement>();
    // Its options may have come from the server, long after whatever it stands in was opened.
    onMount(() => {
        input?.focus();
        const [early = '', ...enters] = ahead.take().split('\n');
        if (early === '') return;
        typed = early;
        typing();
        if (enters.length && !many && !onsearch) pick(shown[0]);
    });
    const shown = $derived.by(() => {
        const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
        if (onsearch) return options;
        const fits = options.filter((option) =>
            words.every((word) => `${option.group ?? ''} ${option.label}`.toLowerCase().includes(word)),
        );
        // What reads just so comes before what it is only a part of.
        const isIt = (option: Option) => option.label.toLowerCase() === typed.trim().toLowerCase();
        return [...fits.filter(isIt), ...fits.filter((option) => !isIt(option))];
    });
    let at = $state(
        untrack(() =>
            Math.max(
                0,
                options.findIndex((option) => chosen.includes(option.key)),
            ),
        ),
    );
    $effect(() => {
        if (at >= shown.length) at = Math.max(0, shown.length - 1);
    });
    $effect(() => void scrollTo(at));

    async function scrollTo(index: number) {
        await tick();
        list?.querySelector(`[data-index="${index}"]`)?.scrollIntoView({ block: 'nearest' });
    }

    function pick(option: Option | undefined) {
        if (!option) return;
        if (many) ticked = ticked.includes(option.key) ? ticked.filter((key) => key !== option.key) : [...ticked, option.key];
        else onchoose([option.key]);
    }

    function done() {
        onchoose(options.map((option) => option.key).filter((key) => ticked.includes(key)));
    }

    function key(event: KeyboardEvent) {
        const moves: Record<string, () => void> = {
            ArrowDown: () => (at = Math.min(shown.length - 1, at + 1)),
            ArrowUp: () => (at = Math.max(0, at - 1)),
            Home: () => (at = 0),
            End: () => (at = shown.length - 1),
            Enter: () => (many ? done() : pick(shown[at])),
            Tab: () => onclose(),
        };
        if (many && event.key === ' ' && (typed === '' || event.ctrlKey)) {
            event.preventDefault();
            pick(shown[at]);
            return;
        }
        const move = moves[event.key];
        if (!move) return;
        if (event.key !== 'Tab') event.preventDefault();
        event.stopPropagation();
        move();
    }

    function typing() {
        at = 0;
        onsearch?.(typed);
    }
</script>

<div class="w-[320px]">
    <div class="flex items-center gap-3 border-b border-ruled px-4 py-2.5">
        <input
            bind:this={input}
            class="w-full bg-transparent text-[13px] outline-none placeholder:text-ink-3"
            bind:value={typed}
            oninput={typing}
            onkeydown={key}
            placeholder="{title}: type to filter"
            aria-label={title}
            role="combobox"
            aria-expanded="true"
            aria-controls="{uid}-options"
            aria-activedescendant={shown[at] ? `${uid}-${at}` : undefined}
        />
    </div>
    <div
        bind:this={list}
        id="{uid}-options"
        class="max-h-[280px] overflow-auto py-1"
        role="listbox"
        aria-label={title}
        aria-multiselectable={many}
    >
        {#each shown as option, index (option.key)}
            {#if option.group && option.group !== shown[index - 1]?.group}
                <div class="px-4 pt-2 pb-0.5 text-[11px] font-semibold text-ink-3">{option.group}</div>
            {/if}
            <button
                type="button"
                id="{uid}-{index}"
                class="option"
                role="option"
                tabindex="-1"
                data-index={index}
                aria-selected={index === at}
                onpointermove={() => (at = index)}
                onclick={() => pick(option)}
            >
                {#if many}
                    <span
                        class="grid h-3.5 w-3.5 place-items-center rounded-[3px] border text-[10px] leading-none {ticked.includes(
                            option.key,
                        )
                            ? 'border-iris bg-iris text-on-iris'
                            : 'border-ink-3 bg-field'}">{ticked.includes(option.key) ? '✓' : ''}</span
                    >
                {/if}
                <span class={option.tone ? `tone-${option.tone} font-semibold` : ''}>{option.label}</span>
                {#if option.hint}<span class="hint">{option.hint}</span>{/if}
            </button>
        {:else}
            <p class="px-4 py-3 text-[13px] text-ink-3">Nothing fits “{typed}”.</p>
        {/each}
    </div>
    <div class="keys">
        {#if many}
            <span><kbd>Space</kbd>tick</span><span><kbd>Enter</kbd>done</span>
            <button type="button" class="link ml-auto" onclick={done}>Done</button>
        {:else}
            <span><kbd>↑↓</kbd>move</span><span><kbd>Enter</kbd>choose</span><span><kbd>Esc</kbd>close</span>
        {/if}
    </div>
</div>
