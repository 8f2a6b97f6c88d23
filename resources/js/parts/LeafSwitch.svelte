<script lang="ts">
    import { onMount } from 'svelte';
    import { route } from '../router';

    /* A phone has room for one leaf of a spread: this says which there are, and turns from one to the other. */
    const NAME = 'h1, h2, h3, [role=tablist]';
    let names = $state<string[]>([]);
    let shown = $state(0);

    const spread = () => document.querySelector<HTMLElement>('main > .spread');
    const leaves = () =>
        [...(spread()?.children ?? [])].filter(
            // What a narrow window leaves out is no leaf to turn to.
            (leaf) => leaf.classList.contains('leaf') && !leaf.className.includes('hidden!'),
        );
    const nameOf = (leaf: Element) =>
        (leaf.getAttribute('aria-label') ?? leaf.querySelector(NAME)?.textContent ?? '').replaceAll(/\s+/g, ' ').trim().slice(0, 28);

    function look() {
        const all = leaves();
        const next = all.length === 2 ? all.map(nameOf) : [];
        if (next.join('|') !== names.join('|')) names = next;
        if (spread()) spread()!.dataset.shown = names.length && shown === 1 ? 'right' : 'left';
    }

    function turn(to: number) {
        shown = to;
        look();
    }

    $effect(() => {
        void route.pathname;
        shown = 0;
    });

    onMount(() => {
        let frame = 0;
        const observer = new MutationObserver(() => {
            cancelAnimationFrame(frame);
            frame = requestAnimationFrame(look);
        });
        const main = document.querySelector('main');
        if (main) observer.observe(main, { childList: true, subtree: true, characterData: true });
        look();
        return () => observer.disconnect();
    });

    /** Whoever chooses something on the left wants to see it, also what lay open already. */
    function chosen(event: MouseEvent) {
        const left = leaves()[0];
        if (names.length !== 2 || shown !== 0 || !left?.contains(event.target as Node)) return;
        const target = (event.target as HTMLElement).closest('button, a, tr, [data-task]');
        const isRow = target && (target.hasAttribute('aria-pressed') || target.hasAttribute('aria-current'));
        if (isRow && !target.closest('.segments, header, [role=group], [role=tab]')) setTimeout(() => turn(1), 0);
    }
</script>

<svelte:document onclick={chosen} />

{#if names.length === 2}
    <div class="leaf-switch segments" role="group" aria-label="Which leaf">
        {#each names as name, index (index)}<button type="button" aria-pressed={shown === index} onclick={() => turn(index)}
                >{name || (index ? 'Beside' : 'Here')}</button
            >{/each}
    </div>
{/if}
