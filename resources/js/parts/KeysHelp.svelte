<script lang="ts">
    import { Modal } from 'flowbite-svelte';
    import { crumbs } from '../state/crumbs.svelte';

    /* The keys of the screen at hand, as its own foot says them, with those that hold everywhere. */
    let { onclose }: { onclose: () => void } = $props();
    let open = $state(true);
    $effect(() => {
        if (!open) onclose();
    });
    const EVERYWHERE: [string, string][] = [
        ['Ctrl K', 'find or do anything'],
        ['?', 'these keys'],
        ['Esc', 'close what is open'],
        ['Tab', 'to the next field or button'],
    ];
    const here = [...document.querySelectorAll('main .keys span:has(> kbd)')].map((span): [string, string] => {
        const keys = [...span.querySelectorAll('kbd')].map((kbd) => kbd.textContent ?? '').join(' ');
        return [
            keys,
            [...span.childNodes]
                .filter((node) => node.nodeType === Node.TEXT_NODE)
                .map((node) => node.textContent)
                .join(' ')
                .trim(),
        ];
    });
</script>

<Modal bind:open size="xs" dismissable={false} classes={{ body: 'p-6' }}>
    <h2 class="text-lg">Keys{crumbs.parts.length ? `: ${crumbs.parts.at(-1)?.label}` : ''}</h2>
    <dl class="mt-3 grid grid-cols-[96px_1fr] gap-x-4 text-[13px]" data-keys>
        {#each [...here, ...EVERYWHERE] as [keys, does], index (index)}
            <dt class="figures border-b border-ruled py-1 text-right">{keys}</dt>
            <dd class="border-b border-ruled py-1">{does}</dd>
        {/each}
    </dl>
    <div class="mt-4 flex justify-end"><button type="button" class="btn go" onclick={() => (open = false)}>Close</button></div>
</Modal>
